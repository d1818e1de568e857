/**
 * A linear classifier over named sparse features: multinomial logistic regression. Names are hashed to rows (Weinberger
 * et al. 2009, Feature Hashing for Large Scale Multitask Learning), so no list of names has to be stored.
 */

export type Example = { features: readonly string[]; label: number; weight?: number };

/** `weights` holds `classes` numbers for each of 2 to the power of `bits` rows; `scale` makes numbers of stored bytes. */
export type Linear = { classes: number; bits: number; scale: number; weights: Float32Array | Int8Array };

/** A row of pseudo-random numbers from 0 to 1 that is the same for the same seed (SplitMix, Steele et al. 2014). */
export function seeded(seed: number): () => number {
  let s = seed >>> 0;
  return () => {
    s = (s + 0x6d2b79f5) >>> 0;
    let t = s;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** FNV-1a over UTF-16 units, with a last mix so that the low bits depend on all. */
function hash(name: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < name.length; i++) h = Math.imul(h ^ name.charCodeAt(i), 0x01000193);
  h ^= h >>> 15;
  return Math.imul(h, 0x2c1b3c6d) >>> 0;
}

function rowsOf(bits: number, features: readonly string[]): Int32Array {
  const rows = new Set<number>();
  for (const name of features) rows.add(hash(name) >>> (32 - bits));
  return Int32Array.from(rows);
}

function probabilitiesOf({ weights, classes, scale }: Linear, rows: Int32Array): Float64Array {
  const p = new Float64Array(classes);
  const share = scale / Math.sqrt(rows.length || 1);
  for (const row of rows) for (let c = 0; c < classes; c++) p[c]! += weights[row * classes + c]! * share;
  const max = Math.max(...p);
  let sum = 0;
  for (let c = 0; c < classes; c++) sum += p[c] = Math.exp(p[c]! - max);
  for (let c = 0; c < classes; c++) p[c]! /= sum;
  return p;
}

/** Probability of each class, adding up to 1. */
export const probabilities = (model: Linear, features: readonly string[]): Float64Array =>
  probabilitiesOf(model, rowsOf(model.bits, features));

/** How much speaks for something, by the single class of a ranker: more is better, comparable only beside each other. */
export function scoreOf({ weights, bits, scale }: Linear, features: readonly string[]): number {
  const rows = rowsOf(bits, features);
  let sum = 0;
  for (const row of rows) sum += weights[row]!;
  return (sum * scale) / Math.sqrt(rows.length || 1);
}

export type Training = { bits?: number; epochs?: number; rate?: number; l2?: number; minCount?: number; seed?: number };

/**
 * Learns by stochastic gradient descent with AdaGrad (Duchi, Hazan and Singer 2011) and L2 on the weights that are
 * touched. Names met fewer than `minCount` times are left out. The same examples, settings and seed give the same
 * weights.
 */
export function trainLinear(
  examples: readonly Example[],
  classes: number,
  { bits = 17, epochs = 25, rate = 0.08, l2 = 1e-3, minCount = 3, seed = 1 }: Training = {},
): Linear {
  const counts = new Map<string, number>();
  for (const e of examples) for (const f of new Set(e.features)) counts.set(f, (counts.get(f) ?? 0) + 1);
  const weights = new Float32Array(classes << bits);
  const squares = new Float32Array(weights.length).fill(1e-6);
  const model: Linear = { classes, bits, scale: 1, weights };
  const data = examples.map((e) => ({
    rows: rowsOf(
      bits,
      e.features.filter((f) => counts.get(f)! >= minCount),
    ),
    label: e.label,
    weight: e.weight ?? 1,
  }));
  const random = seeded(seed);
  const order = data.map((_, i) => i);
  for (let epoch = 0; epoch < epochs; epoch++) {
    for (let i = order.length - 1; i > 0; i--) {
      const j = Math.floor(random() * (i + 1));
      [order[i], order[j]] = [order[j]!, order[i]!];
    }
    for (const i of order) {
      const { rows, label, weight } = data[i]!;
      const p = probabilitiesOf(model, rows);
      const share = 1 / Math.sqrt(rows.length || 1);
      for (let c = 0; c < classes; c++) {
        const error = (p[c]! - (c === label ? 1 : 0)) * weight;
        if (Math.abs(error) < 1e-4) continue;
        for (const row of rows) {
          const at = row * classes + c;
          const gradient = error * share + l2 * weights[at]!;
          squares[at]! += gradient * gradient;
          weights[at]! -= (rate * gradient) / Math.sqrt(squares[at]!);
        }
      }
    }
  }
  return model;
}

/** Things of which one is to be chosen: `worth` is how good each is, 0 to 1, `expected` what is thought of it beforehand. */
export type Choice = {
  features: readonly (readonly string[])[];
  worth: readonly number[];
  expected: readonly number[];
  weight?: number;
};

/** How sharply a better one is preferred; measured. */
const SHARPNESS = 12;
/** What speaks for a thing of which that much is expected, beside what a ranker says of it. */
export const scoreExpected = (expected: number): number => SHARPNESS * expected;

/**
 * Learns to choose: the likelihoods of the things beside each other are made like their worths (ListNet, Cao et al.
 * 2007), by the same descent as above. It learns only by how much what was expected is wrong.
 * @returns a ranker of one class, for `scoreOf` beside `scoreExpected`
 */
export function trainRanker(
  choices: readonly Choice[],
  { bits = 14, epochs = 6, rate = 0.1, l2 = 1e-2, minCount = 3, seed = 1 }: Training = {},
): Linear {
  const counts = new Map<string, number>();
  for (const { features } of choices)
    for (const names of features) for (const f of new Set(names)) counts.set(f, (counts.get(f) ?? 0) + 1);
  const weights = new Float32Array(1 << bits);
  const squares = new Float32Array(weights.length).fill(1e-6);
  const likelihoods = (scores: readonly number[]): number[] => {
    const max = Math.max(...scores);
    const all = scores.map((x) => Math.exp(x - max));
    const sum = all.reduce((a, b) => a + b, 0);
    return all.map((x) => x / sum);
  };
  const data = choices
    .filter((c) => c.features.length > 1)
    .map(({ features, worth, expected, weight = 1 }) => ({
      rows: features.map((names) =>
        rowsOf(
          bits,
          names.filter((f) => counts.get(f)! >= minCount),
        ),
      ),
      wanted: likelihoods(worth.map((x) => x * SHARPNESS)),
      before: expected.map(scoreExpected),
      weight,
    }));
  const random = seeded(seed);
  for (let step = 0; step < epochs * data.length; step++) {
    const { rows, wanted, before, weight } = data[Math.floor(random() * data.length)]!;
    const found = likelihoods(
      rows.map((r, i) => {
        let sum = 0;
        for (const row of r) sum += weights[row]!;
        return before[i]! + sum / Math.sqrt(r.length || 1);
      }),
    );
    const gradients = new Map<number, number>();
    rows.forEach((r, i) => {
      const share = ((found[i]! - wanted[i]!) * weight) / Math.sqrt(r.length || 1);
      for (const row of r) gradients.set(row, (gradients.get(row) ?? 0) + share);
    });
    for (const [row, share] of gradients) {
      const gradient = share + l2 * weights[row]!;
      squares[row]! += gradient * gradient;
      weights[row]! -= (rate * gradient) / Math.sqrt(squares[row]!);
    }
  }
  return { classes: 1, bits, scale: 1, weights };
}

/** The same classifier with one byte for each weight. */
export function quantised({ classes, bits, weights, scale }: Linear): Linear {
  let max = 1e-9;
  for (const w of weights) max = Math.max(max, Math.abs(w));
  return {
    ...{ classes, bits, scale: (scale * max) / 127 },
    weights: Int8Array.from(weights, (w) => Math.round((w / max) * 127)),
  };
}
