import type { RecallRating } from '@immeld/core/study/schedule';
import type { Step } from '@immeld/core/study/sitting';
import type { SittingQuestion } from '../../api/study';

/** A sitting under way: its steps, which one is looked at, and how its questions were answered. */
export type Sitting = {
  steps: readonly Step<SittingQuestion>[];
  at: number;
  isAnswerShown: boolean;
  ratings: readonly { id: string; rating: RecallRating }[];
};

export const beginSitting = (steps: readonly Step<SittingQuestion>[]): Sitting => ({
  ...{ steps, at: 0, isAnswerShown: false, ratings: [] },
});

export const isOver = ({ steps, at }: Sitting): boolean => at >= steps.length;

export const move = (sitting: Sitting, by: 1 | -1): Sitting => ({
  ...sitting,
  at: Math.min(sitting.steps.length, Math.max(0, sitting.at + by)),
  isAnswerShown: false,
});

export const showAnswer = (sitting: Sitting): Sitting => ({ ...sitting, isAnswerShown: true });

/** Goes on after an answer; a question that was not known comes once more at the end. */
export function rate(sitting: Sitting, rating: RecallRating): Sitting {
  const step = sitting.steps[sitting.at];
  if (step?.kind !== 'question') return sitting;
  const { id } = step.question;
  const isFirst = !sitting.ratings.some((r) => r.id === id);
  const steps = rating === 'unknown' && isFirst ? [...sitting.steps, again(step.question)] : sitting.steps;
  return move({ ...sitting, steps, ratings: [...sitting.ratings, { id, rating }] }, 1);
}

/** It was kept when it was answered. */
const again = (question: SittingQuestion): Step<SittingQuestion> => ({
  kind: 'question',
  question: { ...question, isProposed: false },
});

/** What was gone through: passages, questions, and how many of these were known at the last try. */
export function summaryOf({ steps, at, ratings }: Sitting): { passages: number; questions: number; known: number } {
  const last = new Map(ratings.map(({ id, rating }) => [id, rating]));
  return {
    passages: steps.slice(0, at).filter((s) => s.kind === 'stretch').length,
    questions: last.size,
    known: [...last.values()].filter((r) => r !== 'unknown').length,
  };
}
