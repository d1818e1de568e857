import type { Todo } from '@immeld/core/contract/todos';
import { type Line, linesOf, placeBetween } from './grouping';

const TODAY = '2026-03-09';
let made = 0;
const todo = (text: string, part: Partial<Todo> = {}): Todo => ({
  ...{
    id: `id-${made}`,
    recordingId: null,
    noteId: null,
    recordingTitle: null,
    text,
    who: 'me',
    due: null,
    project: null,
  },
  ...{ quote: null, startMs: null, state: 'ink', isDone: false, doneAt: null, priority: null, repeat: null, notes: '' },
  ...{ snoozedUntil: null, position: made++ },
  ...part,
});
const shown = (lines: Line[]) => lines.map((l) => ('heading' in l ? `# ${l.heading} ${l.count}` : l.todo.text));

it('by project: what is urgent first, then by date; those without a project last', () => {
  const all = [
    ...[
      todo('Milk'),
      todo('Later', { project: 'Quay', due: '2026-03-20' }),
      todo('Soon', { project: 'Quay', due: TODAY }),
    ],
    ...[todo('Urgent', { project: 'Quay', priority: 'high' }), todo('Any time', { project: 'Quay', priority: 'low' })],
  ];
  expect(shown(linesOf(all, 'project', 'all', TODAY))).toEqual([
    ...['# Quay 4', 'Urgent', 'Soon', 'Later', 'Any time', '# No project 1', 'Milk'],
  ]);
});

it('by date: late, today, tomorrow, the next days, later, without', () => {
  const days = ['2026-03-01', TODAY, '2026-03-10', '2026-03-14', '2026-04-01', null];
  const all = days.map((due) => todo(String(due), { due })).reverse();
  expect(shown(linesOf(all, 'date', 'all', TODAY)).filter((l) => l.startsWith('#'))).toEqual([
    ...['# Late 1', '# Today 1', '# Tomorrow 1', '# In the next days 1', '# Later 1', '# Without a date 1'],
  ]);
});

it('mine and nobody’s stand together, others’ apart; what is put off waits at the end', () => {
  const all = [
    ...[todo('Mine'), todo('Nobody', { who: null }), todo('Bram', { who: 'Bram' })],
    todo('Asleep', { snoozedUntil: '2026-03-12' }),
    todo('Awake', { snoozedUntil: TODAY }),
  ];
  expect(shown(linesOf(all, 'order', 'mine', TODAY))).toEqual(['Mine', 'Nobody', 'Awake', '# Put off 1', 'Asleep']);
  expect(shown(linesOf(all, 'order', 'others', TODAY))).toEqual(['Bram']);
});

it('by person and by recording', () => {
  const all = [todo('Bram', { who: 'Bram' }), todo('Me'), todo('Said', { recordingTitle: 'Walk', who: null })];
  expect(shown(linesOf(all, 'who', 'all', TODAY))).toEqual([
    ...['# For Bram 1', 'Bram', '# Mine 1', 'Me', '# Nobody yet 1', 'Said'],
  ]);
  expect(shown(linesOf(all, 'recording', 'all', TODAY))).toEqual([
    '# Walk 1',
    'Said',
    '# Written by hand 2',
    'Bram',
    'Me',
  ]);
});

it('moves to a place between two others, or beyond the first and last', () => {
  const [a, b] = [todo('a', { position: 10 }), todo('b', { position: 20 })];
  expect(placeBetween(a, b)).toBe(15);
  expect(placeBetween(undefined, a)).toBeLessThan(10);
  expect(placeBetween(b, undefined)).toBeGreaterThan(20);
});
