import type { NoteBody, NoteNode } from '@immeld/core/contract/notes';
import { TaskItem, TaskList } from '@tiptap/extension-list';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { v4 } from 'uuid';

export { TaskList };

/** A check box in a note is a to-do: of its recording if it came from one, else of the note. */
export const TodoItem = TaskItem.extend({
  addAttributes() {
    return {
      ...this.parent?.(),
      // A box that a new line makes is another to-do.
      todoId: { default: null, rendered: false, keepOnSplit: false },
    };
  },
  addProseMirrorPlugins() {
    return [
      ...(this.parent?.() ?? []),
      new Plugin({
        key: new PluginKey('todoIds'),
        appendTransaction: (transactions, _before, { doc, tr }) => {
          if (!transactions.some((t) => t.docChanged)) return null;
          const seen = new Set<string>();
          doc.descendants((node, at) => {
            if (node.type.name !== 'taskItem') return;
            const id = node.attrs['todoId'] as string | null;
            // Copied, it is a to-do of its own.
            if (id === null || seen.has(id)) tr.setNodeAttribute(at, 'todoId', v4());
            else seen.add(id);
          });
          return tr.docChanged ? tr : null;
        },
      }),
    ];
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
