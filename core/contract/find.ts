import * as yup from 'yup';
import { appointmentSchema } from './appointments';
import { recordingCardSchema, todoSchema } from './recordings';

/** `snippet` has the found words between U+2068 and U+2069, characters that stand in no text. */
export const HIT_START = '\u2068';
export const HIT_END = '\u2069';

export const findResultSchema = yup.object({
  query: yup.string().defined(),
  results: yup
    .array()
    .of(
      yup
        .object({
          recordingId: yup.string().uuid().required(),
          title: yup.string().required(),
          startedAt: yup.string().required(),
          hits: yup
            .array()
            .of(
              yup
                .object({
                  startMs: yup.number().integer().defined().nullable(),
                  snippet: yup.string().required(),
                })
                .required(),
            )
            .required(),
        })
        .required(),
    )
    .required(),
});
export type FindResult = yup.InferType<typeof findResultSchema>;

export const daySchema = yup.object({
  date: yup.string().required(),
  appointments: yup.array().of(appointmentSchema.required()).required(),
  recordings: yup.array().of(recordingCardSchema.required()).required(),
  todos: yup.array().of(todoSchema.required()).required(),
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
