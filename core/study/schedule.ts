import { type Card, Rating, TypeConvert, createEmptyCard, fsrs } from 'ts-fsrs';

/** How well a question was answered, worst first. */
export const RECALL_RATINGS = ['unknown', 'hard', 'known', 'easy'] as const;
export type RecallRating = (typeof RECALL_RATINGS)[number];

/** What is remembered of a question between its reviews; instants in ISO 8601. */
export type RecallState = Omit<Card, 'due' | 'last_review'> & { due: string; last_review?: string | undefined };

const GRADES = { unknown: Rating.Again, hard: Rating.Hard, known: Rating.Good, easy: Rating.Easy } as const;

// Without chance: the same answers give the same days, here and on any other device.
const scheduler = fsrs({ enable_fuzz: false });

const asState = (card: Card): RecallState => JSON.parse(JSON.stringify(card)) as RecallState;

/** Of a question that was never asked; it is due at once. */
export const newRecall = (now: Date): RecallState => asState(createEmptyCard(now));

/**
 * What is remembered after a review.
 * Method: FSRS-6 with the parameters of its package, ts-fsrs: a question comes back when it would be known with a probability
 * of nine in ten.
 */
export const afterReview = (state: RecallState, rating: RecallRating, now: Date): RecallState =>
  asState(scheduler.next(TypeConvert.card(state), now, GRADES[rating]).card);
