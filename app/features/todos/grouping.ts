import type { Todo } from '@immeld/core/contract/recordings';

export const GROUPINGS = [
  { key: 'project', label: 'By project' },
  { key: 'date', label: 'By date' },
  { key: 'who', label: 'By person' },
  { key: 'done', label: 'Done' },
] as const;
export type Grouping = (typeof GROUPINGS)[number]['key'];

function groupOf(todo: Todo, by: Grouping, today: string): string {
  if (by === 'project' || by === 'done') return todo.project ?? 'No project';
  if (by === 'who') return todo.who === 'me' ? 'Mine' : todo.who ? `For ${todo.who}` : 'Nobody yet';
  if (!todo.due) return 'Without a date';
  const day = todo.due.slice(0, 10);
  return day < today ? 'Late' : day === today ? 'Today' : 'Later';
}

const DATE_ORDER = ['Late', 'Today', 'Later', 'Without a date'];
export type Line = { heading: string } | { todo: Todo };

/** To-dos with a heading before each group. */
export function linesOf(todos: readonly Todo[], by: Grouping, today: string): Line[] {
  const groups = new Map<string, Todo[]>();
  for (const todo of todos.filter((t) => t.isDone === (by === 'done'))) {
    const name = groupOf(todo, by, today);
    groups.set(name, [...(groups.get(name) ?? []), todo]);
  }
  const last = /^(?:No project|Nobody yet|Without a date)$/;
  const names = [...groups.keys()].sort((a, b) =>
    by === 'date'
      ? DATE_ORDER.indexOf(a) - DATE_ORDER.indexOf(b)
      : Number(last.test(a)) - Number(last.test(b)) || a.localeCompare(b),
  );
  return names.flatMap((heading): Line[] => [
    { heading },
    ...groups
      .get(heading)!
      .sort((a, b) => (a.due ?? '9').localeCompare(b.due ?? '9'))
      .map((todo) => ({ todo })),
  ]);
}
