import type { Passage } from '../transcript/manuscript';
import { sentencesOf } from '../language/sentences';
import { summarise } from '../language/summary';

/** A sentence of a write-up with the moment it rests on. */
export type CitedSentence = { text: string; startMs: number | null; passage: number | null };

export const SHORT_SUMMARY_SENTENCES = 3;

/** The template "In short": at most so many sentences as are asked for, each one really said, in order. */
export function shortSummary(passages: readonly Passage[], most = SHORT_SUMMARY_SENTENCES): CitedSentence[] {
  const sentences = sentencesOf(passages);
  return summarise(sentences, Math.min(most, Math.max(1, Math.floor(sentences.length / 2)))).map(
    ({ text, startMs, passage }) => ({ text: text.replace(/^\p{Ll}/u, (c) => c.toUpperCase()), startMs, passage }),
  );
}
