/** Scale of the bytes in the shipped file: 127 stands for this. */
const FULL_SCALE = 0.6;
/** Weight of frequent words (Arora, Liang and Ma 2017, A Simple but Tough-to-Beat Baseline for Sentence Embeddings). */
const SIF_A = 1e-3;

/**
 * Vectors of the most frequent English words, and of sentences made of them. Words come in order of frequency; their
 * probability follows from the rank by Zipf's law.
 */
export class WordVectors {
  private readonly rows = new Map<string, number>();
  private readonly vectors: Float32Array;
  private readonly common: Float32Array;

  /**
   * @param words most frequent first
   * @param bytes one signed byte for each of `dimensions` parts of each word's vector, row by row
   */
  constructor(
    words: readonly string[],
    bytes: Int8Array,
    private readonly dimensions = 100,
  ) {
    if (bytes.length !== words.length * dimensions) throw new RangeError('There is not one vector for each word.');
    words.forEach((word, row) => this.rows.set(word, row));
    this.vectors = new Float32Array(bytes.length);
    for (let row = 0; row < words.length; row++) {
      let squares = 0;
      for (let k = row * dimensions; k < (row + 1) * dimensions; k++) {
        this.vectors[k] = (bytes[k]! / 127) * FULL_SCALE;
        squares += this.vectors[k]! ** 2;
      }
      const length = Math.sqrt(squares) || 1;
      for (let k = row * dimensions; k < (row + 1) * dimensions; k++) this.vectors[k]! /= length;
    }
    // What all sentences share, taken away from each: the mean over the language instead of the first component.
    this.common = new Float32Array(dimensions);
    for (let row = 0; row < words.length; row++) {
      const share = this.probability(row) * this.weight(row);
      for (let k = 0; k < dimensions; k++) this.common[k]! += share * this.vectors[row * dimensions + k]!;
    }
    normalise(this.common);
  }

  private probability(row: number): number {
    return 1 / ((row + 2) * Math.log(this.rows.size + 2));
  }

  private weight(row: number): number {
    return SIF_A / (SIF_A + this.probability(row));
  }

  /** The words nearest to one, most alike first, down to a cosine of `least`; empty for a word that is not known. */
  alike(word: string, least: number, most: number): [string, number][] {
    const row = this.rows.get(word);
    if (row === undefined) return [];
    const d = this.dimensions;
    const own = this.vectors.subarray(row * d, (row + 1) * d);
    const near: [string, number][] = [];
    for (const [other, at] of this.rows) {
      let sum = 0;
      for (let k = 0; k < d; k++) sum += own[k]! * this.vectors[at * d + k]!;
      if (sum >= least && at !== row) near.push([other, sum]);
    }
    return near.sort((a, b) => b[1] - a[1]).slice(0, most);
  }

  /** Unit vector of what lower-case words say together; null when none is known. */
  sentence(words: readonly string[]): Float32Array | null {
    const sum = new Float32Array(this.dimensions);
    let known = 0;
    for (const word of words) {
      const row = this.rows.get(word);
      if (row === undefined) continue;
      known++;
      const weight = this.weight(row);
      for (let k = 0; k < this.dimensions; k++) sum[k]! += weight * this.vectors[row * this.dimensions + k]!;
    }
    if (known === 0) return null;
    const along = dot(sum, this.common);
    for (let k = 0; k < this.dimensions; k++) sum[k]! -= along * this.common[k]!;
    return normalise(sum);
  }
}

/** Dot product of two vectors of one length; for unit vectors their cosine. */
export function dot(a: Float32Array, b: Float32Array): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += a[k]! * b[k]!;
  return sum;
}

function normalise(vector: Float32Array): Float32Array {
  const length = Math.sqrt(dot(vector, vector)) || 1;
  for (let k = 0; k < vector.length; k++) vector[k]! /= length;
  return vector;
}
