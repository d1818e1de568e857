import type { NoteBody } from '@immeld/core/contract/notes';
import { linksOfNote, textOfNote, withTitles } from './noteText';

const text = (words: string) => ({ type: 'text', text: words });
const link = (id: string, label: string) => ({ type: 'mention', attrs: { kind: 'recording', id, label } });
const item = (words: string) => ({ type: 'listItem', content: [{ type: 'paragraph', content: [text(words)] }] });
const body: NoteBody = {
  type: 'doc',
  content: [
    { type: 'heading', attrs: { level: 2 }, content: [text('Tools')] },
    {
      type: 'paragraph',
      content: [text('See '), link('a', 'The walk'), text('.'), { type: 'hardBreak' }, text('Next line')],
    },
    { type: 'bulletList', content: [item('a spade'), item('a rake')] },
    { type: 'blockquote', content: [{ type: 'paragraph', content: [link('a', 'The walk'), link('b', 'The lock')] }] },
  ],
};

it('reads a note line by line, with the titles of its links', () => {
  expect(textOfNote(body).split('\n')).toEqual([
    'Tools',
    'See The walk.',
    'Next line',
    'a spade',
    'a rake',
    'The walkThe lock',
  ]);
  expect(textOfNote(null)).toBe('');
});

it('knows each target once', () => {
  expect(linksOfNote(body).map((l) => l.id)).toEqual(['a', 'b']);
});

it('shows links by the titles of now, and leaves those that are gone as they were', () => {
  const now = withTitles(body, new Map([['a', 'By the lock']]));
  expect(textOfNote(now)).toContain('See By the lock.');
  expect(textOfNote(now)).toContain('The lock');
  expect(textOfNote(body)).toContain('See The walk.');
});
