/**
 * Okapi BM25 as SQLite's FTS5 computes it, apart from the sign: Robertson and Zaragoza 2009, The Probabilistic Relevance
 * Framework: BM25 and Beyond, with k1 = 1.2 and b = 0.75.
 */
export type Bm25Term = {
  /** How often the term stands in the document. */
  count: number;
  /** In how many documents it stands. */
  documents: number;
};

const K1 = 1.2;
const B = 0.75;

/** Weight of a term by how rare it is; never negative, so that a word of every second document does not count against. */
export const inverseFrequency = (documents: number, all: number): number =>
  Math.max(1e-6, Math.log((all - documents + 0.5) / (documents + 0.5)));

/**
 * @param lengthRatio length of the document by the mean length of all
 * @param all number of documents
 */
export function bm25(terms: readonly Bm25Term[], lengthRatio: number, all: number): number {
  const k = K1 * (1 - B + B * lengthRatio);
  return terms.reduce(
    (sum, { count, documents }) => sum + (inverseFrequency(documents, all) * count * (K1 + 1)) / (count + k),
    0,
  );
}
