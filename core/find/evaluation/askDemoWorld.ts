import type { Passage } from '../../transcript/manuscript';
import { type Candidate, answerFrom } from '../answer';
import type { Archive } from '../expansion';
import { candidatesOf } from '../candidates';
import { type KnownPerson, readQuestion } from '../question';
import { stem, isStopword, wordsOf } from '../../language/words';
import type { WordVectors } from '../wordVectors';
import type { ExampleQuestion } from './questions';

/** A recording of the demo world, with the true times of what its script says. */
export type DemoRecording = {
  id: string;
  title: string;
  saidAt: string;
  isMemo: boolean;
  people: string[];
  passages: Passage[];
  /** Times of a phrase of the script in milliseconds; null when it is not in it. */
  timesOf(phrase: string): { startMs: number; endMs: number } | null;
};

type Ref = { id: string; startMs: number; endMs: number };

export const DEMO_PEOPLE: KnownPerson[] = [
  { name: 'Bram Vantongeren', otherNames: ['Bram', 'the arborist'] },
  { name: 'Ottoline Reyes', otherNames: ['Ottoline', 'the engineer', 'the town engineer'] },
  { name: 'Jun Fairweather', otherNames: ['Jun'] },
  { name: 'Idris Malmquist', otherNames: ['Professor Malmquist', 'the professor', 'Malmquist'] },
  { name: 'Petra Sund', otherNames: ['Petra', 'the dentist’s reception'] },
];

/** Asks the demo world as a whole. */
export class DemoWorldAsked {
  private readonly candidates: Candidate<Ref>[];
  private readonly archive: Archive;

  constructor(
    private readonly recordings: readonly DemoRecording[],
    vectors: WordVectors | null,
    private readonly today: string,
  ) {
    this.candidates = recordings.flatMap((r) =>
      candidatesOf(
        r.passages,
        {
          ...{ title: r.title, people: r.people, saidAt: r.saidAt },
          ...{ ownNames: ['Tamsin'], isOwnMemo: r.isMemo, markedMs: [] },
        },
        (place): Ref => ({ id: r.id, ...place }),
      ),
    );
    const documents = new Map<string, number>();
    const passages = recordings.flatMap((r) => r.passages);
    for (const p of passages) {
      const stems = new Set(
        wordsOf(p.words.map((w) => w.text).join(' '))
          .filter((w) => !isStopword(w))
          .map(stem),
      );
      for (const s of stems) documents.set(s, (documents.get(s) ?? 0) + 1);
    }
    this.archive = { documentsWith: (s) => documents.get(s) ?? 0, documents: passages.length, vectors };
  }

  ask(question: string) {
    return answerFrom(readQuestion(question, DEMO_PEOPLE, this.today), this.candidates, this.archive);
  }

  /** Place of the right passage among those that are quoted, from 1; 0 when it is not among them. */
  placeOfRight({ question, from, phrases }: ExampleQuestion): number {
    const recording = this.recordings.find((r) => r.id === from)!;
    const right = phrases.map((p) => recording.timesOf(p)!);
    const { quotes } = this.ask(question);
    const passagesAt = ({ startMs, endMs }: { startMs: number; endMs: number }) =>
      recording.passages.filter((p) => p.startMs < endMs && p.endMs > startMs);
    return (
      quotes.findIndex((q) => {
        const quoted = q.ref.id === from ? passagesAt(q.ref) : [];
        return right.some((t) => passagesAt(t).some((p) => quoted.includes(p)));
      }) + 1
    );
  }

  /** Every sentence that an answer is made of, to be looked up in the archive. */
  sentencesFor(question: string): string[] {
    const { quotes, nearest } = this.ask(question);
    return [...quotes, ...nearest].map((q) => q.text);
  }
}
