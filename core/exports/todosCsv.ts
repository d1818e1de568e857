import type { Todo } from '../contract/todos';

const COLUMNS = ['text', 'who', 'due', 'project', 'priority', 'done', 'notes', 'recording', 'quote'] as const;

/**
 * To-dos as a table of comma-separated values (RFC 4180, with CRLF). What a spreadsheet would take for a formula begins with an
 * apostrophe (OWASP, "CSV Injection").
 */
export function todosCsv(todos: readonly Todo[]): string {
  const rows = todos.map((t) => [
    ...[t.text, t.who ?? '', t.due ?? '', t.project ?? '', t.priority ?? ''],
    ...[t.isDone ? 'yes' : 'no', t.notes ?? '', t.recordingTitle ?? '', t.quote ?? ''],
  ]);
  return [COLUMNS, ...rows].map((row) => `${row.map(field).join(',')}\r\n`).join('');
}

function field(value: string): string {
  const safe = /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(safe) ? `"${safe.replace(/"/g, '""')}"` : safe;
}
