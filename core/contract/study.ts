import { RECALL_RATINGS } from '../study/schedule';
import * as yup from './yup';

const moment = () => yup.number().integer().min(0, 'The question needs a time in the recording.').required();
const words = (name: string) =>
  yup.string().trim().required(`Write the ${name} first.`).max(1000, `The ${name} may have at most 1,000 characters.`);

/** A question to recall something of a recording by. */
export const recallCardSchema = yup.object({
  id: yup.string().uuid().required(),
  question: yup.string().required(),
  answer: yup.string().required(),
  startMs: moment(),
  endMs: moment(),
  /** Written by the person, not made of a sentence that was said. */
  isOwn: yup.boolean().required(),
  /** An instant in ISO 8601. */
  dueAt: yup.string().required(),
  reviews: yup.number().integer().required(),
});
export type RecallCard = yup.InferType<typeof recallCardSchema>;

/** A question that is proposed; it is kept once it was answered or accepted. */
export const recallProposalSchema = yup.object({
  question: yup.string().required(),
  answer: yup.string().required(),
  startMs: moment(),
  endMs: moment(),
});
export type RecallProposal = yup.InferType<typeof recallProposalSchema>;

/** The device gives the id, so that sending it twice makes none double. A dropped one is not proposed again. */
export const newRecallCardSchema = yup
  .object({
    id: yup.string().uuid().required(),
    question: words('question'),
    answer: words('answer'),
    startMs: moment(),
    endMs: moment(),
    isOwn: yup.boolean().required(),
    isDropped: yup.boolean(),
  })
  .noUnknown();
export type NewRecallCard = yup.InferType<typeof newRecallCardSchema>;

export const recallChangeSchema = yup
  .object({
    question: words('question').optional(),
    answer: words('answer').optional(),
    isBinned: yup.boolean(),
  })
  .noUnknown();

export const recallReviewSchema = yup.object({ rating: yup.string().oneOf(RECALL_RATINGS).required() }).noUnknown();

/** A recording whose questions are due. */
export const dueRecallSchema = yup.object({
  recordingId: yup.string().uuid().required(),
  title: yup.string().required(),
  count: yup.number().integer().required(),
});
