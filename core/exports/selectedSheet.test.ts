import { sheetBody } from './sheetHtml';
import { sheetMarkdown } from './sheetMarkdown';
import { selectedSheet } from './selectedSheet';
import { sheetText } from './sheetText';

const one = selectedSheet([{ speaker: 'Ida', text: 'Lime & ash, 3 * 4 < 20.' }]);
const two = selectedSheet([
  { speaker: 'Ida', text: 'Is it clay?' },
  { speaker: null, text: 'Somebody coughs.' },
  { speaker: 'Bram', text: 'It is loam.' },
]);

it('words of one speaker are copied as the words alone', () => {
  expect(sheetText(one)).toBe('Lime & ash, 3 * 4 < 20.\n');
  expect(sheetBody(one)).toBe('<p dir="auto">Lime &amp; ash, 3 * 4 &lt; 20.</p>');
  expect(sheetMarkdown(one)).toBe('Lime & ash, 3 \\* 4 \\< 20.\n');
});

it('words of several have their names, and paragraphs stay paragraphs', () => {
  expect(sheetText(two)).toBe('Ida: Is it clay?\n\nSomebody coughs.\n\nBram: It is loam.\n');
  expect(sheetMarkdown(two)).toBe('**Ida:** Is it clay?\n\nSomebody coughs.\n\n**Bram:** It is loam.\n');
  expect(sheetBody(two).split('\n')).toEqual([
    '<p dir="auto"><span class="lead">Ida: </span>Is it clay?</p>',
    '<p dir="auto">Somebody coughs.</p>',
    '<p dir="auto"><span class="lead">Bram: </span>It is loam.</p>',
  ]);
});

it('nothing selected is nothing', () => {
  expect([sheetText(selectedSheet([])), sheetBody(selectedSheet([]))]).toEqual(['', '']);
});
