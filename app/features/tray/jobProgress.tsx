import type { Job } from '@immeld/core/contract/jobs';
import { View } from 'react-native';
import { useJobChanges } from '../../api/queries';
import { WordButton } from '../../ui/press';
import { Progress } from '../../ui/progress';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';

function timeLeft(seconds: number): string {
  return seconds < 60 ? `about ${Math.max(1, seconds)} s left` : `about ${Math.round(seconds / 60)} min left`;
}

/** "Waiting", "41% transcribed · about 3 min left", "Paused · 41% transcribed" */
function progressWords({ state, percent, secondsLeft }: Job): string {
  const done = percent === null ? null : `${Math.floor(percent)}% transcribed`;
  if (state === 'paused') return ['Paused', done].filter(Boolean).join(' · ');
  if (state === 'waiting') return done ? `Waiting · ${done}` : 'Waiting';
  return done ? [done, secondsLeft ? timeLeft(secondsLeft) : null].filter(Boolean).join(' · ') : 'Starting';
}

/** How far a recognition is, in words and as a bar, with what can be done about it. */
export function JobProgress({ job, hasWords = true }: { job: Job; hasWords?: boolean }) {
  const colours = useColours();
  const { cancelJob, retryJob, pauseJob, resumeJob, moveJobToFront } = useJobChanges();
  if (job.state === 'failed' || job.state === 'cancelled') {
    return (
      <View role="alert" style={{ borderLeftWidth: 3, borderLeftColor: colours.rowan, paddingLeft: 12, marginTop: 8 }}>
        <Type>
          {job.state === 'failed'
            ? (job.problem ?? 'This recording could not be transcribed. The audio is saved.')
            : 'Transcription cancelled. The audio is saved.'}
        </Type>
        <WordButton label="Try again" onPress={() => retryJob.mutate(job.id)} />
      </View>
    );
  }
  return (
    <View style={{ marginTop: 8, gap: 4 }}>
      <Progress
        label="Transcribing"
        share={job.percent === null ? (job.state === 'paused' ? 0 : null) : job.percent / 100}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', justifyContent: 'space-between' }}>
        <Type size="tiny" tone="faint" role="status" style={{ marginRight: 'auto', paddingRight: 12 }}>
          {progressWords(job)}
        </Type>
        <View style={{ flexDirection: 'row', columnGap: 14 }}>
          {job.state === 'waiting' && (
            <WordButton
              label="Move to front"
              onPress={() => moveJobToFront.mutate(job.id)}
              style={{ marginRight: 0 }}
            />
          )}
          {job.state === 'paused' ? (
            <WordButton label="Resume" onPress={() => resumeJob.mutate(job.id)} style={{ marginRight: 0 }} />
          ) : (
            <WordButton label="Pause" onPress={() => pauseJob.mutate(job.id)} style={{ marginRight: 0 }} />
          )}
          <WordButton label="Cancel" onPress={() => cancelJob.mutate(job.id)} style={{ marginRight: 0 }} />
        </View>
      </View>
      {hasWords && job.latestWords !== '' && (
        <Type face="text" tone="faint" numberOfLines={2}>
          … {job.latestWords}
        </Type>
      )}
    </View>
  );
}
