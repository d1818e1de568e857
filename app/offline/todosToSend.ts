import type { NewTodo, Todo, TodoChange, TodoPlaces } from '@immeld/core/contract/todos';
import { ApiProblem, UNREACHABLE, call } from '../api/call';
import { LocalStorageMap } from './localStorageMap';

/** What was done to a to-do while the server did not answer. */
type ToSend = {
  /** Of one that the server does not have yet. */
  added?: NewTodo & { id: string };
  change?: TodoChange;
  position?: number;
};
const box = new LocalStorageMap<ToSend>('immeld-todo ');

/** What is kept here for a to-do, one change over the other; false where this browser keeps nothing. */
function keep(id: string, part: ToSend): boolean {
  const before = box.read(id);
  const change = part.change && { change: { ...before?.change, ...part.change } };
  return box.put(id, { ...before, ...part, ...change });
}

/**
 * Has the server do something, or keeps it on this device until the server answers. What is kept already goes first: the
 * later change is the one that stays.
 * @param parts what is to be kept, by the ids of the to-dos
 */
async function nowOrLater(parts: Record<string, ToSend>, now: () => Promise<unknown>): Promise<void> {
  const keepAll = () => Object.entries(parts).every(([id, part]) => keep(id, part));
  if (Object.keys(parts).some((id) => box.read(id)) && keepAll()) return void (await sendTodos());
  try {
    await now();
  } catch (error) {
    if (error !== UNREACHABLE || !keepAll()) throw error;
  }
}

export const addTodo = (added: NewTodo & { id: string }): Promise<void> =>
  nowOrLater({ [added.id]: { added } }, () => call('addTodo', { body: added }));

export const changeTodo = (id: string, change: TodoChange): Promise<void> =>
  nowOrLater({ [id]: { change } }, () => call('changeTodo', { params: { id }, body: change }));

export const orderTodos = ({ places }: TodoPlaces): Promise<void> =>
  nowOrLater(Object.fromEntries(places.map(({ id, position }) => [id, { position }])), () =>
    call('orderTodos', { body: { places } }),
  );

/** A to-do with a change, as it is shown until the server answers; null when it is binned. */
export function changedTodo(todo: Todo, { isBinned, ...change }: TodoChange): Todo | null {
  if (isBinned) return null;
  const known = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined)) as Partial<Todo>;
  const { isDone } = change;
  const done = isDone === undefined ? {} : { doneAt: isDone ? new Date().toISOString() : null };
  return { ...todo, ...known, ...done };
}

/** All to-dos, with those that were added here and what was done to them here and is not sent yet. */
export function withTodosToSend(todos: readonly Todo[]): Todo[] {
  const known = new Set(todos.map((t) => t.id));
  const added = box.ids().flatMap((id) => box.read(id)?.added ?? []);
  return withChangesToSend([...todos, ...added.filter((a) => !known.has(a.id)).map(asTodo)]);
}

/** Some to-dos, with what was done to them here and is not sent yet. */
export function withChangesToSend(todos: readonly Todo[]): Todo[] {
  return todos.flatMap((todo) => {
    const { change, position } = box.read(todo.id) ?? {};
    const changed = change ? changedTodo(todo, change) : todo;
    return changed ? [{ ...changed, position: position ?? changed.position }] : [];
  });
}

const asTodo = ({ id, text, recordingId = null, startMs = null, ...rest }: NewTodo & { id: string }): Todo => ({
  ...{ id, text, recordingId, startMs, recordingTitle: null, noteId: null, quote: null, state: 'ink' as const },
  ...{ who: rest.who ?? null, due: rest.due ?? null, project: rest.project ?? null, notes: rest.notes ?? '' },
  ...{ priority: rest.priority ?? null, repeat: rest.repeat ?? null, isDone: false, doneAt: null, snoozedUntil: null },
  position: Date.now() / 1000,
});

/** How many to-dos wait here to be sent. */
export const unsentTodos = (): number => box.ids().length;

let sending: Promise<number> | null = null;

/** Sends what was kept here, as far as the server answers. Resolves to the number of to-dos that were sent. */
export function sendTodos(): Promise<number> {
  // What has come since the one under way began would be missed.
  if (sending) return sending.then(sendTodos);
  sending = sendAll().finally(() => {
    sending = null;
  });
  return sending;
}

async function sendAll(): Promise<number> {
  let count = 0;
  for (const id of box.ids()) {
    const kept = box.read(id);
    if (!kept) continue;
    try {
      if (kept.added) await call('addTodo', { body: kept.added });
      if (kept.change) await call('changeTodo', { params: { id }, body: kept.change });
      if (kept.position !== undefined)
        await call('orderTodos', { body: { places: [{ id, position: kept.position }] } });
      count++;
    } catch (error) {
      // One that is gone on the server needs nothing any more.
      if (!(error instanceof ApiProblem) || error.status !== 404) continue;
    }
    // What came meanwhile is sent the next time.
    if (JSON.stringify(box.read(id)) === JSON.stringify(kept)) box.drop(id);
  }
  return count;
}
