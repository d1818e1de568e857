import { bm25 } from './bm25';

/*
 * Croft, Metzler and Strohman 2010, Search Engines: Information Retrieval in Practice, section 7.2.2, table 7.2: the query
 * "president lincoln", 500,000 documents, "president" in 40,000 and "lincoln" in 300 of them, documents of 0.9 times
 * the mean length, k1 = 1.2, b = 0.75. Values from memory of the book; its rounding inside the sum allows 0.1.
 */
describe('BM25 of the handbook’s example', () => {
  it.each([
    [15, 25, 20.66],
    [15, 1, 12.74],
    [15, 0, 5.0],
    [1, 25, 18.2],
    [0, 25, 15.66],
  ])('president %i times, lincoln %i times', (president, lincoln, score) => {
    const terms = [
      { count: president, documents: 40_000 },
      { count: lincoln, documents: 300 },
    ];
    expect(Math.abs(bm25(terms, 0.9, 500_000) - score)).toBeLessThan(0.1);
  });
});

it('does not count a word of nearly every document against a document', () => {
  expect(bm25([{ count: 3, documents: 99 }], 1, 100)).toBeGreaterThan(0);
});
