import { suggestTitle } from '../language/title';
import type { Sentence } from '../language/sentences';
import { topicStems } from '../language/words';
import { type Answer, type Candidate, answerFrom } from './answer';
import { candidatesFrom } from './candidates';
import { readQuestion } from './question';
import { recordingsFor } from './recordingsFirst';
import type { WordVectors } from './wordVectors';

/** What was said in one file. */
export type Talk = { file: string; sentences: readonly Sentence[] };
export type TalkPlace = { file: string; startMs: number | null };

/** So many recordings are looked into. */
const MAX_RECORDINGS = 4;

/** Talks that can be asked, read once. */
export class AskedTalks {
  private readonly sources: Candidate<TalkPlace>[][];
  private readonly speakers: string[];
  private readonly documents = new Map<string, number>();
  private readonly sentences: number;

  /** @param at local time at which is asked */
  constructor(
    talks: readonly Talk[],
    private readonly at: string,
    private readonly vectors: WordVectors | null,
  ) {
    this.sources = talks.map(({ file, sentences }) => {
      const title = suggestTitle(sentences) ?? file;
      const people = [...new Set(sentences.flatMap((s) => s.speaker ?? []))];
      const told = { title, people, saidAt: at, ownNames: [], isOwnMemo: false, markedMs: [] };
      return candidatesFrom(sentences, told, (_, { startMs }): TalkPlace => ({ file, startMs }));
    });
    this.speakers = [...new Set(talks.flatMap((t) => t.sentences.flatMap((s) => s.speaker ?? [])))];
    const all = this.sources.flat();
    this.sentences = Math.max(1, all.length);
    for (const { text } of all)
      for (const s of new Set(topicStems(text))) this.documents.set(s, (this.documents.get(s) ?? 0) + 1);
  }

  /** Up to three sentences that answer; none where the talks do not say. */
  ask(asked: string): Answer<TalkPlace>['quotes'] {
    const known = this.speakers.map((name) => ({ name, otherNames: [] }));
    const question = readQuestion(asked, known, this.at.slice(0, 10));
    const chosen = recordingsFor(question.terms, this.sources)
      .slice(0, MAX_RECORDINGS)
      .flatMap((i) => this.sources[i]!);
    const archive = {
      documentsWith: (s: string) => this.documents.get(s) ?? 0,
      documents: this.sentences,
      vectors: this.vectors,
    };
    return answerFrom(question, chosen, archive).quotes;
  }
}
