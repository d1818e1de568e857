import type { NumeralKind } from '../contract/numeralKinds';
import { type WrittenWord, normaliseWords } from './inverseTextNormalisation';
import { withoutFillers } from './fillers';
import type { Passage, Word } from './manuscript';

/** How a person wants to read what was said. */
export type ReadingRules = { figures: readonly NumeralKind[]; hidesFillers: boolean };

/** The words as they are read: what was said stays in them (`spokenWords`). */
export function wordsToRead(words: readonly Word[], { figures, hidesFillers }: ReadingRules): WrittenWord[] {
  return normaliseWords(hidesFillers ? withoutFillers(words) : words, new Set(figures));
}

export const passagesToRead = <P extends Passage>(passages: readonly P[], rules: ReadingRules): P[] =>
  passages.map((p) => ({ ...p, words: wordsToRead(p.words, rules) }));
