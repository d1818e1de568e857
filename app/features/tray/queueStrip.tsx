import type { Job } from '@immeld/core/contract/jobs';
import { useState } from 'react';
import { View } from 'react-native';
import { useJobChanges, useJobs } from '../../api/queries';
import { WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { JobProgress } from './jobProgress';

/** In this order they stand in the queue. */
const ORDER: Record<Job['state'], number> = { running: 0, waiting: 1, paused: 2, failed: 3, cancelled: 4, done: 5 };
const STATES = ['running', 'waiting', 'paused', 'failed'] as const;

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
  const { pauseJob, resumeJob } = useJobChanges();
  const [isOpen, setOpen] = useState(false);
  const all: readonly Job[] = data?.items ?? [];
  const jobs = [...all].sort((a, b) => ORDER[a.state] - ORDER[b.state]);
  // One alone stands on its own card.
  if (jobs.length < 2) return null;
  const going = jobs.filter((j) => j.state === 'running' || j.state === 'waiting');
  const paused = jobs.filter((j) => j.state === 'paused');
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
        <View role="list" aria-label="Queue">
          {jobs.map((job) => (
            <View key={job.id} role="listitem" aria-label={job.name} style={{ paddingVertical: 6 }}>
              <Type numberOfLines={1}>{job.name}</Type>
              <JobProgress job={job} hasWords={false} />
            </View>
          ))}
        </View>
      )}
    </View>
  );
}
