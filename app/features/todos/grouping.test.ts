import type { Todo } from '@immeld/core/contract/todos';
import { type Line, linesOf, placesAfterMove } from './grouping';

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
    ...['# Overdue 1', '# Today 1', '# Tomorrow 1', '# Next 7 days 1', '# Later 1', '# No date 1'],
  ]);
});

it('mine and nobody’s stand together, others’ apart; what is put off waits at the end', () => {
  const all = [
    ...[todo('Mine'), todo('Nobody', { who: null }), todo('Bram', { who: 'Bram' })],
    todo('Asleep', { snoozedUntil: '2026-03-12' }),
    todo('Awake', { snoozedUntil: TODAY }),
  ];
  expect(shown(linesOf(all, 'order', 'mine', TODAY))).toEqual(['Mine', 'Nobody', 'Awake', '# Postponed 1', 'Asleep']);
  expect(shown(linesOf(all, 'order', 'others', TODAY))).toEqual(['Bram']);
});

it('by person and by recording', () => {
  const all = [todo('Bram', { who: 'Bram' }), todo('Me'), todo('Said', { recordingTitle: 'Walk', who: null })];
  expect(shown(linesOf(all, 'who', 'all', TODAY))).toEqual([
    ...['# For Bram 1', 'Bram', '# Mine 1', 'Me', '# Unassigned 1', 'Said'],
  ]);
  expect(shown(linesOf(all, 'recording', 'all', TODAY))).toEqual([
    '# Walk 1',
    'Said',
    '# Not from a recording 2',
    'Bram',
    'Me',
  ]);
});

describe('moving by hand', () => {
  /** The texts in their order after a move, and how many were given a new place. */
  const moved = (todos: Todo[], text: string, to: number): [string[], number] => {
    const places = placesAfterMove(todos, todos.find((t) => t.text === text)!.id, to);
    const placed = todos.map((t) => ({ ...t, position: places.find((p) => p.id === t.id)?.position ?? t.position }));
    return [shown(linesOf(placed, 'order', 'all', TODAY)), places.length];
  };
  const at = (...positions: number[]) => positions.map((position, i) => todo('abcdefgh'[i]!, { position }));

  it('goes between two others, or beyond the first and last, and alone', () => {
    expect(moved(at(10, 20, 30), 'c', 1)).toEqual([['a', 'c', 'b'], 1]);
    expect(moved(at(10, 20, 30), 'c', 0)).toEqual([['c', 'a', 'b'], 1]);
    expect(moved(at(10, 20, 30), 'a', 2)).toEqual([['b', 'c', 'a'], 1]);
    expect(moved(at(10, 20, 30), 'a', 99)).toEqual([['b', 'c', 'a'], 1]);
    expect(moved(at(10), 'a', 0)).toEqual([['a'], 1]);
  });

  it('where all were made in one instant, as with one recording, every step of one place shows', () => {
    const SECOND = 1_795_796_543.395;
    const same = () => at(1, SECOND, SECOND, SECOND, SECOND, 2e9);
    expect(moved(same(), 'c', 1)[0]).toEqual(['a', 'c', 'b', 'd', 'e', 'f']);
    expect(moved(same(), 'c', 3)[0]).toEqual(['a', 'b', 'd', 'c', 'e', 'f']);
    expect(moved(same(), 'e', 3)[0]).toEqual(['a', 'b', 'c', 'e', 'd', 'f']);
    expect(moved(at(SECOND, SECOND, SECOND), 'c', 1)[0]).toEqual(['a', 'c', 'b']);
  });

  it('moves any of any to any place, and sets apart only those around it', () => {
    for (const positions of [
      [0, 0, 0, 0, 0],
      [0, 1, 1, 1.00001, 1.00002, 2],
      [-5e8, 3, 3, 3, 1e9, 1e9],
      [1, 1, 2, 2, 3, 3],
    ]) {
      const todos = at(...positions);
      for (const { text } of todos) {
        for (let to = 0; to < todos.length; to++) {
          const names = todos.flatMap((t) => (t.text === text ? [] : t.text));
          names.splice(to, 0, text);
          expect(moved(todos, text, to)[0]).toEqual(names);
        }
      }
    }
    const crowd = [...Array(500).keys()].map((i) => todo(`n${i}`, { position: Math.floor(i / 4) }));
    expect(moved(crowd, 'n499', 201)[1]).toBeLessThan(10);
  });

  it('goes on between the same two for ever', () => {
    let todos = at(1, 1.001, 5, 6);
    for (let i = 0; i < 200; i++) {
      const places = placesAfterMove(todos, todos[3]!.id, 1);
      todos = todos.map((t) => ({ ...t, position: places.find((p) => p.id === t.id)?.position ?? t.position }));
      const before = todos.map((t) => t.text);
      todos = linesOf(todos, 'order', 'all', TODAY).flatMap((l) => ('todo' in l ? [l.todo] : []));
      expect(todos.map((t) => t.text)).toEqual([before[0], before[3], before[1], before[2]]);
    }
  });
});
