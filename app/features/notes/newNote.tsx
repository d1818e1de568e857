import { useRouter } from 'expo-router';
import { useChanges } from '../../api/queries';
import { WordButton } from '../../ui/press';

/** Begins a note and opens it. */
export function NewNote({ folderId }: { folderId: string | null }) {
  const router = useRouter();
  const { newNote } = useChanges();
  const begin = () =>
    newNote.mutate(
      { title: '', folderId },
      { onSuccess: ({ id }) => router.push({ pathname: '/notes/[id]', params: { id } }) },
    );
  return <WordButton label="New note" disabled={newNote.isPending} onPress={begin} />;
}
