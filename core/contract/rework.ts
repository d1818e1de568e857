import * as yup from './yup';
import { endpoint, none } from './endpoint';

/** Ways to work a text over. All but the first are rules about words and forms; they do not think a text anew. */
export const WAYS = ['proofread', 'shorter', 'plainer', 'formal', 'friendly'] as const;
export type Way = (typeof WAYS)[number];

export const editSchema = yup.object({
  /** Offsets in UTF-16 units within the block. */
  from: yup.number().integer().min(0).required(),
  to: yup.number().integer().min(0).required(),
  insert: yup.string().defined(),
});
export type Edit = yup.InferType<typeof editSchema>;

/** A proposal for one stretch of a block: taken whole or left. */
export const pieceSchema = yup.object({
  block: yup.number().integer().min(0).required(),
  before: yup.string().defined(),
  after: yup.string().defined(),
  reasons: yup.array().of(yup.string().required()).required(),
  edits: yup.array().of(editSchema.required()).required(),
});
export type Piece = yup.InferType<typeof pieceSchema>;

export const REWORK_ENDPOINTS = {
  rework: endpoint({
    isLarge: true,
    method: 'post',
    path: '/rework',
    summary: 'Suggestions to proofread a text, or to make it shorter, plainer, more formal or friendlier',
    params: none,
    query: none,
    body: yup
      .object({
        way: yup.string().oneOf(WAYS).required(),
        blocks: yup
          .array()
          .of(yup.string().max(20_000, 'A paragraph may have at most 20,000 characters.').defined())
          .max(2000, 'You can revise up to 2,000 paragraphs at once.')
          .required(),
      })
      .noUnknown(),
    response: yup.object({ pieces: yup.array().of(pieceSchema.required()).required() }),
  }),
};
