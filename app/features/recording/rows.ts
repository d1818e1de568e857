import type { Recording, Todo } from '@immeld/core/contract/recordings';
import { type Passage, paragraphsOf } from '@immeld/core/transcript/manuscript';

/** A paragraph and the slips that belong beside it. */
export type ManuscriptRow = { key: string; passages: Passage[]; todos: Todo[] };

/** The manuscript row by row, each to-do beside the paragraph in which it was said. */
export function manuscriptRows(recording: Pick<Recording, 'passages' | 'todos'>): ManuscriptRow[] {
  const rows = paragraphsOf(recording.passages as Passage[]).map((passages): ManuscriptRow => ({
    key: String(passages[0]!.startMs),
    passages,
    todos: [],
  }));
  for (const todo of recording.todos) {
    if (todo.state === 'dropped' || todo.startMs === null) continue;
    const row = rows.findLast((r) => r.passages[0]!.startMs <= todo.startMs!) ?? rows[0];
    row?.todos.push(todo);
  }
  return rows;
}
