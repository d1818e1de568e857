import { COEFFICIENTS as D } from './mfcc';

/** What a stretch of sound tells about its voice: enough to say how alike two are, however they are joined. */
export type VoiceStatistics = {
  frames: number;
  /** Sum of the rows, 15 values. */
  sum: Float64Array;
  /** Sum of the products of each two values, lower triangle row by row, 120 values. */
  products: Float64Array;
};

const TRIANGLE = (D * (D + 1)) / 2;
/** The same voice as if no more than so many frames of it had been heard. */
export function shortened(voice: VoiceStatistics, mostFrames: number): VoiceStatistics {
  const share = Math.min(1, mostFrames / voice.frames);
  return {
    frames: voice.frames * share,
    sum: voice.sum.map((v) => v * share),
    products: voice.products.map((v) => v * share),
  };
}

/** Keeps the covariance of a few frames from collapsing. */
const MIN_VARIANCE = 0.05;

export const emptyStatistics = (): VoiceStatistics => ({
  frames: 0,
  sum: new Float64Array(D),
  products: new Float64Array(TRIANGLE),
});

export function addFrame(voice: VoiceStatistics, row: Float64Array): void {
  voice.frames++;
  for (let i = 0, at = 0; i < D; i++) {
    voice.sum[i]! += row[i]!;
    for (let j = 0; j <= i; j++) voice.products[at++]! += row[i]! * row[j]!;
  }
}

export function mergedStatistics(a: VoiceStatistics, b: VoiceStatistics): VoiceStatistics {
  return {
    frames: a.frames + b.frames,
    sum: a.sum.map((v, i) => v + b.sum[i]!),
    products: a.products.map((v, i) => v + b.products[i]!),
  };
}

/** Lower triangle of the Cholesky factor of the covariance. */
function factorOf({ frames, sum, products }: VoiceStatistics): Float64Array {
  const factor = new Float64Array(TRIANGLE);
  for (let i = 0, at = 0; i < D; i++) {
    for (let j = 0; j <= i; j++, at++) {
      let value = products[at]! / frames - (sum[i]! * sum[j]!) / (frames * frames);
      if (i === j) value += MIN_VARIANCE;
      const [rowI, rowJ] = [(i * (i + 1)) / 2, (j * (j + 1)) / 2];
      for (let k = 0; k < j; k++) value -= factor[rowI + k]! * factor[rowJ + k]!;
      factor[at] = i === j ? Math.sqrt(Math.max(value, 1e-9)) : value / factor[rowJ + j]!;
    }
  }
  return factor;
}

function logDeterminant(voice: VoiceStatistics): number {
  const factor = factorOf(voice);
  let sum = 0;
  for (let i = 0; i < D; i++) sum += Math.log(factor[(i * (i + 1)) / 2 + i]!);
  return 2 * sum;
}

/** n/2 times the logarithm of the determinant of the covariance: minus the likelihood of its own Gaussian. */
export const spread = (voice: VoiceStatistics): number => (voice.frames / 2) * logDeterminant(voice);

/**
 * Change of the Bayesian information criterion when two stretches are told apart: above 0 they are two voices.
 * Chen and Gopalakrishnan 1998, "Speaker, environment and channel change detection and clustering via the BIC".
 * @param spreads `spread` of each of the two, where it is known already
 */
export function dissimilarity(
  a: VoiceStatistics,
  b: VoiceStatistics,
  weight: number,
  spreads = [spread(a), spread(b)],
): number {
  const both = mergedStatistics(a, b);
  const penalty = (weight / 2) * (D + TRIANGLE) * Math.log(both.frames);
  return spread(both) - spreads[0]! - spreads[1]! - penalty;
}

/** A judge of single stretches: mean log likelihood of a frame under a voice's Gaussian, from the stretch's own sums. */
export function likelihoodUnder(voice: VoiceStatistics): (stretch: VoiceStatistics) => number {
  const factor = factorOf(voice);
  const mean = voice.sum.map((v) => v / voice.frames);
  let logDet = 0;
  for (let i = 0; i < D; i++) logDet += Math.log(factor[(i * (i + 1)) / 2 + i]!);
  const inverse = inverseOf(factor);
  return ({ frames, sum, products }) => {
    let trace = 0;
    for (let i = 0, at = 0; i < D; i++) {
      for (let j = 0; j <= i; j++, at++) {
        const moment = products[at]! - sum[i]! * mean[j]! - mean[i]! * sum[j]! + frames * mean[i]! * mean[j]!;
        trace += (i === j ? 1 : 2) * inverse[at]! * moment;
      }
    }
    return -logDet - trace / (2 * frames) - (D / 2) * Math.log(2 * Math.PI);
  };
}

/** Lower triangle of the inverse of L Lᵀ. */
function inverseOf(factor: Float64Array): Float64Array {
  const at = (i: number, j: number) => (i * (i + 1)) / 2 + j;
  const lower = new Float64Array(TRIANGLE);
  for (let j = 0; j < D; j++) {
    lower[at(j, j)] = 1 / factor[at(j, j)]!;
    for (let i = j + 1; i < D; i++) {
      let sum = 0;
      for (let k = j; k < i; k++) sum -= factor[at(i, k)]! * lower[at(k, j)]!;
      lower[at(i, j)] = sum / factor[at(i, i)]!;
    }
  }
  const inverse = new Float64Array(TRIANGLE);
  for (let i = 0; i < D; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = 0;
      for (let k = i; k < D; k++) sum += lower[at(k, i)]! * lower[at(k, j)]!;
      inverse[at(i, j)] = sum;
    }
  }
  return inverse;
}

/** A voice as it is kept and compared later: numbers with four digits are enough. */
export type StoredVoice = { frames: number; sum: number[]; products: number[] };

/** Longer ones are weighed as so many frames: a voice of an hour would tell itself from everything. */
const MAX_KEPT_FRAMES = 3000;

export function toStored({ frames, sum, products }: VoiceStatistics): StoredVoice {
  const scale = Math.min(1, MAX_KEPT_FRAMES / frames);
  const short = (value: number) => Number((value * scale).toPrecision(7));
  return { frames: Math.round(frames * scale), sum: Array.from(sum, short), products: Array.from(products, short) };
}

export const fromStored = ({ frames, sum, products }: StoredVoice): VoiceStatistics => ({
  frames,
  sum: Float64Array.from(sum),
  products: Float64Array.from(products),
});
