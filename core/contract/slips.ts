import * as yup from 'yup';

/** What can stand in the margin. Seams and gaps are set by the recorder, asides by the recogniser. */
export const SLIP_KINDS = ['mark', 'note', 'heading', 'picture', 'aside', 'consent', 'seam', 'gap'] as const;
export type SlipKind = (typeof SLIP_KINDS)[number];

export const MARK_KINDS = ['key-point', 'question', 'check-later', 'to-do'] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

const slipText = () => yup.string().trim().max(5000, 'A slip may have at most 5,000 characters.');
const moment = () => yup.number().integer().min(0, 'A slip stands at a moment of the recording.');

export const slipSchema = yup.object({
  id: yup.string().uuid().required(),
  kind: yup.string().oneOf(SLIP_KINDS).required(),
  mark: yup.string().oneOf(MARK_KINDS).defined().nullable(),
  startMs: moment().required(),
  /** For what lasts: an aside, a gap. */
  endMs: moment().defined().nullable(),
  text: yup.string().defined(),
  hasPicture: yup.boolean().required(),
});
export type Slip = yup.InferType<typeof slipSchema>;

/** The device that recorded gives its slips their ids, so that sending them twice makes none double. */
export const newSlipSchema = yup
  .object({
    id: yup.string().uuid().required(),
    kind: yup.string().oneOf(SLIP_KINDS).required(),
    mark: yup
      .string()
      .oneOf(MARK_KINDS)
      .nullable()
      .when('kind', ([kind], schema) => (kind === 'mark' ? schema.required('A mark needs its kind.') : schema)),
    startMs: moment().required(),
    endMs: moment().nullable(),
    text: slipText().defined(),
  })
  .noUnknown();
export type NewSlip = yup.InferType<typeof newSlipSchema>;

export const newSlipsSchema = yup
  .object({ slips: yup.array().of(newSlipSchema.required()).max(2000, 'At most 2,000 slips at once.').required() })
  .noUnknown();

export const slipChangeSchema = yup
  .object({
    mark: yup.string().oneOf(MARK_KINDS),
    startMs: moment(),
    text: slipText(),
    isBinned: yup.boolean(),
  })
  .noUnknown();
export type SlipChange = yup.InferType<typeof slipChangeSchema>;
