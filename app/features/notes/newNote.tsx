import { useRouter } from 'expo-router';
import { v4 as newId } from 'uuid';
import { useChanges } from '../../api/changes';
import { keepDraft } from '../../offline/noteDrafts';
import { WordButton } from '../../ui/press';

/** Begins a note and opens it; it is on this device first, so that it needs no network. */
export function NewNote({ folderId }: { folderId: string | null }) {
  const router = useRouter();
  const { newNote } = useChanges();
  const open = (id: string) => router.push({ pathname: '/notes/[id]', params: { id } });
  const begin = () => {
    const id = newId();
    if (keepDraft(id, { seenAt: null, folderId, begunAt: new Date().toISOString() })) open(id);
    else newNote.mutate({ title: '', folderId }, { onSuccess: (note) => open(note.id) });
  };
  return <WordButton label="New note" disabled={newNote.isPending} onPress={begin} />;
}
