import type { Job } from '@immeld/core/contract/jobs';
import { type ReactNode } from 'react';
import { View } from 'react-native';
import { useJobChanges, useJobs } from '../../api/queries';
import { spokenName } from '../../ui/dates';
import { MovableList, MovableRow } from '../../ui/movable';
import { WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { JobProgress } from './jobProgress';
import { useClosable } from '../../ui/useClosable';

const STATES = ['running', 'waiting', 'paused', 'failed'] as const;

const nameOf = ({ spokenAt, name }: Job): string => (spokenAt ? spokenName(spokenAt) : name);

/** "1 running, 3 waiting" */
const countsOf = (jobs: readonly Job[]): string =>
  STATES.map((state) => ({ state, count: jobs.filter((j) => j.state === state).length }))
    .filter(({ count }) => count > 0)
    .map(({ state, count }) => `${count} ${state}`)
    .join(', ');

/** All transcriptions that are not done, on one line; opened, each with what can be done about it. */
export function QueueStrip() {
  const colours = useColours();
  const { data } = useJobs();
  const { pauseJob, resumeJob, orderJobs } = useJobChanges();
  const [isOpen, setOpen] = useClosable(false);
  const jobs: readonly Job[] = data?.items ?? [];
  // One alone stands on its own card.
  if (jobs.length < 2) return null;
  const going = jobs.filter((j) => j.state === 'running' || j.state === 'waiting');
  const paused = jobs.filter((j) => j.state === 'paused');
  const ids = going.map((j) => j.id);
  /** All that come before the place where it is put keep theirs. */
  const move = (id: string, to: number) => {
    const rest = ids.filter((other) => other !== id);
    const at = Math.max(0, Math.min(rest.length, to));
    orderJobs.mutate([...rest.slice(0, at), id]);
  };
  return (
    <View
      role="region"
      aria-label="Transcription queue"
      style={{ borderTopWidth: 1, borderBottomWidth: 1, borderColor: colours.rule, paddingVertical: 6 }}
    >
      <Type size="small" role="status">
        Transcriptions: {countsOf(jobs)}
      </Type>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        <WordButton
          label={isOpen ? 'Hide queue' : 'Show queue'}
          aria-expanded={isOpen}
          onPress={() => setOpen((was) => !was)}
        />
        {going.length > 0 && (
          <WordButton label="Pause all" onPress={() => going.forEach((j) => pauseJob.mutate(j.id))} />
        )}
        {paused.length > 0 && (
          <WordButton label="Resume all" onPress={() => paused.forEach((j) => resumeJob.mutate(j.id))} />
        )}
      </View>
      {isOpen && (
        <MovableList ids={ids} onMove={move}>
          <View role="list" aria-label="Queue">
            {jobs.map((job) =>
              job.state === 'waiting' ? (
                <MovableRow key={job.id} id={job.id} name={nameOf(job)} ids={ids} onMove={move}>
                  {(handle) => <QueueRow job={job} handle={handle} />}
                </MovableRow>
              ) : (
                <QueueRow key={job.id} job={job} />
              ),
            )}
          </View>
        </MovableList>
      )}
    </View>
  );
}

function QueueRow({ job, handle }: { job: Job; handle?: ReactNode }) {
  return (
    <View role="listitem" aria-label={nameOf(job)} style={{ paddingVertical: 6, flexDirection: 'row', gap: 8 }}>
      <View style={{ flex: 1, minWidth: 0 }}>
        <Type numberOfLines={1}>{nameOf(job)}</Type>
        <JobProgress job={job} hasWords={false} />
      </View>
      {handle}
    </View>
  );
}
