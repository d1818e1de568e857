import * as yup from './yup';
import { markId } from './markKinds';

/** What can stand in the margin. Seams and gaps are set by the recorder, asides by the recogniser. */
export const SLIP_KINDS = [
  ...(['mark', 'note', 'heading', 'picture', 'aside', 'consent', 'seam', 'gap'] as const),
  ...(['link', 'file'] as const),
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
  /** Where a link leads. */
  address: yup.string().defined().nullable(),
  file: slipFileSchema.defined().nullable().default(null),
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
  })
  .noUnknown();
export type SlipChange = yup.InferType<typeof slipChangeSchema>;

export const newCommentSchema = commentSchema.omit(['writtenAt']).noUnknown();
