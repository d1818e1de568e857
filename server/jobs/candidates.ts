import type { JobState } from '@immeld/core/contract/jobs';
import { JobRow } from '../models/job';
import { Recording } from '../models/recording';
import { type Candidate, byTurn, soundLength } from './queueOrder';

/** More that wait are not compared with each other: they come in the order in which they were added. */
const MAX_COMPARED = 500;

/** How much of a job is done, from 0 to 1. */
export type DoneShare = (jobId: string) => number;

/** How the order looks at these recognitions; those whose recording is gone are left out. */
export async function candidatesOf(
  rows: readonly JobRow[],
  doneShareOf: DoneShare,
): Promise<(Candidate & { row: JobRow })[]> {
  const recordings = await Recording.findAll({
    where: { id: rows.map((row) => row.recordingId) },
    attributes: ['id', 'durationMs', 'sizeBytes'],
  });
  const byId = new Map(recordings.map((r) => [r.id, r]));
  return rows.flatMap((row) => {
    const recording = byId.get(row.recordingId);
    return recording ? [candidateOf(row, recording, doneShareOf)] : [];
  });
}

const candidateOf = (row: JobRow, recording: Recording, doneShareOf: DoneShare): Candidate & { row: JobRow } => ({
  row,
  soundMs: soundLength(recording),
  doneShare: doneShareOf(row.id),
  waitedMs: Date.now() - +row.createdAt,
  frontAt: row.frontAt ? +row.frontAt : null,
});

const BY_STATE: Record<JobState, number> = { running: 0, waiting: 1, paused: 2, failed: 3, cancelled: 4, done: 5 };

/** What runs, then what waits in its order, then the rest as it came. @param rows with their recordings */
export function inQueueOrder(rows: readonly JobRow[], doneShareOf: DoneShare): JobRow[] {
  return rows
    .map((row) => candidateOf(row, row.recording!, doneShareOf))
    .sort((a, b) => BY_STATE[a.row.state] - BY_STATE[b.row.state] || (a.row.state === 'waiting' ? byTurn(a, b) : 0))
    .map(({ row }) => row);
}

/** The accounts that have a recognition waiting. */
export const waitingAccounts = async (): Promise<string[]> =>
  (await JobRow.findAll({ where: { state: 'waiting' }, attributes: ['accountId'], group: ['accountId'] })).map(
    (row) => row.accountId,
  );

/** What comes next of all that waits in an account. */
export async function nextOf(accountId: string, doneShareOf: DoneShare): Promise<JobRow | null> {
  const own = await JobRow.findAll({
    ...{ where: { state: 'waiting', accountId }, order: [['createdAt', 'ASC']], limit: MAX_COMPARED },
  });
  const [first] = (await candidatesOf(own, doneShareOf)).sort(byTurn);
  return first?.row ?? own[0] ?? null;
}
