import type { Done } from '@immeld/core/contract/shelves';
import { useChanges } from '../api/queries';
import { useUndoBar } from './undoBar';

/** Shows what was done on the shelves, with the server's way back. */
export function useShowDone(): (done: Done) => void {
  const { undo } = useChanges();
  const show = useUndoBar();
  return ({ deedId, text }) => show(text, deedId ? () => undo.mutate(deedId) : undefined);
}
