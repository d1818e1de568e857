import { commonMisspellings } from './dictionaries';

test('words that are often misspelled are known, where they can be one word alone', () => {
  const often = commonMisspellings();
  expect(['recieve', 'seperate', 'untill', 'begining'].map((w) => often.get(w))).toEqual([
    ...['receive', 'separate', 'until', 'beginning'],
  ]);
  for (const word of ['alot', 'wich', 'lime', '', '"', 'a'.repeat(1000)]) expect(often.get(word)).toBeUndefined();
});
