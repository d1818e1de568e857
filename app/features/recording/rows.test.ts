import type { Todo } from '@immeld/core/contract/todos';
import type { Slip } from '@immeld/core/contract/slips';
import { wordAt } from './litWord';
import { manuscriptRows } from './rows';

const passage = (startMs: number, startsParagraph: boolean) => ({
  ...{ startMs, endMs: startMs + 900, speaker: null, startsParagraph },
  words: [{ startMs, endMs: startMs + 400, text: 'word', confidence: 1 }],
});
const todo = (text: string, part: Partial<Todo>): Todo => ({
  ...{ id: text, recordingId: null, recordingTitle: null, text, who: 'me', due: null, project: null, quote: null },
  ...{ noteId: null, startMs: null, state: 'pencil', isDone: false, doneAt: null, priority: null, repeat: null },
  ...{ notes: '', snoozedUntil: null, position: 0, ...part },
});

describe('the manuscript with its margin', () => {
  it('puts each slip beside the paragraph in which it was said', () => {
    const passages = [passage(0, true), passage(1000, false), passage(2000, true)];
    const todos = [
      todo('a', { startMs: 1200 }),
      todo('b', { startMs: 2500 }),
      todo('c', { startMs: 100, state: 'dropped' }),
    ];
    const slip = (text: string, startMs: number, mark: Slip['mark']): Slip => ({
      ...{ id: text, kind: 'mark', mark, startMs, endMs: null, text, hasPicture: false },
      ...{ address: null, file: null, slide: null, words: null, assignee: null, comments: [] },
    });
    const slips = [slip('late', 2100, 'question'), slip('on the list', 2200, 'to-do'), slip('', 90_000, 'to-do')];
    const rows = manuscriptRows({ passages, todos, slips });
    expect(rows.map((r) => [r.passages.length, r.todos.map((t) => t.text)])).toEqual([
      [2, ['a']],
      [1, ['b']],
    ]);
    expect(rows.map((r) => r.slips.map((s) => s.text))).toEqual([[], ['late', '']]);
  });
});

describe('the lit word', () => {
  const words = [100, 500, 900].map((startMs) => ({ startMs, endMs: startMs + 300, text: 'x', confidence: 1 }));
  it.each([
    [0, -1],
    [100, 0],
    [450, 0],
    [500, 1],
    [1199, 2],
    [1600, -1],
  ])('at %d ms', (at, index) => {
    expect(wordAt(words, at, 1600)).toBe(index);
  });
  it('of nothing', () => expect(wordAt([], 5, 10)).toBe(-1));
});
