import type { Passage, Word } from './manuscript';
import { wordErrors } from './wordErrorRate';

/** Typed between two words, a word takes at most so much of the pause. */
const MAX_TYPED_MS = 400;
/** Beyond this many pairs of old and new words, no single one is looked for again: the text is another one. */
const MAX_PAIRS = 2_000_000;

const tokensOf = (text: string): string[] => text.split(/\s+/u).filter(Boolean);
const keyOf = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '') || text;

/**
 * The words of a passage after its text was changed by hand: what stayed keeps its times, what took the place of
 * other words takes their time, what was typed in between takes of the pause. Nothing else moves.
 *
 * @param words in order of time
 * @param bounds of the passage in milliseconds, for words typed before the first or after the last one
 * @returns the new words, in order, their times inside the passage
 */
export function retimeWords<W extends Word>(
  words: readonly W[],
  text: string,
  bounds: { startMs: number; endMs: number },
): (W | Word)[] {
  const tokens = tokensOf(text);
  const partners = partnersOf(
    words.map((w) => keyOf(w.text)),
    tokens.map(keyOf),
  );
  const result: (W | Word)[] = [];
  let old = 0;
  for (let at = 0; at < tokens.length;) {
    const partner = partners[at]!;
    if (partner !== null) {
      result.push(kept(words[partner]!, tokens[at]!));
      old = partner + 1;
      at++;
      continue;
    }
    let end = at;
    while (end < tokens.length && partners[end] === null) end++;
    const oldEnd = end < tokens.length ? partners[end]! : words.length;
    result.push(...typed(tokens.slice(at, end), words, old, oldEnd, bounds));
    old = oldEnd;
    at = end;
  }
  return result;
}

/** For each new word the old one that it still is, or null. */
function partnersOf(before: readonly string[], after: readonly string[]): (number | null)[] {
  const shorter = Math.min(before.length, after.length);
  let head = 0;
  while (head < shorter && before[head] === after[head]) head++;
  let tail = 0;
  while (tail < shorter - head && before[before.length - 1 - tail] === after[after.length - 1 - tail]) tail++;
  const partners: (number | null)[] = after.map((_, i) => {
    if (i < head) return i;
    const fromEnd = after.length - i;
    return fromEnd <= tail ? before.length - fromEnd : null;
  });
  const [a, b] = [before.slice(head, before.length - tail), after.slice(head, after.length - tail)];
  if (a.length * b.length > MAX_PAIRS) return partners;
  for (const { reference, hypothesis } of wordErrors(a, b).pairs) {
    if (reference !== null && hypothesis !== null && a[reference] === b[hypothesis]) {
      partners[head + hypothesis] = head + reference;
    }
  }
  return partners;
}

/** A word that a person has left or touched up is as sure as a person is. */
const kept = <W extends Word>(word: W, text: string): W | Word => (word.text === text ? word : sure(word, text));
const sure = ({ startMs, endMs }: { startMs: number; endMs: number }, text: string): Word => ({
  ...{ startMs, endMs, text },
  ...{ confidence: 1, isTyped: true },
});

function typed(
  tokens: readonly string[],
  words: readonly Word[],
  from: number,
  to: number,
  bounds: { startMs: number; endMs: number },
): Word[] {
  if (to - from === tokens.length) return tokens.map((text, i) => sure(words[from + i]!, text));
  const replaced = words.slice(from, to);
  const before = words[from - 1]?.endMs ?? Math.min(bounds.startMs, words[from]?.startMs ?? bounds.startMs);
  const after = words[to]?.startMs ?? Math.max(before, bounds.endMs);
  const startMs = replaced[0]?.startMs ?? before;
  const endMs = replaced.at(-1)?.endMs ?? Math.max(before, Math.min(after, before + MAX_TYPED_MS * tokens.length));
  const lengths = tokens.map((t) => [...t].length);
  const total = lengths.reduce((a, b) => a + b, 0);
  let sum = 0;
  const place = (letters: number) => Math.round(startMs + ((endMs - startMs) * letters) / total);
  return tokens.map((text, i) => {
    const first = place(sum);
    sum += lengths[i]!;
    return sure({ startMs: first, endMs: place(sum) }, text);
  });
}

/**
 * Two passages of one, the second beginning a paragraph with the word `at`.
 * Throws a RangeError where nothing would be left on one side.
 */
export function splitPassage<P extends Passage>(passage: P, at: number): [P, P] {
  if (!Number.isInteger(at) || at <= 0 || at >= passage.words.length) {
    throw new RangeError('A passage is split between two of its words.');
  }
  const [first, second] = [passage.words.slice(0, at), passage.words.slice(at)];
  return [
    { ...passage, endMs: first.at(-1)!.endMs, words: first },
    { ...passage, startMs: second[0]!.startMs, startsParagraph: true, words: second },
  ];
}

/** One passage of two that follow each other; speaker and paragraph are those of the first. */
export const joinPassages = <P extends Passage>(first: P, second: Passage): P => ({
  ...first,
  endMs: Math.max(first.endMs, second.endMs),
  words: [...first.words, ...second.words],
});
