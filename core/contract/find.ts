import * as yup from './yup';
import { appointmentSchema } from './appointments';
import { QUESTION_KINDS } from './questionKinds';
import { recordingCardSchema } from './recordings';
import { todoSchema } from './todos';
import { FOUND_KINDS } from './foundKinds';

/** `snippet` has the found words between U+2068 and U+2069, characters that stand in no text. */
export const HIT_START = '\u2068';
export const HIT_END = '\u2069';

const hitSchema = yup.object({
  kind: yup.string().oneOf(FOUND_KINDS).required(),
  startMs: yup.number().integer().defined().nullable(),
  snippet: yup.string().required(),
});
export type FindHit = yup.InferType<typeof hitSchema>;

export const foundSchema = yup.object({
  kind: yup.string().oneOf(['recording', 'note']).required(),
  id: yup.string().uuid().required(),
  title: yup.string().defined(),
  /** Local time at which it was recorded, or the instant at which a note was changed. */
  at: yup.string().required(),
  hits: yup.array().of(hitSchema.required()).required(),
});
export type Found = yup.InferType<typeof foundSchema>;

export const findResultSchema = yup.object({
  query: yup.string().defined(),
  results: yup.array().of(foundSchema.required()).required(),
  /** Words that nobody said and for which others were looked for. */
  instead: yup
    .array()
    .of(
      yup
        .object({ word: yup.string().required(), others: yup.array().of(yup.string().required()).required() })
        .required(),
    )
    .required(),
});
export type FindResult = yup.InferType<typeof findResultSchema>;

export const quoteSchema = yup.object({
  kind: yup.string().oneOf(['recording', 'note']).required(),
  id: yup.string().uuid().required(),
  title: yup.string().defined(),
  /** Who says it, "me" for the person who asks. */
  speaker: yup.string().defined().nullable(),
  saidAt: yup.string().required(),
  startMs: yup.number().integer().defined().nullable(),
  endMs: yup.number().integer().defined().nullable(),
  text: yup.string().required(),
  /** The date or number that was asked for, in the words of the sentence. */
  lifted: yup.string().defined().nullable(),
  /** The day or time that is meant by it: `2026-03-12T09:30`. */
  due: yup.string().defined().nullable(),
});
export type AnswerQuote = yup.InferType<typeof quoteSchema>;

const digestRecordingSchema = yup.object({
  id: yup.string().uuid().required(),
  title: yup.string().required(),
  startedAt: yup.string().required(),
  durationMs: yup.number().integer().defined().nullable(),
  /** What stands for the whole, in its own words. */
  sentence: yup.string().defined().nullable(),
  startMs: yup.number().integer().defined().nullable(),
});

export const answerSchema = yup.object({
  question: yup.string().defined(),
  /** What kind of answer is wanted; null when this is no question. */
  kind: yup.string().oneOf(QUESTION_KINDS).defined().nullable(),
  people: yup.array().of(yup.string().required()).required(),
  period: yup
    .object({ from: yup.string().required(), to: yup.string().required(), name: yup.string().required() })
    .defined()
    .nullable()
    .default(null),
  quotes: yup.array().of(quoteSchema.required()).required(),
  /** What comes nearest where nothing answers. */
  nearest: yup.array().of(quoteSchema.required()).required(),
  /** What was recorded in a period or with a person: by day, and within it by project. */
  digest: yup
    .array()
    .of(
      yup
        .object({
          date: yup.string().required(),
          projects: yup
            .array()
            .of(
              yup
                .object({
                  name: yup.string().defined().nullable(),
                  recordings: yup.array().of(digestRecordingSchema.required()).required(),
                })
                .required(),
            )
            .required(),
          todosDone: yup.array().of(yup.string().required()).required(),
        })
        .required(),
    )
    .required(),
});
export type FoundAnswer = yup.InferType<typeof answerSchema>;

export const relatedSchema = yup.object({
  kind: yup.string().oneOf(['recording', 'note']).required(),
  id: yup.string().uuid().required(),
  title: yup.string().defined(),
  at: yup.string().required(),
  /** Why it stands here: "both speak of infiltration". */
  reason: yup.string().required(),
});
export type Related = yup.InferType<typeof relatedSchema>;

export const weekSchema = yup.object({
  /** Its Monday. */
  monday: yup.string().required(),
  spokenMs: yup.number().integer().required(),
  transcribedMs: yup.number().integer().required(),
  spoken: yup.number().integer().required(),
  broughtIn: yup.number().integer().required(),
  todosFound: yup.number().integer().required(),
  todosDone: yup.number().integer().required(),
});
export type Week = yup.InferType<typeof weekSchema>;

export const daySchema = yup.object({
  date: yup.string().required(),
  appointments: yup.array().of(appointmentSchema.required()).required(),
  recordings: yup.array().of(recordingCardSchema.required()).required(),
  todos: yup.array().of(todoSchema.required()).required(),
  /** The note of the day, as its paragraphs. */
  note: yup
    .object({ id: yup.string().uuid().required(), lines: yup.array().of(yup.string().defined()).required() })
    .defined()
    .nullable()
    .default(null),
  /** Seven days from Monday: how many minutes were said. */
  week: yup
    .array()
    .of(
      yup
        .object({
          date: yup.string().required(),
          recordingCount: yup.number().integer().required(),
          spokenMs: yup.number().integer().required(),
        })
        .required(),
    )
    .required(),
});
export type Day = yup.InferType<typeof daySchema>;
