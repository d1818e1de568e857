import type { Sentence } from './sentences';
import { topicStems } from './words';

export type SummarySentence = Sentence & { index: number; score: number };

const DAMPING = 0.85;
const REDUNDANT = 0.5;

/**
 * The sentences that stand for the whole, in the order they were said, at most `most` of them.
 * Method: LexRank (Erkan and Radev 2004: power iteration over the cosine similarity of TF-IDF vectors), weighted by
 * place and form and by `boost` (marks and own notes weigh more), and picked by maximal marginal relevance (Carbonell and Goldstein 1998) so that nothing comes twice.
 */
export function summarise(
  sentences: readonly Sentence[],
  most: number,
  boost: (index: number) => number = () => 1,
): SummarySentence[] {
  const vectors = tfIdfVectors(sentences.map((s) => topicStems(s.text)));
  const usable = sentences.map((_, i) => i).filter((i) => isTelling(sentences[i]!.text, vectors[i]!));
  if (most < 1 || usable.length === 0) return [];
  const rank = lexRank(usable.map((i) => vectors[i]!));
  const scored = usable
    .map((index, i) => ({
      index,
      score: rank[i]! * weight(sentences[index]!.text, index, sentences.length) * boost(index),
    }))
    .sort((a, b) => b.score - a.score);
  const chosen: typeof scored = [];
  for (const candidate of scored) {
    if (chosen.length >= most) break;
    const repeats = chosen.some((c) => cosine(vectors[c.index]!, vectors[candidate.index]!) > REDUNDANT);
    if (!repeats) chosen.push(candidate);
  }
  return chosen.sort((a, b) => a.index - b.index).map(({ index, score }) => ({ ...sentences[index]!, index, score }));
}

type Vector = Map<string, number>;

/** TF-IDF vectors of unit length. */
export function tfIdfVectors(documents: readonly (readonly string[])[]): Vector[] {
  const documentCount = new Map<string, number>();
  for (const d of documents) for (const t of new Set(d)) documentCount.set(t, (documentCount.get(t) ?? 0) + 1);
  return documents.map((d) => {
    const vector: Vector = new Map();
    for (const t of d) vector.set(t, (vector.get(t) ?? 0) + 1);
    let squares = 0;
    for (const [t, n] of vector) {
      const value = n * Math.log(1 + documents.length / documentCount.get(t)!);
      vector.set(t, value);
      squares += value * value;
    }
    const length = Math.sqrt(squares) || 1;
    for (const [t, v] of vector) vector.set(t, v / length);
    return vector;
  });
}

/** Cosine of two vectors of unit length. */
export function cosine(a: Vector, b: Vector): number {
  const [small, large] = a.size < b.size ? [a, b] : [b, a];
  let dot = 0;
  for (const [t, v] of small) dot += v * (large.get(t) ?? 0);
  return dot;
}

function lexRank(vectors: readonly Vector[]): number[] {
  const n = vectors.length;
  const neighbours = vectors.map((a, i) =>
    vectors.flatMap((b, j) => {
      const similarity = i === j ? 0 : cosine(a, b);
      return similarity > 0.02 ? [[j, similarity] as const] : [];
    }),
  );
  const totals = neighbours.map((row) => row.reduce((s, [, v]) => s + v, 0));
  let rank = new Array<number>(n).fill(1 / n);
  for (let round = 0; round < 40; round++) {
    const next = new Array<number>(n).fill((1 - DAMPING) / n);
    neighbours.forEach((row, i) => {
      for (const [j, v] of row) next[j]! += (DAMPING * rank[i]! * v) / totals[i]!;
    });
    rank = next;
  }
  return rank;
}

/** Asides, greetings and half sentences tell nothing by themselves. */
function isTelling(text: string, vector: Vector): boolean {
  const words = text.split(/\s+/).length;
  return words >= 5 && vector.size >= 3 && !/\?["'”]?$/.test(text);
}

const OPENS_ON_SOMETHING_BEFORE = /^(he|she|they|it|this|that|these|those|but|because|which|and|or)\b/i;
const SAYS_WHAT_MATTERS =
  /\b(decid\w+|agree\w*|important|must|the point|key|remember|means|because|result|conclusion|in short|deadline|problem|we call|is called)\b/i;

function weight(text: string, index: number, count: number): number {
  const words = text.split(/\s+/).length;
  const place = index < Math.max(2, count * 0.1) ? 1.25 : index >= count * 0.92 ? 1.1 : 1;
  const length = words < 8 ? 0.8 : words > 34 ? 0.75 : 1;
  const form = (OPENS_ON_SOMETHING_BEFORE.test(text) ? 0.75 : 1) * (SAYS_WHAT_MATTERS.test(text) ? 1.3 : 1);
  return place * length * form;
}
