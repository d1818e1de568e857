import type { Done } from '@immeld/core/contract/shelves';
import { useChanges } from '../api/changes';
import { useUndoBar } from './undoBar';

/** Shows what was done on the shelves, with the server's way back. */
export function useShowDone(): (done: Done) => void {
  const { undo } = useChanges();
  const show = useUndoBar();
  return ({ deedId, text }) => show(text, deedId ? () => undo.mutate(deedId) : undefined);
}

/**
 * Goes on when something was done, also where what was asked for it has gone from the page by then, as a removed row or
 * shelf has: the callbacks of `mutate` are not called there. A failure is shown by the mutation's own error.
 */
export function whenDone<T>(doing: Promise<T>, goOn: (done: T) => void): void {
  doing.then(goOn, () => undefined);
}
