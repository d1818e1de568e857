import type { Todo, TodoPlaces } from '@immeld/core/contract/todos';

export const GROUPINGS = [
  { key: 'project', label: 'By project' },
  { key: 'date', label: 'By date' },
  { key: 'who', label: 'By person' },
  { key: 'recording', label: 'By recording' },
  { key: 'order', label: 'My order' },
  { key: 'done', label: 'Done' },
] as const;
export type Grouping = (typeof GROUPINGS)[number]['key'];

export const WHOSE = ['mine', 'others', 'all'] as const;
export type Whose = (typeof WHOSE)[number];
export const WHOSE_NAMES: Record<Whose, string> = { mine: 'Mine', others: 'Others’', all: 'All' };

/** What nobody has taken yet may become one's own: it stands among one's own. */
const isOf = (todo: Todo, whose: Whose): boolean =>
  whose === 'all' || (whose === 'others') === (todo.who !== null && todo.who !== 'me');

const isAsleep = (todo: Todo, today: string): boolean => (todo.snoozedUntil ?? '') > today;

function groupOf(todo: Todo, by: Grouping, today: string): string {
  if (by === 'who') return todo.who === 'me' ? 'Mine' : todo.who ? `For ${todo.who}` : 'Unassigned';
  if (by === 'recording') return todo.recordingTitle ?? 'Not from a recording';
  if (by === 'done') return todo.doneAt?.slice(0, 10) === today ? 'Done today' : 'Done earlier';
  if (by === 'project') return todo.project ?? 'No project';
  if (!todo.due) return 'No date';
  const day = todo.due.slice(0, 10);
  if (day < today) return 'Overdue';
  if (day === today) return 'Today';
  const days = (Date.parse(day) - Date.parse(today)) / 86_400_000;
  return days === 1 ? 'Tomorrow' : days < 7 ? 'Next 7 days' : 'Later';
}

const DATE_ORDER = ['Overdue', 'Today', 'Tomorrow', 'Next 7 days', 'Later', 'No date'];
const LAST = /^(?:No project|Unassigned|Not from a recording|Done earlier)$/;
const PRIORITY_ORDER = { high: 0, middle: 1, low: 3 };
const weight = (todo: Todo): number => (todo.priority ? PRIORITY_ORDER[todo.priority] : 2);

export type Line = { heading: string; count: number } | { todo: Todo };

/** To-dos with a heading before each group; what sleeps until another day stands in a group of its own at the end. */
export function linesOf(todos: readonly Todo[], by: Grouping, whose: Whose, today: string): Line[] {
  const shown = todos.filter((t) => t.isDone === (by === 'done') && isOf(t, whose));
  const groups = new Map<string, Todo[]>();
  const put = (name: string, todo: Todo) => groups.set(name, [...(groups.get(name) ?? []), todo]);
  const asleep: Todo[] = [];
  for (const todo of shown) {
    if (by !== 'done' && isAsleep(todo, today)) asleep.push(todo);
    else put(by === 'order' ? '' : groupOf(todo, by, today), todo);
  }
  const names = [...groups.keys()].sort((a, b) =>
    by === 'date'
      ? DATE_ORDER.indexOf(a) - DATE_ORDER.indexOf(b)
      : Number(LAST.test(a)) - Number(LAST.test(b)) || a.localeCompare(b),
  );
  const sorted = (name: string): Todo[] =>
    groups.get(name)!.sort((a, b) => {
      if (by === 'order') return a.position - b.position;
      if (by === 'done') return (b.doneAt ?? '').localeCompare(a.doneAt ?? '');
      if (by === 'recording') return (a.startMs ?? 0) - (b.startMs ?? 0);
      return weight(a) - weight(b) || (a.due ?? '9').localeCompare(b.due ?? '9') || a.position - b.position;
    });
  const lines = names.flatMap((heading): Line[] => [
    ...(heading ? [{ heading, count: groups.get(heading)!.length }] : []),
    ...sorted(heading).map((todo) => ({ todo })),
  ]);
  if (asleep.length) {
    lines.push({ heading: 'Postponed', count: asleep.length });
    lines.push(...asleep.sort((a, b) => a.snoozedUntil!.localeCompare(b.snoozedUntil!)).map((todo) => ({ todo })));
  }
  return lines;
}

/** Seconds between places beyond the first and the last. */
const STEP = 1000;
/** Seconds that must lie between two places: far more than numbers of this size can tell apart. */
const MIN_STEP = 1e-4;

/**
 * The places to give when a to-do moves before the one that stands at `to` among the others: its own place only,
 * between its new neighbours. Where there is no room between them (to-dos of one recording are made in the same
 * instant), as few of those around it as it takes are set apart too, their order unchanged.
 */
export function placesAfterMove(todos: readonly Todo[], id: string, to: number): TodoPlaces['places'] {
  const moved = todos.find((t) => t.id === id);
  if (!moved) return [];
  const rest = todos.filter((t) => t.id !== id);
  const at = Math.max(0, Math.min(rest.length, to));
  const order = [...rest.slice(0, at), moved, ...rest.slice(at)];
  for (let [from, until] = [at, at + 1]; ; [from, until] = [Math.max(0, from - 1), until + 1]) {
    const placed = order.slice(from, until);
    const before = order[from - 1]?.position;
    const after = order[until]?.position;
    const step = before === undefined || after === undefined ? STEP : (after - before) / (placed.length + 1);
    if (step < MIN_STEP) continue;
    const start = before ?? (after ?? moved.position) - step * (placed.length + 1);
    return placed.map((todo, i) => ({ id: todo.id, position: start + step * (i + 1) }));
  }
}
