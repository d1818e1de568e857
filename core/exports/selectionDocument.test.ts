import { documentBody } from './documentHtml';
import { documentMarkdown } from './documentMarkdown';
import { selectionDocument } from './selectionDocument';
import { documentText } from './documentText';

const one = selectionDocument([{ speaker: 'Ida', text: 'Lime & ash, 3 * 4 < 20.' }]);
const two = selectionDocument([
  { speaker: 'Ida', text: 'Is it clay?' },
  { speaker: null, text: 'Somebody coughs.' },
  { speaker: 'Bram', text: 'It is loam.' },
]);

it('words of one speaker are copied as the words alone', () => {
  expect(documentText(one)).toBe('Lime & ash, 3 * 4 < 20.\n');
  expect(documentBody(one)).toBe('<p dir="auto">Lime &amp; ash, 3 * 4 &lt; 20.</p>');
  expect(documentMarkdown(one)).toBe('Lime & ash, 3 \\* 4 \\< 20.\n');
});

it('words of several have their names, and paragraphs stay paragraphs', () => {
  expect(documentText(two)).toBe('Ida: Is it clay?\n\nSomebody coughs.\n\nBram: It is loam.\n');
  expect(documentMarkdown(two)).toBe('**Ida:** Is it clay?\n\nSomebody coughs.\n\n**Bram:** It is loam.\n');
  expect(documentBody(two).split('\n')).toEqual([
    '<p dir="auto"><span class="lead">Ida: </span>Is it clay?</p>',
    '<p dir="auto">Somebody coughs.</p>',
    '<p dir="auto"><span class="lead">Bram: </span>It is loam.</p>',
  ]);
});

it('nothing selected is nothing', () => {
  expect([documentText(selectionDocument([])), documentBody(selectionDocument([]))]).toEqual(['', '']);
});
