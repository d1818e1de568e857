import fs from 'node:fs';
import path from 'node:path';
import nspell from 'nspell';
import type { Piece } from '../contract/rework';
import { applyEdits, editsBetween, sentencesAt } from './pieces';
import { Speller, isOneStepFrom } from './proofread';
import { rework } from './rework';

const dictionary = (name: string) => {
  const read = (file: string) => fs.readFileSync(path.join(__dirname, '../../node_modules', name, file), 'utf8');
  return nspell(read('index.aff'), read('index.dic'));
};
const spellings = [dictionary('dictionary-en-gb'), dictionary('dictionary-en')];
const OFTEN = new Map([
  ['recieve', 'receive'],
  ['adress', 'address'],
  ['untill', 'until'],
]);
const speller = () => new Speller(spellings, new Set(['okwuosa', 'immeld']), OFTEN);
const applied = (text: string, pieces: readonly Piece[]) =>
  applyEdits(
    text,
    pieces.flatMap((p) => p.edits),
  );
const result = async (text: string, way: Parameters<typeof rework>[1]) =>
  applied(text, await rework([text], way, speller()));

describe('sentences where they stand', () => {
  it('are found with their offsets, abbreviations and all', () => {
    const text = 'Dig e.g. on Monday. “Then plant!” Who waters?  No stop';
    const found = sentencesAt(text);
    expect(found.map((s) => s.text)).toEqual(['Dig e.g. on Monday.', '“Then plant!”', 'Who waters?', 'No stop']);
    for (const s of found) expect(text.slice(s.from, s.to)).toBe(s.text);
    expect(sentencesAt('   ')).toEqual([]);
  });

  it('differences make one text of the other', () => {
    for (const [a, b] of [
      ['It is really very late.', 'It is late.'],
      ['', 'New.'],
      ['Gone.', ''],
      ['one two three', 'two four three one'],
    ] as const) {
      expect(applyEdits(`>>${a}`, editsBetween(a, b, 2))).toBe(`>>${b}`);
    }
  });
});

describe('proofreading', () => {
  it.each([
    ['We we need stakes.', 'We need stakes.'],
    ['It takes a hour and an unit.', 'It takes an hour and a unit.'],
    ['I dont know.', "I don't know."],
    ['We could of waited.', 'We could have waited.'],
    ['I wonder weather it rains.', 'I wonder whether it rains.'],
    ['The pit is bigger then that.', 'The pit is bigger than that.'],
    ['Its going well.', "It's going well."],
    ["The tree and it's roots.", 'The tree and its roots.'],
    ['Please recieve the letter.', 'Please receive the letter.'],
    ['Keep them seperate.', 'Keep them separate.'],
    ['They came. then they left.', 'They came. Then they left.'],
    ['I sent it to the wrog adress untill noon.', 'I sent it to the wrog address until noon.'],
    ['Alot of it, wich nobody saw.', 'Alot of it, wich nobody saw.'],
    ['The gardning is done.', 'The gardening is done.'],
    ['The wilters and the blorp.', 'The wilters and the blorp.'],
    ['Colour and color are both fine.', 'Colour and color are both fine.'],
    ['Tamsin Okwuosa asked immeld.', 'Tamsin Okwuosa asked immeld.'],
    ['It costs 400 m² or 3rd.', 'It costs 400 m² or 3rd.'],
  ])('%s', async (before, after) => expect(await result(before, 'proofread')).toBe(after));

  it('gives a reason for each, and each can be taken alone', async () => {
    const text = 'We we need a apple, and I dont know why.';
    const pieces = await rework([text], 'proofread', speller());
    expect(pieces).toHaveLength(3);
    for (const piece of pieces) {
      expect(piece.reasons[0]).toMatch(/\w/);
      expect(piece.before).not.toBe(piece.after);
    }
    expect(applied(text, pieces.slice(1, 2))).toBe('We we need an apple, and I dont know why.');
  });

  it('of empty, odd or very bad text does no harm', async () => {
    for (const odd of ['', '   ', '12 34 56', '???', 'ä ö ü ß', 'xqzt '.repeat(300)]) {
      expect(typeof (await result(odd, 'proofread'))).toBe('string');
    }
  });
});

describe('other ways', () => {
  it.each([
    ['shorter', 'So, um, we really need, we need stakes (the long ones).', 'We need stakes.'],
    ['shorter', 'Summary', 'Summary'],
    ['shorter', 'two stakes and a tie', 'two stakes and a tie'],
    ['shorter', 'Actually the long stakes', 'The long stakes'],
    ['shorter', 'The trench, which the town digs, is open.', 'The trench is open.'],
    ['plainer', 'In the event that it rains, it will be utilised.', 'If it rains, it will be used.'],
    ['plainer', 'It stands in close proximity to the cable.', 'It stands near the cable.'],
    [
      'plainer',
      'In addition to the address, the effect is minimum.',
      'In addition to the address, the effect is minimum.',
    ],
    [
      'plainer',
      'In the event of rain we stay, in lieu of digging.',
      'In the event of rain we stay, in lieu of digging.',
    ],
    ['plainer', 'We utilize the tool prior to Friday.', 'We use the tool before Friday.'],
    ['formal', "It's late and we can't wait.", 'It is late and we cannot wait.'],
    ['formal', 'Thanks. The kids come, let me know.', 'Thank you. The children come, inform me.'],
    ['friendly', 'We will contact you. It is late today.', "We'll get in touch with you. It's late today."],
    ['formal', 'The limes are planted.', 'The limes are planted.'],
  ] as const)('%s: %s', async (way, before, after) => expect(await result(before, way)).toBe(after));

  it('never touch numbers, names and negations', async () => {
    const text = "Ottoline Vantongeren doesn't pay 11,400 before the twelfth of May.";
    for (const way of ['shorter', 'plainer', 'formal', 'friendly'] as const) {
      const after = await result(text, way);
      for (const kept of ['Ottoline Vantongeren', '11,400', 'twelfth of May']) expect(after).toContain(kept);
      expect(after).toMatch(/doesn't|does not/);
    }
  });

  it('say where each proposal stands among several paragraphs', async () => {
    const pieces = await rework(['Fine.', "It's late."], 'formal', speller());
    expect(pieces).toMatchObject([{ block: 1, before: "It's late.", after: 'It is late.' }]);
  });
});

test.each([
  ['gardning', 'gardening', true],
  ['recieve', 'receive', true],
  ['wilter', 'filter', true],
  ['plants', 'plant', true],
  ['plant', 'plants', true],
  ['plant', 'plant', false],
  ['plant', 'planted', false],
  ['abcd', 'badc', false],
])('from %s to %s is one step: %s', (a, b, is) => expect(isOneStepFrom(a, b)).toBe(is));
