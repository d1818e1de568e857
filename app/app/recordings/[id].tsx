import { useLocalSearchParams } from 'expo-router';
import { RecordingPage } from '../../features/recording/recordingPage';
import { useRecording } from '../../api/queries';
import { Failure, Loading } from '../../ui/notice';
import { Page } from '../../ui/shell';

export default function RecordingScreen() {
  const { id, at, part } = useLocalSearchParams<{ id: string; at?: string; part?: string }>();
  const { data, error, refetch } = useRecording(id);
  if (!data) {
    return (
      <Page>
        {error ? <Failure error={error} onRetry={() => void refetch()} /> : <Loading label="Opening the recording" />}
      </Page>
    );
  }
  return <RecordingPage key={id} recording={data} startAtMs={at ? Number(at) : null} part={part ?? null} />;
}
