import { diffArrays } from 'diff';

/** A run of words that is the same in both texts, only in the earlier, or only in the later one. */
export type Change = { kind: 'same' | 'gone' | 'new'; text: string };

const wordsOf = (texts: readonly string[]): string[] => texts.flatMap((t) => t.split(/\s+/u).filter(Boolean));

/** What became of a text, word by word. Method: Myers 1986, "An O(ND) difference algorithm and its variations". */
export function changesBetween(earlier: readonly string[], later: readonly string[]): Change[] {
  return diffArrays(wordsOf(earlier), wordsOf(later)).map(({ added, removed, value }) => ({
    kind: added ? 'new' : removed ? 'gone' : 'same',
    text: value.join(' '),
  }));
}

/** Words left of a long stretch that did not change, on either side. */
const CONTEXT_WORDS = 12;

/** The same with long stretches that did not change shortened to their ends. */
export const shortened = (changes: readonly Change[]): Change[] =>
  changes.map((change, i) => {
    const words = change.text.split(' ');
    if (change.kind !== 'same' || words.length <= 2 * CONTEXT_WORDS) return change;
    const before = i === 0 ? [] : words.slice(0, CONTEXT_WORDS);
    const after = i === changes.length - 1 ? [] : words.slice(-CONTEXT_WORDS);
    return { kind: 'same', text: [...before, '…', ...after].join(' ') };
  });
