import { isSameText, isUnmarked, placesForMark } from './punctuation';
import { Tokenizer } from './tokenizer';

const words = (text: string) => text.split(' ');

describe('a text without marks', () => {
  it.each([
    ['walking along the quay now it is late', true],
    ['Walking along the quay now, it is late', false],
    ['Walking along the quay now it is late.', false],
    ['one two three four five', false],
    ['one two three four five six', true],
  ])('%s: %s', (text, is) => expect(isUnmarked(words(text))).toBe(is));
});

describe('the same text', () => {
  it.each([
    ['it fills the hollows and then it runs', 'It fills the hollows. And then it runs.', true],
    ['it fills the hollows and then it', 'It fills the hollows, and then.', true],
    ['it fills the hollow and then', 'It fills the hollows. And then', true],
    ['it fills the hollow and then', 'It fill the hollows. And then', false],
    ['a little bit of', 'A little bit of this. And of that.', false],
    ['', 'Something', true],
  ])('%s · %s: %s', (a, b, is) => expect(isSameText(words(a), words(b))).toBe(is));
});

describe('places for a mark', () => {
  const PIECES = ['<unk>', '<s>', '</s>', '▁it', '▁runs', '▁off', 's', '.', ',', '?'];
  const tokenizer = new Tokenizer(PIECES);
  const [IT, RUNS, OFF, S, DOT, COMMA] = [3, 4, 5, 6, 7, 8];
  /** Of the row after so many tokens, how likely which token is; the rest goes to the end. */
  const logits = (rows: number, likely: Record<number, Record<number, number>>) => {
    const all = new Float32Array(rows * PIECES.length).fill(-30);
    for (let row = 0; row < rows; row++) {
      const here = likely[row] ?? {};
      const rest = 1 - Object.values(here).reduce((a, b) => a + b, 0);
      all[row * PIECES.length + 2] = Math.log(rest);
      for (const [token, p] of Object.entries(here)) all[row * PIECES.length + Number(token)] = Math.log(p);
    }
    return all;
  };
  const find = (tokens: number[], likely: Record<number, Record<number, number>>) =>
    placesForMark(tokens, logits(tokens.length + 1, likely), PIECES.length, tokenizer);

  it('are the first that is likely enough, and the likeliest', () => {
    const found = find([IT, RUNS, OFF, IT, RUNS], { 1: { [COMMA]: 0.02 }, 3: { [DOT]: 0.1 }, 5: { [DOT]: 0.4 } });
    expect(found.map(({ at, mark }) => [at, mark])).toEqual([
      [3, DOT],
      [5, DOT],
    ]);
    expect(found[1]!.probability).toBeCloseTo(0.4, 3);
  });

  it('are one where the first is the likeliest', () => {
    const found = find([IT, RUNS, OFF], { 2: { [COMMA]: 0.5 }, 3: { [DOT]: 0.2 } });
    expect(found.map(({ at, mark }) => [at, mark])).toEqual([[2, COMMA]]);
  });

  it('are not inside a word, nor where none is likely', () => {
    expect(find([IT, RUNS, S], { 2: { [DOT]: 0.9 } })).toEqual([]);
    expect(find([IT, RUNS, OFF], {})).toEqual([]);
    expect(find([], {})).toEqual([]);
  });
});
