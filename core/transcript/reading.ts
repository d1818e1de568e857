import type { FigureKind } from '../contract/figureKinds';
import { type WrittenWord, writtenWords } from './figures';
import { withoutFillers } from './fillers';
import type { Passage, Word } from './manuscript';

/** How a person wants to read what was said. */
export type ReadingRules = { figures: readonly FigureKind[]; hidesFillers: boolean };

/** The words as they are read: what was said stays in them (`spokenWords`). */
export function wordsToRead(words: readonly Word[], { figures, hidesFillers }: ReadingRules): WrittenWord[] {
  return writtenWords(hidesFillers ? withoutFillers(words) : words, new Set(figures));
}

export const passagesToRead = <P extends Passage>(passages: readonly P[], rules: ReadingRules): P[] =>
  passages.map((p) => ({ ...p, words: wordsToRead(p.words, rules) }));
