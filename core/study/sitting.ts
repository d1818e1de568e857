import { passageText, type Passage, type Word } from '../transcript/manuscript';

/** What is gone through in a sitting. */
export const STUDY_CHOICES = ['all', 'marked', 'check', 'doubtful', 'questions'] as const;
export type StudyChoice = (typeof STUDY_CHOICES)[number];

/** A stretch of a talk that is gone through at one go. Times in milliseconds. */
export type Stretch = { startMs: number; endMs: number; text: string };

type Mark = { mark: string | null; startMs: number; endMs: number | null };

/** A mark at a moment stands for the words around it. */
const AROUND_MS = { before: 8000, after: 4000 };
/** The mark with which a listener says that something has to be looked up. */
export const CHECK_MARK = 'check-later';

const isDoubtful = (word: Word, below: number): boolean => !word.isTyped && word.confidence < below;

/**
 * The passages that are gone through, in the order of the talk; none comes twice.
 * @param doubtfulBelow words less sure than this are doubtful, 0 to 1
 * @param part only what begins in it, `to` not included
 */
export function stretchesToStudy(
  talk: { passages: readonly Passage[]; slips: readonly Mark[] },
  choice: StudyChoice,
  { doubtfulBelow, part = null }: { doubtfulBelow: number; part?: { fromMs: number; toMs: number } | null },
): Stretch[] {
  if (choice === 'questions') return [];
  const marks = talk.slips
    .filter((s) => s.mark !== null && (choice !== 'check' || s.mark === CHECK_MARK))
    .map((s) =>
      s.endMs !== null && s.endMs > s.startMs
        ? { from: s.startMs, to: s.endMs }
        : { from: s.startMs - AROUND_MS.before, to: s.startMs + AROUND_MS.after },
    );
  const isChosen = (p: Passage): boolean => {
    if (choice === 'all') return true;
    if (choice === 'doubtful') return p.words.some((w) => isDoubtful(w, doubtfulBelow));
    return marks.some((m) => m.from < p.endMs && m.to > p.startMs);
  };
  return talk.passages
    .filter((p) => p.words.length > 0 && isChosen(p) && (!part || (p.startMs >= part.fromMs && p.startMs < part.toMs)))
    .map((p) => ({ startMs: p.startMs, endMs: p.endMs, text: passageText(p) }));
}

/** One step of a sitting: something to read and hear, or something to recall. */
export type Step<Q> = { kind: 'stretch'; stretch: Stretch } | { kind: 'question'; question: Q };

/** The steps of a sitting: each question after the passage that it comes from, the others at the end. */
export function stepsOf<Q extends { startMs: number }>(
  stretches: readonly Stretch[],
  questions: readonly Q[],
): Step<Q>[] {
  const waiting = [...questions].sort((a, b) => a.startMs - b.startMs);
  const steps: Step<Q>[] = [];
  for (const stretch of stretches) {
    steps.push({ kind: 'stretch', stretch });
    for (const question of waiting.filter((q) => q.startMs >= stretch.startMs && q.startMs < stretch.endMs)) {
      steps.push({ kind: 'question', question });
      waiting.splice(waiting.indexOf(question), 1);
    }
  }
  return [...steps, ...waiting.map((question) => ({ kind: 'question' as const, question }))];
}
