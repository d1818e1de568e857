import * as yup from './yup';

const name = () =>
  yup
    .string()
    .trim()
    .min(1, 'Enter a name for the speaker.')
    .max(60, 'A name may have at most 60 characters.')
    .test('one-line', 'The name must fit on one line.', (value) => !/[\p{C}]/u.test(value ?? ''));

/** Somebody who speaks in a recording. */
export const speakerSchema = yup.object({
  name: yup.string().required(),
  /** Time of the words, without pauses. */
  speakingMs: yup.number().integer().min(0).required(),
  /** Whose voice it is like, among those that were named before; in pencil. */
  proposed: yup.string().defined().nullable(),
});
export type Speaker = yup.InferType<typeof speakerSchema>;

/** Gives passages to somebody: all of one speaker, or single ones. */
export const speakerChangeSchema = yup
  .object({
    from: yup.string().max(120),
    passageIds: yup.array().of(yup.number().integer().required()).min(1).max(20_000),
    to: name().defined().nullable(),
  })
  .noUnknown()
  .test('whose', 'Choose a speaker or the passages to change.', ({ from, passageIds }) => Boolean(from ?? passageIds));
export type SpeakerChange = yup.InferType<typeof speakerChangeSchema>;
