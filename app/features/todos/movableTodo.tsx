import type { Todo } from '@immeld/core/contract/todos';
import type { ReactNode } from 'react';
import { useChanges } from '../../api/changes';
import { MovableList, MovableRow } from '../../ui/movable';
import { placesAfterMove } from './grouping';
import { TodoRow } from './todoRow';

/** Moves a to-do in the order by hand: before the one that stands at this place. */
function useMoving(todos: readonly Todo[]) {
  const { todoOrder } = useChanges();
  return (id: string, to: number) => todoOrder.mutate({ places: placesAfterMove(todos, id, to) });
}

/** What can be put in order by dragging its handle. */
export function MovableTodos({ todos, children }: { todos: readonly Todo[]; children: ReactNode }) {
  return (
    <MovableList ids={todos.map((t) => t.id)} onMove={useMoving(todos)}>
      {children}
    </MovableList>
  );
}

/** A to-do with a handle: dragged by hand, moved by the arrow keys while the handle has the focus. */
export function MovableTodo({ todo, todos }: { todo: Todo; todos: readonly Todo[] }) {
  return (
    <MovableRow id={todo.id} name={todo.text} ids={todos.map((t) => t.id)} onMove={useMoving(todos)}>
      {(handle) => <TodoRow todo={todo} handle={handle} />}
    </MovableRow>
  );
}
