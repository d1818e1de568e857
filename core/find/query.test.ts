import { parseQuery, toFts5 } from './query';

describe('what is typed into the find bar', () => {
  it.each([
    ['lime tree', '("lime" AND "tree"*)'],
    ['"field capacity" soil', '("field capacity" AND "soil"*)'],
    ['soil -clay', '("soil"*) NOT "clay"'],
    ['soil -"wilting point"', '("soil"*) NOT "wilting point"'],
    ['half-past OR ) "', '("half" AND "past" AND "or"*)'],
    ["Bram's", '("bram" AND "s"*)'],
  ])('%s', (typed, fts5) => {
    expect(toFts5(parseQuery(typed))).toBe(fts5);
  });

  it.each(['', '   ', '-clay', '"" -', '🌳'])('asks nothing with "%s"', (typed) => {
    expect(toFts5(parseQuery(typed))).toBeNull();
  });
});
