import { type Aside, type AsidePhrases, findAsides } from '../language/asides';
import type { Passage } from './manuscript';
import { DEFAULT_PASSAGE_RULES, passagesFrom, speakersOf } from './passages';

/** Takes the spoken asides out of a manuscript: they stand in its margin, each at its second. */
export function withoutAsides(
  passages: Passage[],
  phrases: AsidePhrases | null,
): { passages: Passage[]; asides: Aside[] } {
  const words = passages.flatMap((p) => p.words);
  const asides = phrases ? findAsides(words, phrases) : [];
  if (asides.length === 0) return { passages, asides };
  const isOwn = (_: unknown, i: number) => !asides.some((a) => i >= a.from && i < a.to);
  const speakers = speakersOf(passages).filter(isOwn);
  return { passages: passagesFrom(words.filter(isOwn), DEFAULT_PASSAGE_RULES, speakers), asides };
}
