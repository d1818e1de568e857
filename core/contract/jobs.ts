import * as yup from './yup';

export const JOB_STATES = ['waiting', 'running', 'paused', 'done', 'failed', 'cancelled'] as const;
export type JobState = (typeof JOB_STATES)[number];

/**
 * A recognition under way. `percent` and `secondsLeft` are null while the length of the sound is not known. One that
 * waits with a percentage had begun, and goes on from there.
 */
export const jobSchema = yup.object({
  id: yup.string().uuid().required(),
  recordingId: yup.string().uuid().required(),
  name: yup.string().required(),
  /** When it was spoken, local time, where nothing else names it; null where `name` says more. */
  spokenAt: yup.string().defined().nullable(),
  state: yup.string().oneOf(JOB_STATES).required(),
  percent: yup.number().min(0).max(100).defined().nullable(),
  secondsLeft: yup.number().min(0).defined().nullable(),
  latestWords: yup.string().defined(),
  /** How many passages of its text can be read already. */
  passages: yup.number().integer().min(0).required(),
  problem: yup.string().defined().nullable(),
});
export type Job = yup.InferType<typeof jobSchema>;

export const jobOrderSchema = yup
  .object({
    ids: yup
      .array()
      .of(yup.string().uuid().required())
      .min(1, 'Choose a transcription first.')
      .max(500, 'You can put up to 500 transcriptions in order at once.')
      .required(),
  })
  .noUnknown();
