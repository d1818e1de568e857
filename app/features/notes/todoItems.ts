import type { NoteBody, NoteNode } from '@immeld/core/contract/notes';
import { TaskItem, TaskList } from '@tiptap/extension-list';

export { TaskList };

/** A check box in a note; one that came from a recording is its to-do and is ticked with it. */
export const TodoItem = TaskItem.extend({
  addAttributes() {
    return { ...this.parent?.(), todoId: { default: null, rendered: false } };
  },
});

/** Which to-dos are ticked in a note. */
export function ticksIn(body: NoteBody | null): Map<string, boolean> {
  const ticks = new Map<string, boolean>();
  const walk = (node: NoteNode): void => {
    const id = node.type === 'taskItem' ? node.attrs?.['todoId'] : null;
    if (typeof id === 'string') ticks.set(id, node.attrs?.['checked'] === true);
    node.content?.forEach(walk);
  };
  if (body) walk(body);
  return ticks;
}
