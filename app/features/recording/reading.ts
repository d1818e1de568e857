import { useCallback } from 'react';
import { USUAL_SETTINGS } from '@immeld/core/contract/settings';
import type { WrittenWord } from '@immeld/core/transcript/inverseTextNormalisation';
import type { Word } from '@immeld/core/transcript/manuscript';
import { type ReadingRules, wordsToRead } from '@immeld/core/transcript/reading';
import { useSharedSettings } from '../../api/queries';

const made = new WeakMap<readonly Word[], { key: string; words: WrittenWord[] }>();

function read(words: readonly Word[], rules: ReadingRules, key: string): WrittenWord[] {
  let entry = made.get(words);
  if (entry?.key !== key) made.set(words, (entry = { key, words: wordsToRead(words, rules) }));
  return entry.words;
}

/** The words of a passage as this person reads them; made once for each passage. */
export function useReading(): (words: readonly Word[]) => WrittenWord[] {
  const { figures, hidesFillers } = useSharedSettings().data ?? USUAL_SETTINGS;
  const key = `${hidesFillers} ${figures.join(' ')}`;
  return useCallback((words) => read(words, { figures, hidesFillers }, key), [key]); // eslint-disable-line react-hooks/exhaustive-deps
}

/** Number of the word that was said first in a word as it is read. */
export const spokenIndex = (words: readonly WrittenWord[], index: number): number =>
  words.slice(0, index).reduce((sum, w) => sum + (w.spoken?.length ?? 1), 0);

/** Number of the word as it is read in which a spoken word stands. */
export function readIndex(words: readonly WrittenWord[], spoken: number): number {
  let sum = 0;
  for (const [index, word] of words.entries()) {
    sum += word.spoken?.length ?? 1;
    if (spoken < sum) return index;
  }
  return words.length;
}
