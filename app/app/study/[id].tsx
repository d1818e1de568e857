import { useLocalSearchParams } from 'expo-router';
import { useRecording } from '../../api/queries';
import { StudyPage } from '../../features/study/studyPage';
import { Failure, Loading } from '../../ui/notice';
import { Page } from '../../ui/shell';

/** A recording is gone through, passage by passage, with questions. */
export default function StudyScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { data, error, refetch } = useRecording(id);
  if (data) return <StudyPage key={id} recording={data} />;
  return (
    <Page>
      {error ? <Failure error={error} onRetry={() => void refetch()} /> : <Loading label="Opening the recording" />}
    </Page>
  );
}
