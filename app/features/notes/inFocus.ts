import type { ChainedCommands, Editor } from '@tiptap/core';

/**
 * Commands for an editor that has the caret again at once. The editor's own `focus` waits for the next frame: what is pressed or
 * typed until then, a long time on a busy phone, would go to what was selected before.
 */
export function inFocus(editor: Editor): ChainedCommands {
  editor.view.focus();
  return editor.chain();
}
