import { type Sentence, sentencesOf } from '../language/sentences';
import type { Passage } from '../transcript/manuscript';
import type { Candidate } from './answer';

export type Place = { startMs: number; endMs: number };
export type Told = Pick<Candidate<unknown>, 'title' | 'people' | 'saidAt'> & {
  /** The names under which the person who asks speaks in it: their own, or that of the only voice. */
  ownNames: readonly string[];
  /** Whether what nobody is named for was said by the person who asks: their own memo. */
  isOwnMemo: boolean;
  /** Moments that the person has marked, in milliseconds. */
  markedMs: readonly number[];
};

/** The sentences of a manuscript as they may answer, each with its neighbours. */
export const candidatesOf = <R>(passages: readonly Passage[], told: Told, ref: (place: Place) => R): Candidate<R>[] =>
  candidatesFrom(sentencesOf(passages), told, ref);

/** The same of sentences that are known already. `ref` is also told which sentence it is. */
export function candidatesFrom<R>(
  sentences: readonly Sentence[],
  told: Told,
  ref: (place: Place, sentence: Sentence) => R,
): Candidate<R>[] {
  return sentences.map((s, i) => {
    const place = { startMs: s.startMs ?? 0, endMs: s.endMs ?? 0 };
    const isOwn = s.speaker === null ? told.isOwnMemo : told.ownNames.includes(s.speaker);
    return {
      text: s.text,
      before: sentences[i - 1]?.text ?? '',
      after: sentences[i + 1]?.text ?? '',
      around: [-3, -2, 2, 3].flatMap((k) => sentences[i + k]?.text ?? []),
      speaker: isOwn ? 'me' : s.speaker,
      isMarked: told.markedMs.some((at) => at >= place.startMs && at <= place.endMs),
      ...{ title: told.title, people: told.people, saidAt: told.saidAt },
      ref: ref(place, s),
    };
  });
}
