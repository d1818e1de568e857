import type { Suggestion } from '@immeld/core/contract/recordings';
import type { Todo } from '@immeld/core/contract/todos';
import { QueryTypes, type Sequelize } from 'sequelize';
import { accountId } from '../accounts/currentAccount';
import type { Recording } from '../models/recording';
import type { TodoRow } from '../models/todo';

/** What a to-do is shown by; a row as it lies in the database is enough. */
export type ShownTodo = Pick<
  TodoRow,
  keyof Omit<Todo, 'recordingTitle' | 'isDone' | 'doneAt' | 'position' | 'isUnsure'>
> &
  Pick<TodoRow, 'doneAt' | 'createdAt' | 'sure'> & {
    position?: number | null;
    recording?: Pick<Recording, 'title' | 'suggestion' | 'fileName'>;
  };

type Row = Omit<ShownTodo, 'createdAt' | 'doneAt' | 'recording'> & { createdAt: string; doneAt: string | null };

const COLUMNS = `id, recording_id AS recordingId, note_id AS noteId, text, who, due, project, quote, start_ms AS startMs, state,
  done_at AS doneAt, sure, priority, repeat, notes, snoozed_until AS snoozedUntil, position, created_at AS createdAt`;

/**
 * The account's to-dos that are not in the bin, in the order in which they came, as they lie in the database: to make models
 * of thousands takes long.
 * @param recordingIds those of these recordings alone
 */
export async function readTodos(
  database: Sequelize,
  { states, recordingIds }: { states: readonly string[]; recordingIds?: readonly string[] },
): Promise<ShownTodo[]> {
  // The plus keeps SQLite from going through all to-dos of the account instead of those of a few recordings.
  const inRecordings = recordingIds ? 'AND recording_id IN (SELECT value FROM json_each(:recordingIds))' : '';
  const rows = await database.query<Row>(
    `SELECT ${COLUMNS} FROM todos WHERE binned_at IS NULL AND ${recordingIds ? '+' : ''}account_id = :account
       AND state IN (SELECT value FROM json_each(:states)) ${inRecordings} ORDER BY created_at`,
    {
      replacements: {
        account: accountId(),
        states: JSON.stringify(states),
        recordingIds: JSON.stringify(recordingIds ?? []),
      },
      type: QueryTypes.SELECT,
    },
  );
  return rows.map((row) => ({
    ...row,
    createdAt: new Date(row.createdAt),
    doneAt: row.doneAt ? new Date(row.doneAt) : null,
  }));
}

/** What a to-do shows of the recording in which it was said. */
export type TodosRecording = {
  id: string;
  title: string | null;
  fileName: string;
  suggestion: Suggestion;
  binnedAt: string | null;
  project: string | null;
};

/** The account's recordings with these ids, by id. */
export async function readTodosRecordings(
  database: Sequelize,
  ids: readonly string[],
): Promise<Map<string, TodosRecording>> {
  const rows = await database.query<Omit<TodosRecording, 'suggestion'> & { suggestion: string }>(
    `SELECT r.id, r.title, r.file_name AS fileName, r.suggestion, r.binned_at AS binnedAt, p.name AS project
     FROM recordings r LEFT JOIN projects p ON p.id = r.project_id
     WHERE +r.account_id = :account AND r.id IN (SELECT value FROM json_each(:ids))`,
    { replacements: { account: accountId(), ids: JSON.stringify(ids) }, type: QueryTypes.SELECT },
  );
  return new Map(rows.map((r) => [r.id, { ...r, suggestion: JSON.parse(r.suggestion) as Suggestion }]));
}
