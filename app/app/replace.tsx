import { useLocalSearchParams } from 'expo-router';
import { useRecording } from '../api/queries';
import { ReplaceWords } from '../features/replace/replaceWords';
import { titleOf } from '../features/tray/recordingRow';
import { Failure, Loading } from '../ui/notice';
import { Page } from '../ui/shell';

export default function ReplaceScreen() {
  const { recording: id, find = '' } = useLocalSearchParams<{ recording?: string; find?: string }>();
  if (!id) {
    return (
      <Page>
        <ReplaceWords recording={null} find={find} />
      </Page>
    );
  }
  return (
    <Page>
      <InRecording id={id} find={find} />
    </Page>
  );
}

function InRecording({ id, find }: { id: string; find: string }) {
  const { data, error, refetch } = useRecording(id);
  if (!data) return error ? <Failure error={error} onRetry={() => void refetch()} /> : <Loading />;
  return <ReplaceWords recording={{ id, title: titleOf(data), folderId: data.folderId }} find={find} />;
}
