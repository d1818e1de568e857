import * as yup from './yup';
import { passageSchema, wordSchema } from './recordings';

const milliseconds = () => yup.number().integer().min(0).required();
const MAX_TEXT = 200_000;
const MAX_WORDS = 50_000;

/** The revision that the person saw; another one means that it was changed elsewhere in the meantime. */
const seenSchema = yup.object({
  id: yup.number().integer().required(),
  revision: yup.number().integer().min(0).required(),
});

/** A passage without its place in the database. */
const writtenSchema = yup.object({
  startMs: milliseconds(),
  endMs: milliseconds(),
  speaker: yup.string().max(120).defined().nullable(),
  startsParagraph: yup.boolean().required(),
  words: yup
    .array()
    .of(wordSchema.required())
    .required()
    .max(MAX_WORDS, 'A passage may have at most 50,000 words.')
    .test('in-order', 'The words must be in the order of their times.', (words) =>
      words.every((w, i) => w.startMs <= w.endMs && (i === 0 || words[i - 1]!.startMs <= w.startMs)),
    ),
});

/** Passages that follow each other, and what stands in their place from now on. */
export const rewritingSchema = yup
  .object({
    replaced: yup.array().of(seenSchema.required()).min(1).max(500).required(),
    passages: yup.array().of(writtenSchema.required()).min(1).max(500).required(),
  })
  .noUnknown();
export type Rewriting = yup.InferType<typeof rewritingSchema>;

export const correctionSchema = seenSchema
  .omit(['id'])
  .shape({
    text: yup.string().defined().max(MAX_TEXT, 'A passage may have at most 200,000 characters.'),
  })
  .noUnknown();
export type Correction = yup.InferType<typeof correctionSchema>;

/** The passages that are different now, in their order, and those that are gone. */
export const correctedSchema = yup.object({
  passages: yup.array().of(passageSchema.required()).required(),
  removed: yup.array().of(yup.number().integer().required()).required(),
});
export type Corrected = yup.InferType<typeof correctedSchema>;

/**
 * recognised: as the recogniser wrote it first · again: a later recognition · corrected: with a person's corrections ·
 * spoken: a dictation with its commands written out · device: what the device heard while it recorded.
 */
export const VERSION_KINDS = ['recognised', 'again', 'corrected', 'spoken', 'device'] as const;
export const versionSchema = yup.object({
  id: yup.string().uuid().required(),
  kind: yup.string().oneOf(VERSION_KINDS).required(),
  /** An instant in ISO 8601. */
  keptAt: yup.string().required(),
  words: yup.number().integer().required(),
});
export type Version = yup.InferType<typeof versionSchema>;

export const versionTextSchema = versionSchema.shape({
  passages: yup.array().of(writtenSchema.required()).required(),
});
export type VersionText = yup.InferType<typeof versionTextSchema>;
