/** Coefficients of a second-order section, divided by a0. */
export type Section = { b0: number; b1: number; b2: number; a1: number; a2: number };

/** A filter of the second order, one sample after the other (direct form II, transposed). */
export class Biquad {
  private first = 0;
  private second = 0;

  constructor(private readonly section: Section) {}

  step(sample: number): number {
    const { b0, b1, b2, a1, a2 } = this.section;
    const out = b0 * sample + this.first;
    this.first = b1 * sample - a1 * out + this.second;
    this.second = b2 * sample - a2 * out;
    return out;
  }
}

/** Quality of each section of a Butterworth filter of the fourth order: falls by 24 dB an octave. */
const FOURTH_ORDER = [0.541196, 1.306563];

/** The bilinear design of R. Bristow-Johnson's "Cookbook formulae for audio EQ biquad filter coefficients". */
function cut(kind: 'low' | 'high', hertz: number, rate: number): Section[] {
  const omega = (2 * Math.PI * hertz) / rate;
  const cosine = Math.cos(omega);
  return FOURTH_ORDER.map((quality) => {
    const alpha = Math.sin(omega) / (2 * quality);
    const a0 = 1 + alpha;
    const edge = (kind === 'low' ? 1 + cosine : 1 - cosine) / (2 * a0);
    return {
      ...{ b0: edge, b1: (kind === 'low' ? -2 : 2) * edge, b2: edge },
      ...{ a1: (-2 * cosine) / a0, a2: (1 - alpha) / a0 },
    };
  });
}

/** Takes away what lies below a frequency in hertz. */
export const lowCut = (hertz: number, rate: number): Section[] => cut('low', hertz, rate);

/** Takes away what lies above a frequency in hertz. */
export const highCut = (hertz: number, rate: number): Section[] => cut('high', hertz, rate);
