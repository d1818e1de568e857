import { useLocalSearchParams } from 'expo-router';
import { ScrollView } from 'react-native';
import { useNote } from '../../api/queries';
import { NotePage } from '../../features/notes/notePage';
import { Failure, Loading } from '../../ui/notice';
import { Page } from '../../ui/shell';

export default function NoteScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { data, error, refetch } = useNote(id);
  return (
    <Page>
      {data ? (
        <ScrollView contentContainerStyle={{ flexGrow: 1 }}>
          <NotePage key={id} note={data} />
        </ScrollView>
      ) : error ? (
        <Failure error={error} onRetry={() => void refetch()} />
      ) : (
        <Loading label="Opening the note" />
      )}
    </Page>
  );
}
