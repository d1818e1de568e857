/**
 * Changes the sample rate of a stream of sound by band-limited interpolation with a Hann-windowed sinc.
 * Method: Smith and Gossett 1984, "A flexible sampling-rate conversion method", ICASSP.
 */
const ZERO_CROSSINGS = 16;
const STEPS_PER_CROSSING = 256;

/** One half of the kernel, finely sampled, so that no sine is computed while sound runs. */
const KERNEL = Float32Array.from({ length: ZERO_CROSSINGS * STEPS_PER_CROSSING + 2 }, (_, i) => {
  const x = i / STEPS_PER_CROSSING;
  if (x >= ZERO_CROSSINGS) return 0;
  const sinc = x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
  return sinc * (0.5 + 0.5 * Math.cos((Math.PI * x) / ZERO_CROSSINGS));
});

export class Resampler {
  private readonly ratio: number;
  /** Kernel steps per input sample; below 1 input sample per crossing when the rate goes down. */
  private readonly scale: number;
  private readonly reach: number;
  private held: Float32Array;
  /** Position of the next output sample in `held`, in input samples. */
  private position: number;

  constructor(
    private readonly fromHz: number,
    private readonly toHz: number,
  ) {
    this.ratio = fromHz / toHz;
    this.scale = Math.min(1, toHz / fromHz);
    this.reach = Math.ceil(ZERO_CROSSINGS / this.scale);
    this.held = new Float32Array(this.reach);
    this.position = this.reach;
  }

  /** @returns the samples that are complete; the last few input samples wait for what comes after them */
  push(samples: Float32Array): Float32Array {
    if (this.fromHz === this.toHz) return samples.slice();
    const sound = new Float32Array(this.held.length + samples.length);
    sound.set(this.held);
    sound.set(samples, this.held.length);
    const count = Math.max(0, Math.ceil((sound.length - this.reach - this.position) / this.ratio));
    const output = new Float32Array(count);
    for (let i = 0; i < count; i++) {
      const centre = this.position + i * this.ratio;
      const first = Math.ceil(centre - this.reach);
      const last = Math.min(sound.length - 1, Math.floor(centre + this.reach));
      let sum = 0;
      for (let k = Math.max(0, first); k <= last; k++) {
        const at = Math.abs(centre - k) * this.scale * STEPS_PER_CROSSING;
        const step = Math.floor(at);
        if (step >= KERNEL.length - 1) continue;
        sum += sound[k]! * (KERNEL[step]! + (at - step) * (KERNEL[step + 1]! - KERNEL[step]!));
      }
      output[i] = sum * this.scale;
    }
    this.position += count * this.ratio;
    const keepFrom = Math.max(0, Math.floor(this.position) - this.reach);
    this.held = sound.slice(keepFrom);
    this.position -= keepFrom;
    return output;
  }
}
