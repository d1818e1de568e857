import { senseInContext } from '@immeld/core/language/wordSenses';
import { sensesOf } from './wordNet';

const meaning = (word: string, at = 0) => sensesOf(word)[at]?.meaning;

// The glosses of WordNet itself, as its data files have them.
it.each([
  [
    'infiltration',
    'a process in which individuals (or small groups) penetrate an area (especially the military penetration of enemy positions without detection)',
  ],
  ['loam', 'a rich soil consisting of a mixture of sand and clay and decaying organic materials'],
  ['trench', 'a ditch dug as a fortification having a parapet of the excavated earth'],
  ['children', 'a young person of either sex'],
  ['wilting', undefined],
])('%s', (word, expected) => (expected ? expect(meaning(word)).toBe(expected) : expect(meaning(word)).toBeTruthy()));

it('knows words that belong together, other forms, and the first and last lines of its files', () => {
  expect(meaning('water table')).toMatch(/underground/);
  expect(meaning('went')).toBe(meaning('go'));
  expect(meaning('Limes')).toBeTruthy();
  expect(meaning('zymurgy')).toMatch(/fermentation/);
  for (const word of ["'s gravenhage", 'zyrian', 'zoom', 'zonal', 'abaxial'])
    expect([word, meaning(word)]).toEqual([word, expect.any(String)]);
});

it('a word that is not there has no sense, and neither has what only looks like a line of its files', () => {
  for (const word of ['glorp', '', ' ', '1', 'copyright notice', 'n 1', '../index', 'constructor', 'a'.repeat(500)])
    expect([word, sensesOf(word).length]).toEqual([word, expect.any(Number)]);
  expect(sensesOf('glorp')).toEqual([]);
  expect(sensesOf('a'.repeat(500))).toEqual([]);
});

it('has examples and synonyms apart from the meaning', () => {
  const [first] = sensesOf('deep').filter((s) => s.partOfSpeech === 'adjective');
  expect(first).toMatchObject({ meaning: expect.not.stringContaining('"'), synonyms: ['deep'] });
  expect(sensesOf('quick').some((s) => s.examples.length > 0)).toBe(true);
});

it.each([
  ['bank', 'We sat on the bank of the river and watched the slope of the water.', /sloping land/],
  ['bank', 'The bank lends money and takes deposits.', /financial institution/],
  [
    'bark',
    'The bark of the limes splits where the stems and branches are dry.',
    /protective covering of the woody stems/,
  ],
])('%s in its sentence', (word, context, expected) => {
  const senses = sensesOf(word);
  expect(senses[senseInContext(word, senses, context)]!.meaning).toMatch(expected);
});
