import { isOneEditApart, nearOf, partsOf } from './spelling';
import { stem } from '../language/words';

describe('one slip of the fingers', () => {
  // The four kinds are Damerau's (1964); the words are ours.
  it.each([
    ['trench', 'trenh'],
    ['trench', 'trencch'],
    ['trench', 'trebch'],
    ['trench', 'trnech'],
    ['trench', 'rtench'],
  ])('makes %s of %s', (a, b) => {
    expect(isOneEditApart(a, b)).toBe(true);
    expect(isOneEditApart(b, a)).toBe(true);
  });

  it.each([
    ['trench', 'trench'],
    ['trench', 'french fry'],
    ['trench', 'tren'],
    ['trench', 'trnehc'],
    ['abcd', 'badc'],
  ])('does not make %s of %s', (a, b) => expect(isOneEditApart(a, b)).toBe(false));
});

describe('what a word may have been meant as', () => {
  const words = ['trench', 'drench', 'data', 'base', 'lime'].map((w, i) => [stem(w), 10 - i] as const);
  const vocabulary = {
    has: (word: string) => words.some(([w]) => w === word),
    words: (length: number) => words.filter(([w]) => w.length === length),
  };

  it('is the frequent word first', () => expect(nearOf('rench', vocabulary, stem)).toEqual([['trench'], ['drench']]));
  it('is two words', () => expect(partsOf('database', vocabulary, stem)).toEqual([['data', 'base']]));
  it.each(['trench', 'lim', '2026'])('is nothing for %s', (word) => {
    expect([nearOf(word, vocabulary, stem), partsOf(word, vocabulary, stem)]).toEqual([[], []]);
  });
});
