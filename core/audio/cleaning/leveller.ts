import { Biquad } from '../biquad';
import { kWeighting, loudnessOf } from '../loudness';

/** Where voices are brought to (EBU R 128). */
export const TARGET_LUFS = -23;
const MEASURED_SECONDS = 0.4;
/** What is quieter than this is no voice and is not made louder. */
const QUIETEST_LUFS = -55;
/** Nor is what lies so far below the voice just heard. */
const BELOW_VOICE_LU = 14;
const FOLLOWING_SECONDS = 1.2;
const MAX_UP_DB = 24;
const MAX_DOWN_DB = 15;
const MOVING_SECONDS = 0.3;

/** Brings quiet and loud voices to one loudness, slowly enough that a voice keeps its life. */
export class Leveller {
  private readonly filters: Biquad[];
  private readonly short: number;
  private readonly following: number;
  private readonly moving: number;
  private power = 0;
  private voice: number | null = null;
  private gainDb = 0;
  private gain = 1;
  private count = 0;

  /** @param strength share of the difference that is made up, from 0 to 1 */
  constructor(
    rate: number,
    public strength: number,
  ) {
    this.filters = kWeighting(rate).map((s) => new Biquad(s));
    this.short = Math.exp(-1 / (rate * MEASURED_SECONDS));
    // Loudness is looked at every 64 samples.
    this.following = Math.exp(-64 / (rate * FOLLOWING_SECONDS));
    this.moving = Math.exp(-64 / (rate * MOVING_SECONDS));
  }

  step(sample: number): number {
    const weighted = this.filters[1]!.step(this.filters[0]!.step(sample));
    this.power = this.short * this.power + (1 - this.short) * weighted * weighted;
    if (++this.count === 64) {
      this.count = 0;
      this.follow();
    }
    return sample * this.gain;
  }

  private follow(): void {
    const now = loudnessOf(this.power + 1e-12);
    if (now > QUIETEST_LUFS) {
      if (this.voice === null) this.voice = now;
      else if (now > this.voice - BELOW_VOICE_LU) {
        this.voice = this.following * this.voice + (1 - this.following) * now;
      } else {
        // Somebody who stays quiet is followed as well, four times as slowly.
        this.voice += ((now - this.voice) * (1 - this.following)) / 4;
      }
    }
    const wanted =
      this.voice === null ? 0 : Math.max(-MAX_DOWN_DB, Math.min(MAX_UP_DB, TARGET_LUFS - this.voice)) * this.strength;
    this.gainDb = this.moving * this.gainDb + (1 - this.moving) * wanted;
    this.gain = 10 ** (this.gainDb / 20);
  }
}

const LOOK_AHEAD_SECONDS = 0.005;
const CEILING = 10 ** (-1 / 20);

/** Keeps every sample under -1 dB of full scale, by a gain that goes down before a peak arrives. */
export class Limiter {
  /** Samples by which the result comes later. */
  readonly latency: number;
  private readonly delay: Float64Array;
  private readonly gains: Float64Array;
  /** Places in `gains` with ever greater gains: the first is the least of the window. */
  private readonly least: number[] = [];
  private readonly mean: Float64Array;
  private sum: number;
  private at = 0;

  constructor(rate: number) {
    this.latency = Math.max(1, Math.round(rate * LOOK_AHEAD_SECONDS));
    this.delay = new Float64Array(this.latency);
    this.gains = new Float64Array(this.latency + 1).fill(1);
    this.mean = new Float64Array(this.latency).fill(1);
    this.sum = this.latency;
  }

  step(sample: number): number {
    const { latency, at } = this;
    const wanted = Math.min(1, CEILING / Math.max(1e-9, Math.abs(sample)));
    const slot = at % (latency + 1);
    this.gains[slot] = wanted;
    while (this.least.length && this.gains[this.least.at(-1)! % (latency + 1)]! >= wanted) this.least.pop();
    this.least.push(at);
    if (this.least[0]! < at - latency) this.least.shift();
    const held = this.gains[this.least[0]! % (latency + 1)]!;
    const place = at % latency;
    this.sum += held - this.mean[place]!;
    this.mean[place] = held;
    const out = this.delay[place]! * Math.min(1, this.sum / latency);
    this.delay[place] = sample;
    this.at++;
    return Math.max(-1, Math.min(1, out));
  }
}
