/**
 * Word error rate: substitutions, deletions and insertions of the cheapest alignment, divided by the number of
 * reference words. Source: Levenshtein 1966 for the distance; Jurafsky and Martin, Speech and Language Processing,
 * 3rd edition draft, section "ASR Evaluation: Word Error Rate" for the measure.
 */
export type WordAlignment = { reference: number | null; hypothesis: number | null };

export type WordErrors = {
  substitutions: number;
  deletions: number;
  insertions: number;
  referenceWords: number;
  /** Errors per reference word; may be above 1. Zero for two empty texts. */
  rate: number;
  /** Pairs of positions; null where a word has no partner. */
  pairs: WordAlignment[];
};

/** Written abbreviations of what is spoken in full. Common practice in scoring, no source. */
const SPOKEN: Record<string, string> = { mr: 'mister', mrs: 'missus', dr: 'doctor', st: 'saint' };

/** Lower-cased words without punctuation, as compared for the word error rate. */
export function comparableWords(text: string): string[] {
  return text
    .toLowerCase()
    .replace(/[’`]/g, "'")
    .replace(/[^\p{L}\p{N}' ]+/gu, ' ')
    .split(/\s+/)
    .map((w) => w.replace(/^'+|(?<!')'+$/g, ''))
    .filter(Boolean)
    .map((w) => SPOKEN[w] ?? w);
}

/** Compares two sequences of words, each already in comparable form. */
export function wordErrors(reference: readonly string[], hypothesis: readonly string[]): WordErrors {
  const rows = reference.length + 1;
  const columns = hypothesis.length + 1;
  const cost = new Uint32Array(rows * columns);
  for (let i = 0; i < rows; i++) cost[i * columns] = i;
  for (let j = 0; j < columns; j++) cost[j] = j;
  for (let i = 1; i < rows; i++) {
    for (let j = 1; j < columns; j++) {
      const same = reference[i - 1] === hypothesis[j - 1] ? 0 : 1;
      cost[i * columns + j] = Math.min(
        cost[(i - 1) * columns + j - 1]! + same,
        cost[(i - 1) * columns + j]! + 1,
        cost[i * columns + j - 1]! + 1,
      );
    }
  }
  const pairs: WordAlignment[] = [];
  let substitutions = 0;
  let deletions = 0;
  let insertions = 0;
  for (let i = rows - 1, j = columns - 1; i > 0 || j > 0;) {
    const here = cost[i * columns + j]!;
    const same = i > 0 && j > 0 && reference[i - 1] === hypothesis[j - 1] ? 0 : 1;
    if (i > 0 && j > 0 && cost[(i - 1) * columns + j - 1]! + same === here) {
      substitutions += same;
      pairs.push({ reference: --i, hypothesis: --j });
    } else if (i > 0 && cost[(i - 1) * columns + j]! + 1 === here) {
      deletions++;
      pairs.push({ reference: --i, hypothesis: null });
    } else {
      insertions++;
      pairs.push({ reference: null, hypothesis: --j });
    }
  }
  const errors = substitutions + deletions + insertions;
  const referenceWords = reference.length;
  return {
    substitutions,
    deletions,
    insertions,
    referenceWords,
    rate: referenceWords ? errors / referenceWords : errors ? Infinity : 0,
    pairs: pairs.reverse(),
  };
}
