import { argMax } from './decoder';
import type { Tokenizer } from './tokenizer';

/** Of so many words somebody would have written with a mark. */
const MIN_WORDS = 6;
/** Where a mark is so likely at least, it may stand. */
const MIN_LIKELY_MARK = 0.05;
/** A word that the sound leaves open may turn out otherwise; more would be another text. */
const MAX_CHANGED = 1;

const MARKS = ['.', ',', '?'];
const HAS_MARK = /[.,?!;:]/;

/**
 * Whether a piece was written without any marks. The recogniser falls into that when a piece begins or ends in the middle
 * of a sentence, and then writes all of it so, also small letters after sentences.
 */
export const isUnmarked = (words: readonly string[]): boolean =>
  words.length >= MIN_WORDS && !words.some((word) => HAS_MARK.test(word));

/** Where a mark could go: after so many tokens, which mark, and how likely it is there (0 to 1). */
export type MarkPlace = { at: number; mark: number; probability: number };

/**
 * Where the recogniser would rather have written a mark: at the first place at which one is likely enough, else where
 * it is likeliest. With it in the text, the recogniser goes on in the style that has marks.
 * @param logits one row of `perToken` for the start and for each of the tokens
 */
export function placesForMark(
  tokens: readonly number[],
  logits: Float32Array,
  perToken: number,
  tokenizer: Tokenizer,
): MarkPlace[] {
  const marks = MARKS.flatMap((mark) => tokenizer.idOf(mark) ?? []);
  const places: MarkPlace[] = [];
  for (let at = 1; at <= tokens.length; at++) {
    if (at < tokens.length && !tokenizer.beginsWord(tokens[at]!)) continue;
    const row = logits.subarray(at * perToken, (at + 1) * perToken);
    const [top, topLog] = argMax(row, tokenizer.size);
    for (const mark of marks) {
      const probability = Math.exp(topLog + row[mark]! - row[top]!);
      if (probability >= MIN_LIKELY_MARK) places.push({ at, mark, probability });
    }
  }
  const [first] = places;
  const best = places.reduce((a, b) => (b.probability > a.probability ? b : a), places[0]!);
  return first ? (first === best ? [first] : [first, best]) : [];
}

/** Whether two texts have the same words, marks and capitals aside, but for one that may differ or be missing. */
export function isSameText(before: readonly string[], after: readonly string[]): boolean {
  const [a, b] = [plain(before), plain(after)];
  if (Math.abs(a.length - b.length) > MAX_CHANGED) return false;
  let from = 0;
  while (from < Math.min(a.length, b.length) && a[from] === b[from]) from++;
  let same = 0;
  while (same < Math.min(a.length, b.length) - from && a.at(-1 - same) === b.at(-1 - same)) same++;
  return Math.max(a.length, b.length) - from - same <= MAX_CHANGED;
}

const plain = (words: readonly string[]): string[] =>
  words.map((word) => word.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '')).filter(Boolean);
