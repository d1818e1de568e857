import { spokenDate } from '../language/spokenDates';
import { isStopword, stem, wordsOf } from '../language/words';
import { isOwnPromise, kindFit } from './answerKinds';
import { type Archive, type Expanded, expand } from './expansion';
import { quantitiesIn } from './quantities';
import type { Question } from './question';
import { dot } from './wordVectors';

/** A sentence that may answer, with where it stands. `R` is what the caller needs to find it again. */
export type Candidate<R> = {
  text: string;
  /** The sentences before and after it in the same recording, empty at its ends. */
  before: string;
  after: string;
  /** The sentences one further away on both sides. */
  around: readonly string[];
  title: string;
  /** Name of who speaks, "me" for the person who asks, null when nobody is named. */
  speaker: string | null;
  /** People of the recording. */
  people: readonly string[];
  /** When it was said: local date and time. */
  saidAt: string;
  isMarked: boolean;
  ref: R;
};

export type Quote<R> = Candidate<R> & {
  score: number;
  /** Share of the question that it meets, by weight of the words. */
  coverage: number;
  /** The time or the number that was asked for, as it stands in the sentence. */
  lifted: string | null;
};

export type Answer<R> = {
  /** Sentences of the archive, best first; empty when nothing answers. */
  quotes: Quote<R>[];
  /** What comes nearest, when nothing answers. */
  nearest: Quote<R>[];
};

/*
 * Chosen on the half of the questions that is there to work with (`evaluation/questions.ts`).
 */
const MAX_QUOTES = 3;
/** A sentence answers when it meets this share of the question. */
const ENOUGH = 0.5;
const MIN_SUM = 1.02;
/** The same for kinds of questions in which nothing more can be looked for than the words. */
const MIN_SUM_OF_WORDS = 0.88;
/** Where the time, number or reason that was asked for is missing, nearly all of the question has to be met. */
const NEARLY_ALL = 0.85;
/** Sentences less good than this share of the best one are left out. */
const CLOSE_TO_BEST = 0.5;
const NEIGHBOUR = 0.75;
const TITLE = 0.5;
/** Words beyond which a sentence says more than the answer. */
const LONG = 24;
const WEIGHTS = { overlap: 0.62, meaning: 0.2, kind: 0.24, speaker: 0.12, marked: 0.05, asks: -0.18 };

class StemSets {
  private readonly known = new Map<string, { words: string[]; stems: Set<string>; count: number }>();

  of(text: string): { words: string[]; stems: Set<string>; count: number } {
    let entry = this.known.get(text);
    if (!entry) {
      const all = wordsOf(text);
      const words = all.filter((w) => !isStopword(w));
      entry = { words, stems: new Set(words.map(stem)), count: all.length };
      this.known.set(text, entry);
    }
    return entry;
  }
}

function met(term: Expanded, stems: ReadonlySet<string>): number {
  let best = 0;
  for (const [stem, weight] of term.metBy) if (weight > best && stems.has(stem)) best = weight;
  return best;
}

/**
 * Sentences of the archive that answer a question; none is made up. A sentence counts by the words of the question that
 * it or its neighbours meet, each by its rarity, by the meaning of the whole (word vectors), and by whether it has in it
 * what is asked for: a time, a number, somebody who acts. Where too little of the question is met, nothing is answered.
 */
export function answerFrom<R>(question: Question, candidates: readonly Candidate<R>[], archive: Archive): Answer<R> {
  const terms = expand(question.terms, archive);
  const total = terms.reduce((sum, t) => sum + t.idf, 0);
  const meaning = archive.vectors?.sentence(question.terms.map((t) => t.word)) ?? null;
  const texts = new StemSets();
  const quotes = candidates.map((c): Quote<R> => {
    const own = texts.of(c.text);
    // Who was asked has answered: what the question says, the answer means too.
    const near = [
      { stems: texts.of(c.before).stems, weight: /\?["'”’]?$/.test(c.before) ? 1 : 0.8 },
      { stems: texts.of(c.after).stems, weight: 0.8 },
      ...c.around.map((text) => ({ stems: texts.of(text).stems, weight: 0.75 })),
    ];
    const title = texts.of(c.title);
    let overlap = 0;
    let coverage = 0;
    for (const term of terms) {
      const here = met(term, own.stems);
      const beside = Math.max(...near.map((n) => met(term, n.stems) * n.weight));
      const above = met(term, title.stems);
      overlap += term.idf * Math.max(here, beside * NEIGHBOUR, above * TITLE);
      coverage += term.idf * Math.max(here, beside, above * 0.8);
    }
    const share = total > 0 ? 1 / total : 0;
    const vector = meaning && archive.vectors!.sentence(own.words);
    const isAskedSpeaker = question.speaker !== null && c.speaker === question.speaker;
    const score =
      WEIGHTS.overlap * overlap * share * Math.min(1, (LONG / own.count) ** 0.4) +
      WEIGHTS.meaning * Math.max(0, vector ? dot(meaning, vector) : 0) +
      WEIGHTS.kind * kindFit(question, c) +
      WEIGHTS.speaker *
        (isAskedSpeaker || question.people.includes(c.speaker ?? '')
          ? 1
          : question.people.some((p) => isWith(c, p))
            ? 0.6
            : 0) +
      (c.isMarked ? WEIGHTS.marked : 0) +
      (/\?["'”’]?$/.test(c.text) ? WEIGHTS.asks : 0);
    return { ...c, score, coverage: total > 0 ? coverage * share : 1, lifted: null };
  });
  quotes.sort((a, b) => b.score - a.score);
  const answering = quotes.filter((q) => isEnough(question, q) && isBySomebodyAsked(question, q));
  const best = answering[0]?.score ?? 0;
  const chosen = answering.filter((q) => q.score >= best * CLOSE_TO_BEST).slice(0, MAX_QUOTES);
  return {
    quotes: chosen.map((q) => ({ ...q, lifted: liftedFrom(question, q) })),
    nearest: chosen.length ? [] : quotes.filter((q) => q.coverage > 0.2).slice(0, MAX_QUOTES),
  };
}

function isEnough(question: Question, q: Quote<unknown>): boolean {
  const least = question.kind === 'what' ? MIN_SUM_OF_WORDS : MIN_SUM;
  if (q.coverage < ENOUGH || q.coverage + q.score < least) return false;
  return !['when', 'count', 'why'].includes(question.kind) || kindFit(question, q) > 0 || q.coverage >= NEARLY_ALL;
}

const mentions = (text: string, name: string): boolean =>
  name.split(/\s+/).some((part) => part.length > 2 && text.toLowerCase().includes(part.toLowerCase()));

const isWith = (c: Candidate<unknown>, person: string): boolean =>
  c.people.includes(person) || mentions(c.text, person);

/** Asked what somebody said, only what they said answers, where it is known who speaks; asked for promises, only those. */
function isBySomebodyAsked({ speaker, kind, people }: Question, c: Candidate<unknown>): boolean {
  if (kind === 'promise') {
    const isToAsked = people.length === 0 || people.some((p) => isWith(c, p) || mentions(`${c.before} ${c.after}`, p));
    return isOwnPromise(c.text, c.speaker) && isToAsked;
  }
  if (speaker === null || speaker === 'me')
    return people.length === 0 || people.some((p) => isWith(c, p) || mentions(`${c.before} ${c.after}`, p));
  return c.speaker === null ? isWith(c, speaker) : c.speaker === speaker;
}

/** A sentence that takes something back, asks, or says how it is not, gives no short answer; it is shown whole. */
const SAYS_NOT =
  /\b(?:not|never|no longer|cannot|cancel(?:led|ed)?|called off|instead of|unless|\p{L}+n't)\b|\?["'”’]?$/iu;
/** "One metre and a half" is not one metre. */
const AND_A_PART = /^,? and (?:a|one|three) (?:half|quarters?|third)\b/iu;

/** The time or number that was asked for, where the sentence supports it whole: it names one, and does not take it back. */
function liftedFrom({ kind }: Question, { text, saidAt }: Candidate<unknown>): string | null {
  if ((kind !== 'when' && kind !== 'count') || SAYS_NOT.test(text.replace(/’/g, "'"))) return null;
  if (kind === 'when') {
    const date = spokenDate(text, saidAt);
    if (!date || spokenDate(text.slice(date.end), saidAt)) return null;
    return text.slice(date.start, date.end).trim();
  }
  const [quantity] = quantitiesIn(text);
  if (!quantity) return null;
  const rest = text.slice(text.indexOf(quantity) + quantity.length);
  return `${quantity}${AND_A_PART.exec(rest)?.[0] ?? ''}`;
}
