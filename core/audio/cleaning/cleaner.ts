import { Biquad, highCut, lowCut } from '../biquad';
import { ClickRemover } from './clickRemover';
import { Leveller, Limiter } from './leveller';
import { NoiseReducer } from './noiseReducer';

/** How much of each step, from 0 (not at all) to 1. */
export type Cleaning = {
  clicks: number;
  lowCut: number;
  highCut: number;
  noise: number;
  loudness: number;
};

export const NO_CLEANING: Cleaning = { clicks: 0, lowCut: 0, highCut: 0, noise: 0, loudness: 0 };

export const isCleaning = (cleaning: Cleaning): boolean => Object.values(cleaning).some((strength) => strength > 0);

/** Full strength of the low cut stays below the deepest voices, that of the high cut keeps speech plain. */
const LOW_CUT_HZ = { weak: 50, strong: 140 };
const HIGH_CUT_HZ = { weak: 12_000, strong: 5000 };

const between = ({ weak, strong }: { weak: number; strong: number }, strength: number): number =>
  weak * (strong / weak) ** strength;

/** Where the low cut and the high cut begin, in hertz. */
export const lowCutHz = (strength: number): number => between(LOW_CUT_HZ, strength);
export const highCutHz = (strength: number): number => between(HIGH_CUT_HZ, strength);

type Step = { step: (sample: number) => number; latency?: number };

/** Cleans one channel sample by sample: clicks, low rumble, high hiss, steady noise, loudness; peaks last. */
export class Cleaner {
  /** Samples by which the result comes later. */
  readonly latency: number;
  private readonly steps: Step[];

  /** @param rate samples per second */
  constructor(rate: number, cleaning: Cleaning) {
    const { clicks, noise, loudness } = cleaning;
    const most = rate * 0.45;
    const filters = [
      ...(cleaning.lowCut > 0 ? lowCut(lowCutHz(cleaning.lowCut), rate) : []),
      ...(cleaning.highCut > 0 && highCutHz(cleaning.highCut) < most ? highCut(highCutHz(cleaning.highCut), rate) : []),
    ].map((section) => new Biquad(section));
    this.steps = [
      ...(clicks > 0 ? [new ClickRemover(rate, clicks)] : []),
      ...filters,
      ...(noise > 0 ? [new NoiseReducer(rate, noise)] : []),
      ...(loudness > 0 ? [new Leveller(rate, loudness)] : []),
      ...(loudness > 0 ? [new Limiter(rate)] : []),
    ];
    this.latency = this.steps.reduce((sum, s) => sum + (s.latency ?? 0), 0);
  }

  /** As many samples as were given, `latency` samples later. */
  process(samples: Float32Array, into: Float32Array = new Float32Array(samples.length)): Float32Array {
    for (let i = 0; i < samples.length; i++) {
      let sample = samples[i]!;
      for (const step of this.steps) sample = step.step(sample);
      into[i] = sample;
    }
    return into;
  }
}
