import FFT from 'fft.js';

const FRAME_SECONDS = 0.0227;
/** Memory of the spectrum in which the quietest moments are looked for. */
const SMOOTHING_SECONDS = 0.05;
/** So long a stretch holds a moment without speech at every frequency. */
const SEARCH_SECONDS = 1.6;
const SEARCH_PARTS = 8;
/** The quietest moments lie below the mean of noise by this factor; found on white noise. */
const MINIMUM_BIAS = 2.8;
const FORGETTING = 0.98;
/** At full strength noise is brought down by this. */
const DEEPEST_DB = 24;

/**
 * Takes steady noise away: a Wiener gain at each frequency by the decision-directed signal-to-noise ratio
 * (Y. Ephraim, D. Malah, IEEE Trans. ASSP 32, 1984), the noise by its minima over a sliding stretch (R. Martin,
 * IEEE Trans. Speech Audio Processing 9, 2001, with one fixed bias).
 */
export class NoiseReducer {
  /** Samples by which the result comes later. */
  readonly latency: number;
  private readonly size: number;
  private readonly hop: number;
  private readonly fft: FFT;
  private readonly window: Float64Array;
  private readonly input: Float64Array;
  private readonly tail: Float64Array;
  private readonly ready: Float32Array;
  private readonly smoothed: Float64Array;
  private readonly minima: Float64Array[];
  private readonly before: Float64Array;
  private readonly frame: number[];
  private readonly spectrum: number[];
  private readonly smoothing: number;
  private readonly framesInPart: number;
  private filled = 0;
  private frames = 0;

  /** @param strength from 0 (nothing) to 1 */
  constructor(
    rate: number,
    public strength: number,
  ) {
    this.size = 2 ** Math.round(Math.log2(rate * FRAME_SECONDS));
    this.hop = this.size / 2;
    this.latency = this.size;
    this.fft = new FFT(this.size);
    this.window = Float64Array.from({ length: this.size }, (_, i) => Math.sin((Math.PI * (i + 0.5)) / this.size));
    this.input = new Float64Array(this.size);
    this.tail = new Float64Array(this.hop);
    this.ready = new Float32Array(this.hop);
    const bins = this.hop + 1;
    this.smoothed = new Float64Array(bins);
    this.minima = Array.from({ length: SEARCH_PARTS }, () => new Float64Array(bins).fill(Infinity));
    this.before = new Float64Array(bins);
    this.frame = new Array<number>(this.size).fill(0);
    this.spectrum = this.fft.createComplexArray();
    const framesPerSecond = rate / this.hop;
    this.smoothing = Math.exp(-1 / (SMOOTHING_SECONDS * framesPerSecond));
    this.framesInPart = Math.round((SEARCH_SECONDS * framesPerSecond) / SEARCH_PARTS);
  }

  /** The next sample in, the one `latency` samples before it out. */
  step(sample: number): number {
    const out = this.ready[this.filled]!;
    this.input[this.hop + this.filled] = sample;
    if (++this.filled === this.hop) {
      this.work();
      this.filled = 0;
    }
    return out;
  }

  private work(): void {
    const { size, hop, window, frame, spectrum, input } = this;
    for (let i = 0; i < size; i++) frame[i] = input[i]! * window[i]!;
    input.copyWithin(0, hop);
    this.fft.realTransform(spectrum, frame);
    this.fft.completeSpectrum(spectrum);
    this.newPart();
    const least = 10 ** ((-DEEPEST_DB * this.strength) / 20);
    for (let bin = 0; bin <= hop; bin++) {
      const gain = Math.max(least, this.gainAt(bin, spectrum[2 * bin]! ** 2 + spectrum[2 * bin + 1]! ** 2));
      spectrum[2 * bin]! *= gain;
      spectrum[2 * bin + 1]! *= gain;
      if (bin > 0 && bin < hop) {
        spectrum[2 * (size - bin)]! *= gain;
        spectrum[2 * (size - bin) + 1]! *= gain;
      }
    }
    const back = this.fft.createComplexArray();
    this.fft.inverseTransform(back, spectrum);
    for (let i = 0; i < hop; i++) {
      this.ready[i] = this.tail[i]! + back[2 * i]! * window[i]!;
      this.tail[i] = back[2 * (hop + i)]! * window[hop + i]!;
    }
    this.frames++;
  }

  private newPart(): void {
    if (this.frames % this.framesInPart !== 0) return;
    const oldest = this.minima.shift()!;
    this.minima.push(oldest.fill(Infinity));
  }

  private gainAt(bin: number, power: number): number {
    const smoothed = this.frames === 0 ? power : this.smoothing * this.smoothed[bin]! + (1 - this.smoothing) * power;
    this.smoothed[bin] = smoothed;
    const newest = this.minima.at(-1)!;
    if (smoothed < newest[bin]!) newest[bin] = smoothed;
    let noise = Infinity;
    for (const part of this.minima) if (part[bin]! < noise) noise = part[bin]!;
    noise = Math.max(1e-12, noise * MINIMUM_BIAS);
    const above = power / noise;
    const ratio = FORGETTING * this.before[bin]! + (1 - FORGETTING) * Math.max(0, above - 1);
    const gain = ratio / (1 + ratio);
    this.before[bin] = gain * gain * above;
    return gain;
  }
}
