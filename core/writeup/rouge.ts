import { stem, wordsOf } from '../language/words';

export type RougeScore = { precision: number; recall: number; f1: number };

const score = (shared: number, ofCandidate: number, ofReference: number): RougeScore => {
  const precision = ofCandidate ? shared / ofCandidate : 0;
  const recall = ofReference ? shared / ofReference : 0;
  return { precision, recall, f1: precision + recall ? (2 * precision * recall) / (precision + recall) : 0 };
};

const tokens = (text: string, isStemmed: boolean): string[] => (isStemmed ? wordsOf(text).map(stem) : wordsOf(text));

/**
 * ROUGE-N: how many n-grams two texts share, each as often as it stands in both.
 * Source: Lin 2004, "ROUGE: A Package for Automatic Evaluation of Summaries", section 2.
 */
export function rougeN(candidate: string, reference: string, n: number, isStemmed = true): RougeScore {
  const grams = (text: string): Map<string, number> => {
    const words = tokens(text, isStemmed);
    const counts = new Map<string, number>();
    for (let i = 0; i + n <= words.length; i++) {
      const gram = words.slice(i, i + n).join(' ');
      counts.set(gram, (counts.get(gram) ?? 0) + 1);
    }
    return counts;
  };
  const [a, b] = [grams(candidate), grams(reference)];
  let shared = 0;
  for (const [gram, count] of a) shared += Math.min(count, b.get(gram) ?? 0);
  const sum = (counts: Map<string, number>) => [...counts.values()].reduce((x, y) => x + y, 0);
  return score(shared, sum(a), sum(b));
}

/**
 * ROUGE-L over whole texts: the longest common subsequence of words.
 * Source: Lin 2004, section 3.1 (sentence-level LCS).
 */
export function rougeL(candidate: string, reference: string, isStemmed = true): RougeScore {
  const [a, b] = [tokens(candidate, isStemmed), tokens(reference, isStemmed)];
  let row = new Array<number>(b.length + 1).fill(0);
  for (const word of a) {
    const next = [0];
    for (let j = 1; j <= b.length; j++) next[j] = word === b[j - 1] ? row[j - 1]! + 1 : Math.max(row[j]!, next[j - 1]!);
    row = next;
  }
  return score(row[b.length] ?? 0, a.length, b.length);
}
