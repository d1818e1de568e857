import type { RecordingCard } from '@immeld/core/contract/recordings';
import { useChanges } from '../../api/queries';
import { useUndoBar } from '../../ui/undoBar';
import { titleOf } from './recordingRow';

/** Files recordings as proposed, bins them, and offers the way back. */
export function useFiling() {
  const { file, recording: change, todo } = useChanges();
  const show = useUndoBar();

  const undo = (r: RecordingCard, todoIds: readonly string[]) => {
    change.mutate({
      id: r.id,
      change: { isFiled: r.isFiled, isBinned: false, title: r.title, folderId: r.folderId, tags: r.tags },
    });
    for (const id of todoIds) todo.mutate({ id, change: { state: 'pencil' } });
  };

  const fileAsProposed = async (r: RecordingCard, todoIds: readonly string[]) => {
    await file.mutateAsync({
      id: r.id,
      filing: {
        title: r.title ?? r.suggestion.title,
        folderId: r.folderId ?? r.suggestion.folderId,
        tags: [...new Set([...r.tags, ...r.suggestion.tags])],
        todoIds: [...todoIds],
      },
    });
    return () => undo(r, todoIds);
  };

  return {
    isBusy: file.isPending,
    error: file.error ?? change.error,
    fileOne: async (r: RecordingCard, todoIds: readonly string[]) => {
      const back = await fileAsProposed(r, todoIds);
      show(`“${titleOf(r)}” is filed.`, back);
    },
    fileAll: async (all: readonly RecordingCard[]) => {
      const back: (() => void)[] = [];
      for (const r of all)
        back.push(
          await fileAsProposed(
            r,
            r.pencilTodos.map((t) => t.id),
          ),
        );
      show(`${all.length} recordings are filed.`, () => back.forEach((f) => f()));
    },
    bin: async (r: RecordingCard) => {
      await change.mutateAsync({ id: r.id, change: { isBinned: true } });
      show(`“${titleOf(r)}” is in the bin for 30 days.`, () => undo(r, []));
    },
  };
}
