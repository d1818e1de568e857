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

/** How far a recognition is, in words and as a bar, with what can be done about it. */
export function JobProgress({ job, hasWords = true }: { job: Job; hasWords?: boolean }) {
  const colours = useColours();
  const { cancelJob, retryJob } = useJobChanges();
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
  const isWaiting = job.state === 'waiting';
  const words = isWaiting
    ? 'Waiting to be transcribed'
    : job.percent === null
      ? 'Starting'
      : [`${Math.floor(job.percent)}% transcribed`, job.secondsLeft ? timeLeft(job.secondsLeft) : null]
          .filter(Boolean)
          .join(' · ');
  return (
    <View style={{ marginTop: 8, gap: 4 }}>
      <Progress label="Transcribing" share={isWaiting || job.percent === null ? null : job.percent / 100} />
      <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
        <Type size="tiny" tone="faint" role="status">
          {words}
        </Type>
        <WordButton label="Cancel" onPress={() => cancelJob.mutate(job.id)} style={{ marginRight: 0 }} />
      </View>
      {hasWords && job.latestWords !== '' && (
        <Type face="text" tone="faint" numberOfLines={2}>
          … {job.latestWords}
        </Type>
      )}
    </View>
  );
}
