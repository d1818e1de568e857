import type { Job } from '@immeld/core/contract/jobs';
import type { JobRow } from '../models/job';
import { type Recording, isNamedByTime, titleOf } from '../models/recording';
import type { JobProgress } from './jobProgress';

/** @param live how far it is; undefined while it waits or has ended */
export const jobView = (row: JobRow, recording: Recording | null, live: JobProgress | undefined): Job => ({
  id: row.id,
  recordingId: row.recordingId,
  name: recording ? titleOf(recording) : '',
  spokenAt: recording && isNamedByTime(recording) ? recording.startedAt : null,
  state: row.state,
  percent: row.state === 'done' ? 100 : (live?.percent ?? null),
  secondsLeft: row.state === 'running' ? (live?.secondsLeft ?? null) : null,
  latestWords: live?.latestWords ?? '',
  passages: live?.passages ?? 0,
  problem: row.problem,
});
