/**
 * The loudness of a sound over time for the strip: a fixed number of values whatever the length, in one pass.
 * While sound comes in, neighbouring bins are joined two by two whenever there are too many.
 */
const MAX_BINS = 2400;
const FIRST_BIN_SAMPLES = 800;

export class PeakMeter {
  private bins: number[] = [];
  private binSamples = FIRST_BIN_SAMPLES;
  private filled = 0;
  private peak = 0;
  private samples = 0;

  /** @param chunk samples in [-1, 1] */
  push(chunk: Float32Array): void {
    this.samples += chunk.length;
    for (let i = 0; i < chunk.length; i++) {
      const level = Math.abs(chunk[i]!);
      if (level > this.peak) this.peak = level;
      if (++this.filled === this.binSamples) this.closeBin();
    }
  }

  get sampleCount(): number {
    return this.samples;
  }

  /** Peak values from 0 (silence) to 100 (full scale), at most 2,400 of them. */
  peaks(): number[] {
    const open = this.filled ? [this.peak] : [];
    return [...this.bins, ...open].map((v) => Math.min(100, Math.round(v * 100)));
  }

  private closeBin(): void {
    this.bins.push(this.peak);
    this.peak = 0;
    this.filled = 0;
    if (this.bins.length < MAX_BINS) return;
    this.bins = Array.from({ length: MAX_BINS / 2 }, (_, i) => Math.max(this.bins[2 * i]!, this.bins[2 * i + 1]!));
    this.binSamples *= 2;
  }
}

/** Draws peaks into `count` bars, each the mean of its share, so that speech and pauses show in an hour too. */
export function barsOf(peaks: readonly number[], count: number): number[] {
  if (peaks.length === 0) return new Array<number>(count).fill(0);
  return Array.from({ length: count }, (_, i) => {
    const from = Math.floor((i * peaks.length) / count);
    const to = Math.max(from + 1, Math.floor(((i + 1) * peaks.length) / count));
    const share = peaks.slice(from, to);
    return Math.round(share.reduce((a, b) => a + b, 0) / share.length);
  });
}
