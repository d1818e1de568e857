import type { Recording } from '@immeld/core/contract/recordings';
import type { Todo } from '@immeld/core/contract/todos';
import type { Slip } from '@immeld/core/contract/slips';
import { type Passage, paragraphsOf } from '@immeld/core/transcript/manuscript';

/** A paragraph and the slips that belong beside it. */
export type ManuscriptRow = {
  key: string;
  /** Place of the first of these passages among all. */
  first: number;
  passages: Passage[];
  todos: Todo[];
  slips: Slip[];
};

/** The manuscript row by row, each to-do and slip beside the paragraph of its second. */
export function manuscriptRows(
  recording: Pick<Recording, 'todos' | 'slips'> & { passages: readonly Passage[] },
): ManuscriptRow[] {
  let first = 0;
  const rows = paragraphsOf(recording.passages).map((passages): ManuscriptRow => {
    const row = { key: String(passages[0]!.startMs), first, passages, todos: [], slips: [] };
    first += passages.length;
    return row;
  });
  const rowAt = (ms: number) => rows.findLast((r) => r.passages[0]!.startMs <= ms) ?? rows[0];
  for (const todo of recording.todos) {
    if (todo.state === 'dropped' || todo.startMs === null) continue;
    rowAt(todo.startMs)?.todos.push(todo);
  }
  for (const slip of recording.slips) {
    // Many slides may wait for a place; they are in the list.
    const waits = slip.kind === 'slide' && slip.isWhole === true;
    if (!waits && !isTodoOnList(slip)) rowAt(slip.startMs)?.slips.push(slip);
  }
  return rows;
}

/** A to-do mark with words stands in the margin as its to-do. */
export const isTodoOnList = (slip: Slip): boolean => slip.mark === 'to-do' && slip.text !== '';

/** All that stands in the margin, in the order of its seconds; what belongs to the whole recording comes first. */
export function marginOf({ todos, slips }: Pick<Recording, 'todos' | 'slips'>) {
  const listed = todos
    .filter((t) => t.state !== 'dropped')
    .map((todo) => ({ key: todo.id, startMs: todo.startMs ?? Infinity, todo, slip: null }));
  const others = slips
    .filter((slip) => !isTodoOnList(slip))
    .map((slip) => ({ key: slip.id, startMs: slip.isWhole ? -Infinity : slip.startMs, todo: null, slip }));
  return [...listed, ...others].sort((a, b) => a.startMs - b.startMs);
}
