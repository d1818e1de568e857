import type { NoteBody, NoteNode } from '../contract/notes';
import { withSums } from './noteBodySums';
import { linesOfBody, mayHaveSums } from './noteLines';

const text = (words: string): NoteNode => ({ type: 'text', text: words });
const paragraph = (...content: NoteNode[]): NoteNode => ({ type: 'paragraph', content });
const doc = (...content: NoteNode[]): NoteBody => ({ type: 'doc', content });
const RULE: NoteNode = { type: 'horizontalRule' };
const today = new Date(2026, 2, 9);
const written = (body: NoteNode): string =>
  body.type === 'hardBreak'
    ? '/'
    : body.type === 'horizontalRule'
      ? '—'
      : (body.text ?? (body.content ?? []).map(written).join(body.type === 'doc' || /List/.test(body.type) ? '|' : ''));

it('reads lines of paragraphs, of broken lines, lists and cells, and leaves code alone', () => {
  const body = doc(
    paragraph(text('rent = '), text('840')),
    { type: 'bulletList', content: [{ type: 'listItem', content: [paragraph(text('Bread 3'))] }] },
    paragraph(text('one'), { type: 'hardBreak' }, { type: 'mention', attrs: {} }, text(' two')),
    { type: 'codeBlock', content: [text('a = 1')] },
    RULE,
    { type: 'paragraph' },
  );
  expect(linesOfBody(body)).toEqual([
    ...[{ text: 'rent = 840' }, { text: 'Bread 3' }, { text: 'one' }, { text: '\uFFFC two' }],
    ...[{ isRule: true }, { text: '' }],
  ]);
});

it('writes answers, totals and what a curve shows into the note', () => {
  const body = doc(
    paragraph(text('rent = 840')),
    paragraph(text('rent * 12 ='), { type: 'hardBreak' }, text('rent / 0 =')),
    paragraph(text('Bread 3.20')),
    paragraph(text('Rope 12')),
    RULE,
    paragraph(text('y = x^2 - 4')),
  );
  expect(written(withSums(body, { today }))).toBe(
    'rent = 840|rent * 12 = 10,080/rent / 0 = (Nothing can be divided by 0.)|Bread 3.20|Rope 12|—|Total: 15.20|' +
      'y = x^2 - 4|0 at x = −2 and x = 2; lowest at x = 0 (−4)',
  );
  expect(body.content).toHaveLength(6);
});

it('a note without sums is told at once, and stays as it is', () => {
  const body = doc(paragraph(text('Nothing to work out.')), { type: 'paragraph' });
  expect([mayHaveSums(body), mayHaveSums(null), mayHaveSums(doc(RULE))]).toEqual([false, false, true]);
  expect(withSums(body, { today })).toEqual(body);
});
