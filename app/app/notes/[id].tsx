import { useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { useNote } from '../../api/queries';
import { NotePage } from '../../features/notes/notePage';
import { noteOnlyHere } from '../../offline/noteDrafts';
import { Failure, Loading } from '../../ui/notice';
import { Page } from '../../ui/shell';

export default function NoteScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const [onlyHere] = useState(() => ({ id, note: noteOnlyHere(id) }));
  const own = onlyHere.id === id ? onlyHere.note : null;
  const { data: kept, error, refetch } = useNote(id, !own);
  const data = kept ?? own;
  const [taken, setTaken] = useState(0);
  return (
    <Page>
      {data ? (
        <NotePage key={`${id} ${taken}`} note={data} onTaken={() => setTaken(taken + 1)} />
      ) : error ? (
        <Failure error={error} onRetry={() => void refetch()} />
      ) : (
        <Loading label="Opening the note" />
      )}
    </Page>
  );
}
