import { Editor } from '@tiptap/core';
import StarterKit from '@tiptap/starter-kit';
import { caretFirst } from './caretFirst';

const TEXT = 'Sand holds little';
/** An editor in which all words are selected, and the caret was then moved without the editor having heard of it. */
function open(caret: number | null) {
  const element = document.body.appendChild(document.createElement('div'));
  const editor = new Editor({
    ...{ element, extensions: [StarterKit], content: `<p>${TEXT}</p>` },
    // There is no layout here to scroll in.
    editorProps: { handleDOMEvents: { keydown: caretFirst }, handleScrollToSelection: () => true },
  });
  editor.view.focus();
  editor.commands.setTextSelection({ from: 1, to: 1 + TEXT.length });
  const words = editor.view.dom.querySelector('p')!.firstChild!;
  if (caret === null) document.getSelection()!.setBaseAndExtent(words, 0, words, TEXT.length);
  else document.getSelection()!.collapse(words, caret);
  const press = (key: string) =>
    editor.view.dom.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
  return { editor, press };
}

describe('a key that comes before the editor knows of a moved caret', () => {
  it.each([
    ['at the end', TEXT.length, `<p>${TEXT}</p><p></p>`],
    ['in the middle', 'Sand'.length, '<p>Sand</p><p> holds little</p>'],
  ])('%s, parts the text there and takes nothing away', (_, caret, html) => {
    const { editor, press } = open(caret);
    press('Enter');
    expect(editor.getHTML()).toBe(html);
    editor.destroy();
  });

  it('takes the place of what is still selected', () => {
    const { editor, press } = open(null);
    press('Enter');
    expect(editor.getText().trim()).toBe('');
    editor.destroy();
  });
});
