import {
  type DragEndEvent,
  DndContext,
  MouseSensor,
  TouchSensor,
  pointerWithin,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import type { Folder } from '@immeld/core/contract/shelves';
import { useRouter } from 'expo-router';
import { type CSSProperties, type ReactNode, createElement } from 'react';
import { View } from 'react-native';
import { useChanges } from '../../api/changes';
import { useShowDone } from '../../ui/doing';
import { Failure } from '../../ui/notice';
import { Press } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { type PlacedFolder, announcementsOf, changeByDrop, inOrder } from './folderTree';

const STEP = 22;
/** A press becomes a drag after this way or time, so that a tap still opens the folder. */
const DRAG_AFTER = { mouse: { distance: 8 }, touch: { delay: 350, tolerance: 8 } };

/** Where something is dropped: into a folder, or before one of its neighbours. */
const into = (id: string) => `into ${id}`;
const before = (id: string) => `before ${id}`;

/** The folders as shelves, one inside the other; dragged to another place, or moved from their own page by keyboard. */
export function MovableFolders({ folders }: { folders: readonly Folder[] }) {
  const { folder: change } = useChanges();
  const showDone = useShowDone();
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: DRAG_AFTER.mouse }),
    useSensor(TouchSensor, { activationConstraint: DRAG_AFTER.touch }),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    const moved = folders.find((f) => f.id === active.id);
    const part = moved && over ? changeByDrop(moved, String(over.id), folders) : null;
    if (moved && part) change.mutate({ id: moved.id, change: part }, { onSuccess: showDone });
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragEnd={drop}
      accessibility={{ announcements: announcementsOf(folders) }}
    >
      {inOrder(folders).map((placed) => (
        <FolderLine key={placed.folder.id} {...placed} />
      ))}
      {change.error && <Failure error={change.error} />}
    </DndContext>
  );
}

/** A part of the page as the browser knows it, which the drag package needs. */
const box = (
  props: { ref?: (element: HTMLElement | null) => void; style: CSSProperties } & object,
  children?: ReactNode,
) => createElement('div', props, children);

function FolderLine({ folder, depth, total }: PlacedFolder) {
  const colours = useColours();
  const router = useRouter();
  const drag = useDraggable({ id: folder.id });
  const inside = useDroppable({ id: into(folder.id) });
  const above = useDroppable({ id: before(folder.id) });
  const moved = drag.transform;
  const line = (
    <Press
      role="link"
      label={`${folder.name}, ${total} ${total === 1 ? 'item' : 'items'}`}
      onPress={() => router.push({ pathname: '/shelves/[id]', params: { id: folder.id } })}
      style={{
        ...{ flexDirection: 'row', alignItems: 'center', justifyContent: 'flex-start', gap: 12, minHeight: 56 },
        ...{ marginLeft: depth * STEP, borderBottomWidth: 3, borderBottomColor: colours[folder.tint] },
        backgroundColor: inside.isOver ? colours.lit : undefined,
      }}
    >
      <Type size="body" face="text" style={{ flex: 1 }} numberOfLines={1}>
        {folder.name}
      </Type>
      <Type tone="faint">{total}</Type>
    </Press>
  );
  return (
    <View style={{ zIndex: drag.isDragging ? 2 : 0 }}>
      {box({
        ref: above.setNodeRef,
        style: { height: 8, marginLeft: depth * STEP, background: above.isOver ? colours.petrol : 'transparent' },
      })}
      {box(
        {
          ref: (element) => {
            drag.setNodeRef(element);
            inside.setNodeRef(element);
          },
          ...drag.listeners,
          style: {
            opacity: drag.isDragging ? 0.7 : 1,
            touchAction: 'manipulation',
            ...(moved ? { transform: `translate(${moved.x}px, ${moved.y}px)` } : {}),
          },
        },
        line,
      )}
    </View>
  );
}
