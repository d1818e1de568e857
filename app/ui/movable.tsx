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
import { type ReactNode, createElement } from 'react';
import { View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { Press } from './press';
import { useColours } from './theme';

/** Moves the row of this id to a place in the list, counted from 0. A place outside the list is its nearest end. */
export type Move = (id: string, to: number) => void;

/** Rows that are put in order by dragging their handles. @param ids of all rows, in their order */
export function MovableList({ ids, onMove, children }: { ids: readonly string[]; onMove: Move; children: ReactNode }) {
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 5 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 8 } }),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    const from = ids.indexOf(String(active.id));
    const to = ids.indexOf(String(over?.id));
    if (from >= 0 && to >= 0 && from !== to) onMove(String(active.id), to);
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      {children}
    </DndContext>
  );
}

type RowProps = {
  id: string;
  /** What the row is called where its handle is described. */
  name: string;
  ids: readonly string[];
  onMove: Move;
  children: (handle: ReactNode) => ReactNode;
};

/** A row with a handle: dragged by hand, moved by the arrow keys while the handle has the focus. */
export function MovableRow({ id, name, ids, onMove, children }: RowProps) {
  const colours = useColours();
  const drag = useDraggable({ id });
  const drop = useDroppable({ id });
  const byKey = (event: { key: string; preventDefault: () => void }) => {
    if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
    event.preventDefault();
    onMove(id, ids.indexOf(id) + (event.key === 'ArrowUp' ? -1 : 1));
  };
  const handle = createElement(
    'div',
    { ...drag.listeners, style: { touchAction: 'none', cursor: 'grab' } },
    <Press
      label={`Move ${name}: drag it, or use the arrow keys`}
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
      {children(handle)}
    </View>,
  );
}
