import { Editor } from '@tiptap/core';
import StarterKit from '@tiptap/starter-kit';
import { inFocus } from './inFocus';

test('a tool gives the caret back at once, so that what is typed next goes where it was', () => {
  const element = document.body.appendChild(document.createElement('div'));
  const tool = document.body.appendChild(document.createElement('button'));
  const editor = new Editor({ element, extensions: [StarterKit], content: '<p>Sand holds little</p>' });
  editor.commands.setTextSelection({ from: 1, to: 5 });
  tool.focus();
  inFocus(editor).toggleBold().run();
  expect(document.activeElement).toBe(editor.view.dom);
  expect(editor.getHTML()).toBe('<p><strong>Sand</strong> holds little</p>');
  editor.destroy();
});
