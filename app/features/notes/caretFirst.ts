import type { EditorView } from '@tiptap/pm/view';

/**
 * Before a key is worked on, has the editor see where the caret is. It hears of a moved caret from an event that on a busy
 * device comes after the next key: End and Enter would then put a new line in the place of what was selected before End.
 *
 * The editor's own answer to that event is used, which its types do not show.
 */
export function caretFirst(view: EditorView): false {
  (view as unknown as { domObserver: { onSelectionChange: () => void } }).domObserver.onSelectionChange();
  return false;
}
