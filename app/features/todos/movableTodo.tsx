import {
  type DragEndEvent,
  DndContext,
  MouseSensor,
  TouchSensor,
  closestCenter,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import type { Todo } from '@immeld/core/contract/todos';
import { type ReactNode, createElement } from 'react';
import { View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { useChanges } from '../../api/changes';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { placesAfterMove } from './grouping';
import { TodoRow } from './todoRow';

/** Moves a to-do in the order by hand: before the one that stands at this place. */
export function useMoving(todos: readonly Todo[]) {
  const { todoOrder } = useChanges();
  return (id: string, to: number) => todoOrder.mutate({ places: placesAfterMove(todos, id, to) });
}

/** What can be put in order by dragging its handle. */
export function MovableTodos({ todos, children }: { todos: readonly Todo[]; children: ReactNode }) {
  const move = useMoving(todos);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 5 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 8 } }),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    const from = todos.findIndex((t) => t.id === active.id);
    const to = todos.findIndex((t) => t.id === over?.id);
    if (from >= 0 && to >= 0 && from !== to) move(String(active.id), to);
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      {children}
    </DndContext>
  );
}

/** A to-do with a handle: dragged by hand, moved by the arrow keys while the handle has the focus. */
export function MovableTodo({ todo, todos }: { todo: Todo; todos: readonly Todo[] }) {
  const colours = useColours();
  const move = useMoving(todos);
  const drag = useDraggable({ id: todo.id });
  const drop = useDroppable({ id: todo.id });
  const at = todos.findIndex((t) => t.id === todo.id);
  const byKey = (event: { key: string; preventDefault: () => void }) => {
    if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
    event.preventDefault();
    move(todo.id, event.key === 'ArrowUp' ? at - 1 : at + 1);
  };
  const handle = createElement(
    'div',
    { ...drag.listeners, style: { touchAction: 'none', cursor: 'grab' } },
    <Press
      label={`Move ${todo.text}: drag it, or use the arrow keys`}
      {...({ onKeyDown: byKey } as object)}
      style={{ alignItems: 'center' }}
    >
      <Svg width={20} height={20} viewBox="0 0 20 20" aria-hidden>
        <Path d="M4 7h12M4 13h12" stroke={colours.faint} strokeWidth={2} strokeLinecap="round" />
      </Svg>
    </Press>,
  );
  const moved = drag.transform;
  return createElement(
    'div',
    {
      ref: (element: HTMLElement | null) => {
        drag.setNodeRef(element);
        drop.setNodeRef(element);
      },
      style: {
        boxShadow: drag.isDragging ? `0 0 0 1px ${colours.faint}` : 'none',
        position: 'relative',
        zIndex: drag.isDragging ? 2 : 0,
        background: drag.isDragging ? colours.sheet : 'transparent',
        ...(moved ? { transform: `translate(0, ${moved.y}px)` } : {}),
      },
    },
    <View
      style={{
        borderTopWidth: 2,
        borderTopColor: drop.isOver && !drag.isDragging ? colours.petrol : 'transparent',
      }}
    >
      <TodoRow todo={todo} handle={handle} />
    </View>,
  );
}
