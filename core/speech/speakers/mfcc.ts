import FFT from 'fft.js';

/** Frames per second of the coefficients. */
export const FRAMES_PER_SECOND = 100;
export const COEFFICIENTS = 15;
const RATE_HZ = 16_000;
const HOP = RATE_HZ / FRAMES_PER_SECOND;
const WINDOW = 400;
const SIZE = 512;
const FILTERS = 30;
const LOWEST_HZ = 80;
const HIGHEST_HZ = 7600;
const PRE_EMPHASIS = 0.97;

/** Mel of a frequency in hertz (O'Shaughnessy 1987, as used by HTK). */
export const melOf = (hz: number): number => 2595 * Math.log10(1 + hz / 700);
const hzOf = (mel: number): number => 700 * (10 ** (mel / 2595) - 1);

const fft = new FFT(SIZE);
const hamming = Float64Array.from(
  { length: WINDOW },
  (_, i) => 0.54 - 0.46 * Math.cos((2 * Math.PI * i) / (WINDOW - 1)),
);
const filters = melFilters();
const cosines = Array.from({ length: COEFFICIENTS }, (_, c) =>
  Float64Array.from(
    { length: FILTERS },
    (_, f) => Math.sqrt(2 / FILTERS) * Math.cos((Math.PI * (c + 1) * (f + 0.5)) / FILTERS),
  ),
);

/** Triangles of equal width in mel, each with its first bin. */
function melFilters(): { from: number; weights: Float64Array }[] {
  const [low, high] = [melOf(LOWEST_HZ), melOf(HIGHEST_HZ)];
  const edges = Array.from(
    { length: FILTERS + 2 },
    (_, i) => (hzOf(low + ((high - low) * i) / (FILTERS + 1)) * SIZE) / RATE_HZ,
  );
  return Array.from({ length: FILTERS }, (_, f) => {
    const [left, middle, right] = [edges[f]!, edges[f + 1]!, edges[f + 2]!];
    const from = Math.ceil(left);
    const weights = Float64Array.from({ length: Math.max(1, Math.floor(right) - from + 1) }, (_, i) => {
      const bin = from + i;
      return Math.max(0, bin <= middle ? (bin - left) / (middle - left) : (right - bin) / (right - middle));
    });
    return { from, weights };
  });
}

/**
 * Mel-frequency cepstral coefficients 1 to 15, without the one of loudness (Davis and Mermelstein 1980).
 * @param samples 16 kHz mono in [-1, 1]
 * @returns one row of 15 for each hundredth of a second that has a whole window of 25 ms
 */
export function mfcc(samples: Float32Array): Float64Array[] {
  const rows: Float64Array[] = [];
  const input = new Array<number>(SIZE).fill(0);
  const spectrum = fft.createComplexArray();
  const energies = new Float64Array(FILTERS);
  for (let start = 0; start + WINDOW <= samples.length; start += HOP) {
    for (let i = 0; i < WINDOW; i++) {
      const emphasised = samples[start + i]! - PRE_EMPHASIS * (samples[start + i - 1] ?? 0);
      input[i] = emphasised * hamming[i]!;
    }
    fft.realTransform(spectrum, input);
    for (const [f, { from, weights }] of filters.entries()) {
      let energy = 1e-10;
      for (let i = 0; i < weights.length; i++) {
        const bin = 2 * (from + i);
        energy += weights[i]! * (spectrum[bin]! ** 2 + spectrum[bin + 1]! ** 2);
      }
      energies[f] = Math.log(energy);
    }
    rows.push(Float64Array.from(cosines, (cosine) => cosine.reduce((sum, c, f) => sum + c * energies[f]!, 0)));
  }
  return rows;
}
