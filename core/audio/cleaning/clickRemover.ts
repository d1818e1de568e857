const BLOCK_SECONDS = 0.02;
/** Order of the prediction; a voice has about a resonance for each kilohertz. */
const ORDER = 20;
const MAX_CLICK_SECONDS = 0.002;
/** A click is a sample that stands out of what was predicted by so many times the usual surprise. */
const THRESHOLD_WEAK = 25;
const THRESHOLD_STRONG = 8;
const MARGIN = 3;

/**
 * Takes clicks away: samples that linear prediction cannot explain are put back from their neighbours, predicted from
 * both sides (S. V. Vaseghi, "Advanced digital signal processing and noise reduction", chapter on impulsive noise).
 */
export class ClickRemover {
  /** Samples by which the result comes later. */
  readonly latency: number;
  private readonly block: number;
  private readonly longest: number;
  /** The block before, the one that is mended, and the one that lies ahead. */
  private readonly samples: Float64Array;
  private filled = 0;

  /** @param strength from 0 (only the plainest clicks) to 1 */
  constructor(
    rate: number,
    public strength: number,
  ) {
    this.block = Math.round(rate * BLOCK_SECONDS);
    this.longest = Math.round(rate * MAX_CLICK_SECONDS);
    this.samples = new Float64Array(3 * this.block);
    this.latency = 2 * this.block;
  }

  /** The next sample in, the one `latency` samples before it out. */
  step(sample: number): number {
    const { block, samples } = this;
    const out = samples[this.filled]!;
    samples[2 * block + this.filled] = sample;
    if (++this.filled === block) {
      this.mend();
      samples.copyWithin(0, block);
      this.filled = 0;
    }
    return out;
  }

  private mend(): void {
    const { samples, block } = this;
    const prediction = linearPrediction(samples, ORDER);
    if (!prediction) return;
    const surprise = new Float64Array(samples.length);
    for (let i = ORDER; i < samples.length; i++) {
      let predicted = 0;
      for (let k = 0; k < ORDER; k++) predicted += prediction[k]! * samples[i - 1 - k]!;
      surprise[i] = Math.abs(samples[i]! - predicted);
    }
    const usual = median(surprise.subarray(ORDER)) / 0.6745;
    const most = (THRESHOLD_WEAK + (THRESHOLD_STRONG - THRESHOLD_WEAK) * this.strength) * Math.max(usual, 1e-6);
    for (let i = block; i < 2 * block; i++) {
      if (surprise[i]! <= most) continue;
      const from = i - MARGIN;
      let to = i;
      // A click ends where nothing stands out for as long as the prediction looks back.
      for (let j = i; j < Math.min(samples.length - ORDER, i + this.longest); j++) if (surprise[j]! > most) to = j;
      to += MARGIN;
      this.fill(prediction, from, to);
      i = to;
    }
  }

  /** Predicts the samples from `from` to before `to` forwards and backwards and passes from one to the other. */
  private fill(prediction: Float64Array, from: number, to: number): void {
    const { samples } = this;
    const length = to - from;
    const forward = samples.slice(from - ORDER, to);
    for (let i = ORDER; i < forward.length; i++) {
      forward[i] = 0;
      for (let k = 0; k < ORDER; k++) forward[i]! += prediction[k]! * forward[i - 1 - k]!;
    }
    const backward = samples.slice(from, to + ORDER).reverse();
    for (let i = ORDER; i < backward.length; i++) {
      backward[i] = 0;
      for (let k = 0; k < ORDER; k++) backward[i]! += prediction[k]! * backward[i - 1 - k]!;
    }
    for (let i = 0; i < length; i++) {
      const share = (i + 1) / (length + 1);
      samples[from + i] = (1 - share) * forward[ORDER + i]! + share * backward[ORDER + length - 1 - i]!;
    }
  }
}

/** Coefficients by autocorrelation (Levinson and Durbin); null in silence. */
function linearPrediction(samples: Float64Array, order: number): Float64Array | null {
  const correlation = new Float64Array(order + 1);
  for (let lag = 0; lag <= order; lag++) {
    for (let i = lag; i < samples.length; i++) correlation[lag]! += samples[i]! * samples[i - lag]!;
  }
  if (correlation[0]! < 1e-9) return null;
  // A little white noise keeps the equations solvable.
  correlation[0]! *= 1.0001;
  const found = new Float64Array(order);
  let error = correlation[0]!;
  for (let i = 0; i < order; i++) {
    let reflection = correlation[i + 1]!;
    for (let j = 0; j < i; j++) reflection -= found[j]! * correlation[i - j]!;
    reflection /= error;
    const before = found.slice(0, i);
    found[i] = reflection;
    for (let j = 0; j < i; j++) found[j] = before[j]! - reflection * before[i - 1 - j]!;
    error *= 1 - reflection * reflection;
  }
  return found;
}

function median(values: Float64Array): number {
  const sorted = values.slice().sort();
  return sorted[sorted.length >> 1]!;
}
