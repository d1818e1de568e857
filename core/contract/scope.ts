import * as yup from './yup';
import { dateText } from './endpoint';

/** A write-up is made of at most so many recordings. */
export const MAX_RECORDINGS_TOGETHER = 300;

const DAY = 'Write the day like this: 2026-03-09.';

/** Several recordings: all to which everything holds that is given here. What is in the bin does not count. */
export const scopeSchema = yup
  .object({
    /** Exactly these. */
    recordingIds: yup
      .array()
      .of(yup.string().uuid().required())
      .max(MAX_RECORDINGS_TOGETHER, `A write-up can cover up to ${MAX_RECORDINGS_TOGETHER} recordings.`)
      .default(undefined),
    /** With the folders inside it. */
    folderId: yup.string().uuid(),
    tag: yup.string().max(60),
    personId: yup.string().uuid(),
    projectId: yup.string().uuid(),
    /** Local days, both of them included. */
    from: dateText(DAY),
    to: dateText(DAY),
  })
  .noUnknown();
export type Scope = yup.InferType<typeof scopeSchema>;
