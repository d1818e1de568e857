import type { Piece } from '@immeld/core/contract/rework';
import { Editor, type JSONContent } from '@tiptap/core';
import { noteAsMarkdown, noteExtensions } from './noteDocument';
import { applyPiece, blocksOf, shiftedBy } from './reworkedText';

const id = '00000000-0000-4000-8000-000000000001';
const paragraph = (...content: JSONContent[]): JSONContent => ({ type: 'paragraph', content });
const text = (words: string, ...marks: string[]): JSONContent => ({
  ...{ type: 'text', text: words },
  ...(marks.length ? { marks: marks.map((type) => ({ type })) } : {}),
});
const moment: JSONContent = { type: 'mention', attrs: { kind: 'recording', id, label: '1:05', startMs: 65_000 } };
const piece = (block: number, ...edits: [number, number, string][]): Piece => ({
  ...{ block, before: '', after: '', reasons: [] },
  edits: edits.map(([from, to, insert]) => ({ from, to, insert })),
});
const open = () =>
  new Editor({
    element: document.createElement('div'),
    extensions: noteExtensions(),
    content: {
      type: 'doc',
      content: [
        paragraph(text('We we need '), text('stakes', 'bold'), text('. '), moment, text(' Fine fine.')),
        { type: 'bulletList', content: [{ type: 'listItem', content: [paragraph(text('Its late.'))] }] },
      ],
    },
  });
const words = (editor: Editor) => noteAsMarkdown(editor.getJSON() as Parameters<typeof noteAsMarkdown>[0]);

describe('text that is worked over', () => {
  it('is read paragraph by paragraph, a link as one sign', () => {
    expect(blocksOf(open().state).map((b) => b.text)).toEqual(['We we need stakes. \uFFFC Fine fine.', 'Its late.']);
  });

  it('is changed where a piece stands; marks and links stay, and all of it is undone', () => {
    const editor = open();
    const before = words(editor);
    const blocks = blocksOf(editor.state);
    expect(applyPiece(editor, blocks, piece(0, [0, 5, 'We'], [21, 30, 'Fine']))).toBe(true);
    expect(words(editor)).toContain(`We need **stakes**. [1:05](/recordings/${id}?at=65000) Fine.`);
    editor.commands.undo();
    expect(words(editor)).toBe(before);
  });

  it('pieces behind one that was taken have moved, and fit', () => {
    const editor = open();
    const pieces = [piece(0, [0, 5, 'We']), piece(0, [21, 30, 'Fine']), piece(1, [0, 3, "It's"])];
    applyPiece(editor, blocksOf(editor.state), pieces[0]!);
    const left = shiftedBy(pieces, pieces[0]!);
    for (const p of left) expect(applyPiece(editor, blocksOf(editor.state), p)).toBe(true);
    expect(words(editor)).toMatch(/^We need .* Fine\.\n\n- It's late\.$/);
  });

  it('is left alone where somebody wrote meanwhile', () => {
    const editor = open();
    const blocks = blocksOf(editor.state);
    editor.commands.insertContentAt(1, 'Now ');
    expect(applyPiece(editor, blocks, piece(0, [0, 5, 'We']))).toBe(false);
    expect(words(editor)).toMatch(/^Now We we need/);
  });
});
