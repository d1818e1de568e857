import * as yup from './yup';
import { markId } from './markKinds';

/** What can stand in the margin. Seams and gaps are set by the recorder, asides by the recogniser. */
export const SLIP_KINDS = [
  ...(['mark', 'note', 'heading', 'picture', 'aside', 'consent', 'seam', 'gap'] as const),
  ...(['link', 'file', 'slide'] as const),
] as const;
export type SlipKind = (typeof SLIP_KINDS)[number];

/** Id of a kind of mark: one that ships, or one that the person has added. */
export type MarkKind = string;

const slipText = () => yup.string().trim().max(5000, 'A slip may have at most 5,000 characters.');
const moment = () => yup.number().integer().min(0, 'The slip needs a time in the recording.');
const assignee = () => yup.string().trim().max(60, 'A name may have at most 60 characters.');

const ADDRESS = /^(?:https?:\/\/[^\s/]\S*|mailto:[^\s@]+@\S+)$/i;

const linkAddress = () =>
  yup
    .string()
    .trim()
    .max(2000, 'The web address may have at most 2,000 characters.')
    .matches(ADDRESS, 'The web address must begin with https:// or mailto:.');

export const commentSchema = yup.object({
  id: yup.string().uuid().required(),
  text: yup
    .string()
    .trim()
    .required('Write a comment first.')
    .max(2000, 'The comment may have at most 2,000 characters.'),
  /** An instant in ISO 8601. */
  writtenAt: yup.string().required(),
});
export type SlipComment = yup.InferType<typeof commentSchema>;

const slipFileSchema = yup.object({
  name: yup.string().required(),
  mediaType: yup.string().required(),
  sizeBytes: yup.number().integer().required(),
});
export type SlipFile = yup.InferType<typeof slipFileSchema>;

/** A slide stands where somebody began to speak about it. */
const slideSchema = yup.object({
  /** The file it was made of; null for one that was shown while recording. */
  deckId: yup.string().uuid().defined().nullable(),
  /** Its page, from 1. */
  page: yup.number().integer().min(1).required(),
  /** Its place was found by its words, and nobody has said yet that it is right. */
  isProposed: yup.boolean().required(),
});
export type SlideFacts = yup.InferType<typeof slideSchema>;

export const slipSchema = yup.object({
  id: yup.string().uuid().required(),
  kind: yup.string().oneOf(SLIP_KINDS).required(),
  mark: markId().defined().nullable(),
  startMs: moment().required(),
  /** For what lasts: an aside, a gap, words that were marked. */
  endMs: moment().defined().nullable(),
  /** It belongs to the whole recording, whatever its time says. */
  isWhole: yup.boolean(),
  text: yup.string().defined(),
  hasPicture: yup.boolean().required(),
  /** The words that were read in a picture; null where there are none, or they are not read yet. */
  words: yup.string().defined().nullable().default(null),
  /** Where a link leads. */
  address: yup.string().defined().nullable(),
  file: slipFileSchema.defined().nullable().default(null),
  slide: slideSchema.defined().nullable().default(null),
  /** Whom it is for. */
  assignee: yup.string().defined().nullable(),
  /** Oldest first. */
  comments: yup.array().of(commentSchema.required()).required(),
});
export type Slip = yup.InferType<typeof slipSchema>;

/** The device that recorded gives its slips their ids, so that sending them twice makes none double. */
export const newSlipSchema = yup
  .object({
    id: yup.string().uuid().required(),
    kind: yup.string().oneOf(SLIP_KINDS).required(),
    mark: markId()
      .nullable()
      .when('kind', ([kind], schema) => (kind === 'mark' ? schema.required('The mark needs a kind.') : schema)),
    startMs: moment().required(),
    endMs: moment().nullable(),
    isWhole: yup.boolean(),
    text: slipText().defined(),
    address: linkAddress()
      .nullable()
      .when('kind', ([kind], schema) => (kind === 'link' ? schema.required('The link needs a web address.') : schema)),
    assignee: assignee().nullable(),
    /** Of a slide that was shown while recording: its page, and the words on it. */
    page: yup.number().integer().min(1).max(10_000),
    words: yup.string().max(10_000, 'A slide may have at most 10,000 characters.'),
  })
  .noUnknown();
export type NewSlip = yup.InferType<typeof newSlipSchema>;

export const newSlipsSchema = yup
  .object({
    slips: yup.array().of(newSlipSchema.required()).max(2000, 'You can add up to 2,000 slips at once.').required(),
  })
  .noUnknown();

export const slipChangeSchema = yup
  .object({
    mark: markId(),
    startMs: moment(),
    text: slipText(),
    address: linkAddress(),
    assignee: assignee().nullable(),
    isBinned: yup.boolean(),
    /** The words in a picture, as the person reads them. */
    words: slipText(),
    /** Says that a slide stands where it belongs. */
    isProposed: yup.boolean().oneOf([false]),
  })
  .noUnknown();
export type SlipChange = yup.InferType<typeof slipChangeSchema>;

export const newCommentSchema = commentSchema.omit(['writtenAt']).noUnknown();
