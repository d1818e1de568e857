import type { NewSlip } from '@immeld/core/contract/slips';
import type { LevelWord } from './levels';

export type CaptureStage = 'idle' | 'starting' | 'recording' | 'paused' | 'finishing';

export type CaptureNow = {
  stage: CaptureStage;
  captureId: string | null;
  /** Milliseconds of sound, without pauses. */
  elapsedMs: number;
  /** Loudest value of each tenth of a second, 0 to 100; the newest last. */
  peaks: readonly number[];
  level: LevelWord;
  slips: readonly NewSlip[];
  /** Who is expected to be there, from the appointment it was started from, and what that is called. */
  people: readonly string[];
  appointment: string | null;
  /** The recording that it is added to; null for one of its own. */
  addedTo: string | null;
  /** Whether spoken commands are to be done in it. */
  isDictation: boolean;
  /** Why it cannot record, or why it ended by itself. */
  problem: string | null;
  /** Something to know while it goes on. */
  warning: string | null;
  /** The recording that ended because its microphone was disconnected; it goes on when there is one again. */
  unplugged: string | null;
};

/** Nothing is being recorded. */
export const IDLE: CaptureNow = {
  stage: 'idle',
  captureId: null,
  elapsedMs: 0,
  peaks: [],
  level: 'good',
  slips: [],
  people: [],
  appointment: null,
  addedTo: null,
  isDictation: false,
  problem: null,
  warning: null,
  unplugged: null,
};
