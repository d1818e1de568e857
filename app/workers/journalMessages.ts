/** To the worker that keeps the last half minute of a recording. With `open` comes the port that the sound comes by. */
export type ToJournalWorker =
  | { type: 'open'; id: string; rate: number }
  /** From now on what comes is written down; or not, as long as the recording pauses. */
  | { type: 'run' | 'pause' }
  /** Answered when it is done. With `isKept` the file stays to be read. */
  | { type: 'close'; isKept: boolean };

/** Folder in the origin's private file system; a journal has the id of its capture for a name. */
export const JOURNAL_FOLDER = 'journal';
export const RING_SECONDS = 30;
/** The samples, 16 bits each, begin after two 64-bit floats: samples per second, and samples written so far. */
export const RING_START = 16;
