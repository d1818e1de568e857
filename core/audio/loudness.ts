import { Biquad, type Section } from './biquad';

const BLOCK_SECONDS = 0.4;
/** Blocks overlap by three quarters. */
const STEPS = 4;
const OFFSET = -0.691;
const ABSOLUTE_GATE = -70;
const RELATIVE_GATE = -10;

/**
 * The two filters of K-weighting (ITU-R BS.1770-4, annex 1) at any rate: the analogue filters whose digital form at
 * 48 kHz the standard prints (parameters by B. De Man, "Evaluation of implementations of the EBU R128 loudness
 * measurement", 2014).
 */
export function kWeighting(rate: number): [shelf: Section, highPass: Section] {
  const shelf = Math.tan((Math.PI * 1681.974450955533) / rate);
  const quality = 0.7071752369554196;
  const high = 10 ** (3.999843853973347 / 20);
  const band = high ** 0.4996667741545416;
  const a0 = 1 + shelf / quality + shelf ** 2;
  const pass = Math.tan((Math.PI * 38.13547087602444) / rate);
  const passQuality = 0.5003270373238773;
  const p0 = 1 + pass / passQuality + pass ** 2;
  return [
    {
      b0: (high + (band * shelf) / quality + shelf ** 2) / a0,
      b1: (2 * (shelf ** 2 - high)) / a0,
      b2: (high - (band * shelf) / quality + shelf ** 2) / a0,
      a1: (2 * (shelf ** 2 - 1)) / a0,
      a2: (1 - shelf / quality + shelf ** 2) / a0,
    },
    {
      ...{ b0: 1, b1: -2, b2: 1 },
      ...{ a1: (2 * (pass ** 2 - 1)) / p0, a2: (1 - pass / passQuality + pass ** 2) / p0 },
    },
  ];
}

export const loudnessOf = (power: number): number => OFFSET + 10 * Math.log10(power);

/** Integrated loudness of left and right or a single channel, in LUFS, by ITU-R BS.1770-4. */
export class LoudnessMeter {
  private readonly filters: Biquad[][];
  private readonly step: number;
  private sum = 0;
  private counted = 0;
  private readonly quarters: number[] = [];

  constructor(rate: number, channels = 1) {
    this.filters = Array.from({ length: channels }, () => kWeighting(rate).map((s) => new Biquad(s)));
    this.step = Math.round((rate * BLOCK_SECONDS) / STEPS);
  }

  /** Samples from -1 to 1, one array for each channel, all of the same length. */
  push(channels: readonly Float32Array[]): void {
    const length = channels[0]?.length ?? 0;
    for (let i = 0; i < length; i++) {
      for (const [c, [shelf, highPass]] of this.filters.entries()) {
        const weighted = highPass!.step(shelf!.step(channels[c]![i]!));
        this.sum += weighted * weighted;
      }
      if (++this.counted < this.step) continue;
      this.quarters.push(this.sum / this.step);
      this.sum = 0;
      this.counted = 0;
    }
  }

  /** Over all that was pushed; -Infinity where nothing is louder than the absolute gate of -70 LUFS. */
  integrated(): number {
    const blocks: number[] = [];
    for (let i = STEPS; i <= this.quarters.length; i++) {
      blocks.push(this.quarters.slice(i - STEPS, i).reduce((a, b) => a + b, 0) / STEPS);
    }
    const mean = (gate: number) => {
      const loud = blocks.filter((power) => loudnessOf(power) > gate);
      return loud.length ? loudnessOf(loud.reduce((a, b) => a + b, 0) / loud.length) : -Infinity;
    };
    const ungated = mean(ABSOLUTE_GATE);
    return ungated === -Infinity ? ungated : mean(Math.max(ABSOLUTE_GATE, ungated + RELATIVE_GATE));
  }
}
