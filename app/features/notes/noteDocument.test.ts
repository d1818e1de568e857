import type { NoteBody, NoteNode } from '@immeld/core/contract/notes';
import { Editor } from '@tiptap/core';
import { markdownAsNote, noteAsMarkdown, noteExtensions } from './noteDocument';

const id = '00000000-0000-4000-8000-000000000001';
const text = (words: string, ...marks: string[]): NoteNode => ({
  ...{ type: 'text', text: words },
  ...(marks.length ? { marks: marks.map((type) => ({ type })) } : {}),
});
const paragraph = (...content: NoteNode[]): NoteNode => ({ type: 'paragraph', content });
const item = (words: string): NoteNode => ({ type: 'listItem', content: [paragraph(text(words))] });
const cell = (type: string, words: string): NoteNode => ({ type, content: [paragraph(text(words))] });
const moment: NoteNode = { type: 'mention', attrs: { kind: 'recording', id, label: '1:05', startMs: 65_000 } };
const doc = (...content: NoteNode[]): NoteBody => ({ type: 'doc', content });

describe('a note as Markdown', () => {
  const whole = doc(
    { type: 'heading', attrs: { level: 2, isFolded: true }, content: [text('Decisions')] },
    paragraph(text('We take '), text('two', 'bold'), text(' metres of '), text('soil', 'italic'), text('. '), moment),
    { type: 'bulletList', content: [item('limes'), item('stakes')] },
    { type: 'orderedList', attrs: { start: 1 }, content: [item('dig'), item('plant')] },
    {
      type: 'taskList',
      content: [
        { type: 'taskItem', attrs: { checked: true }, content: [paragraph(text('Order ties'))] },
        { type: 'taskItem', attrs: { checked: false }, content: [paragraph(text('Water'))] },
      ],
    },
    { type: 'blockquote', content: [paragraph(text('Roots need air.'))] },
    {
      type: 'table',
      content: [
        { type: 'tableRow', content: [cell('tableHeader', 'Who'), cell('tableHeader', 'What')] },
        { type: 'tableRow', content: [cell('tableCell', 'Bram'), cell('tableCell', 'Roots')] },
      ],
    },
    { type: 'image', attrs: { src: `/api/note-pictures/${id}`, alt: 'A pit' } },
  );

  it('is what people know as Markdown', () => {
    const lines = noteAsMarkdown(whole).split('\n');
    expect(lines).toEqual(
      expect.arrayContaining([
        '## Decisions',
        `We take **two** metres of *soil*. [1:05](/recordings/${id}?at=65000)`,
        '- limes',
        '1. dig',
        '- [x] Order ties',
        '- [ ] Water',
        '> Roots need air.',
        `![A pit](/api/note-pictures/${id})`,
      ]),
    );
    expect(lines.some((l) => /^\|\s*Bram\s*\|\s*Roots\s*\|$/.test(l))).toBe(true);
  });

  it('comes back without losing anything that Markdown holds', () => {
    const once = noteAsMarkdown(whole);
    const back = markdownAsNote(once);
    expect(noteAsMarkdown(back)).toBe(once);
    expect(JSON.stringify(back)).toContain('"startMs":65000');
    expect(back.content!.map((n) => n.type)).toEqual(whole.content!.map((n) => n.type));
  });

  it('of the examples of the specification is the same document when it comes back', () => {
    // CommonMark 0.31.2, examples 62, 328 and 350 in the wording here, and the task list of GFM 0.29.
    for (const source of ['# foo\n\n## foo', '`foo`', '*foo bar*', '- [ ] foo\n- [x] bar', '> bar\n> baz']) {
      const once = markdownAsNote(source);
      expect(markdownAsNote(noteAsMarkdown(once))).toEqual(once);
    }
  });

  it('keeps words in colour, without their colour', () => {
    const body = doc(paragraph({ ...text('Danger'), marks: [{ type: 'meaning', attrs: { kind: 'question' } }] }));
    expect(noteAsMarkdown(body)).toBe('Danger');
  });

  it('of bad or odd text is a note all the same', () => {
    for (const odd of ['', '   ', '|||', '```', '[[', '<script>alert(1)</script>', '#'.repeat(50)]) {
      expect(markdownAsNote(odd).type).toBe('doc');
    }
    expect(JSON.stringify(markdownAsNote('<script>alert(1)</script>'))).not.toContain('"script"');
  });
});

describe('check boxes', () => {
  const ids = (editor: Editor) => {
    const found: unknown[] = [];
    editor.state.doc.descendants((node) => void (node.type.name === 'taskItem' && found.push(node.attrs['todoId'])));
    return found;
  };

  it('have an id each, also those that a new line or a copy makes', () => {
    const editor = new Editor({ element: document.createElement('div'), extensions: noteExtensions() });
    editor.chain().focus().toggleTaskList().insertContent('Order ties').run();
    editor.chain().splitListItem('taskItem').insertContent('Buy gloves').run();
    const [first, second] = ids(editor);
    expect(first).toMatch(/^[0-9a-f-]{36}$/);
    expect(second).toMatch(/^[0-9a-f-]{36}$/);
    expect(first).not.toBe(second);
    const { content } = editor.state.doc;
    editor.commands.insertContentAt(content.size, editor.getJSON().content!);
    expect(new Set(ids(editor)).size).toBe(4);
    expect(ids(editor).slice(0, 2)).toEqual([first, second]);
  });
});
