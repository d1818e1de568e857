import type { Todo } from '@immeld/core/contract/todos';
import { ApiProblem, UNREACHABLE, call } from '../api/call';
import { addTodo, changeTodo, orderTodos, sendTodos, withChangesToSend, withTodosToSend } from './todosToSend';

jest.mock('../api/call', () => ({ ...jest.requireActual('../api/call'), call: jest.fn() }));
const asked = jest.mocked(call);

const todo = (id: string): Todo => ({
  ...{ id, text: id, recordingId: null, recordingTitle: null, noteId: null, who: 'me', due: null, project: null },
  ...{ quote: null, startMs: null, state: 'ink', isDone: false, doneAt: null, priority: null, repeat: null, notes: '' },
  ...{ snoozedUntil: null, position: 1 },
});
const shown = () => withTodosToSend([todo('milk'), todo('ties')]).map((t) => [t.text, t.isDone, t.position > 1]);

beforeEach(() => {
  localStorage.clear();
  asked.mockReset();
  asked.mockResolvedValue({} as never);
});

it('with the server there, nothing stays here', async () => {
  await changeTodo('milk', { isDone: true });
  await addTodo({ id: 'new', text: 'Stakes' });
  expect(asked).toHaveBeenCalledTimes(2);
  expect(shown()).toEqual([
    ['milk', false, false],
    ['ties', false, false],
  ]);
});

it('without it, what was ticked, added and moved is shown, kept, and sent once it answers', async () => {
  asked.mockRejectedValue(UNREACHABLE);
  await changeTodo('milk', { isDone: true });
  await changeTodo('milk', { notes: 'two' });
  await addTodo({ id: 'new', text: 'Stakes' });
  await changeTodo('new', { isDone: true });
  await changeTodo('ties', { isBinned: true });
  await orderTodos({ places: [{ id: 'milk', position: 5 }] });
  expect(shown()).toEqual([
    ['milk', true, true],
    ['Stakes', true, true],
  ]);
  // Beside a recording stand its own to-dos only.
  expect(withChangesToSend([todo('milk')]).map((t) => [t.text, t.isDone])).toEqual([['milk', true]]);
  expect(await sendTodos()).toBe(0);

  asked.mockReset();
  asked.mockImplementation((_, sent) => {
    if ((sent?.params as { id?: string })?.id === 'ties') throw new ApiProblem('Gone.', '', 404);
    return Promise.resolve({} as never);
  });
  expect(await sendTodos()).toBe(2);
  const sent = asked.mock.calls;
  expect(sent).toHaveLength(5);
  expect(sent).toContainEqual(['changeTodo', { params: { id: 'milk' }, body: { isDone: true, notes: 'two' } }]);
  expect(sent.findIndex(([key]) => key === 'addTodo')).toBeLessThan(
    sent.findIndex(([, s]) => (s?.params as { id?: string })?.id === 'new'),
  );
  // One that is gone on the server meanwhile is let go.
  expect(await sendTodos()).toBe(0);
  expect(asked).toHaveBeenCalledTimes(5);
});

it('a later change stays the later one, and a refusal is told', async () => {
  asked.mockRejectedValueOnce(UNREACHABLE);
  await changeTodo('milk', { isDone: true });
  await changeTodo('milk', { isDone: false });
  expect(asked.mock.calls.slice(1)).toEqual([['changeTodo', { params: { id: 'milk' }, body: { isDone: false } }]]);
  asked.mockRejectedValueOnce(new ApiProblem('Write what to do.', '', 400));
  await expect(addTodo({ id: 'new', text: '' })).rejects.toThrow('Write what to do');
  expect(shown()).toHaveLength(2);
});
