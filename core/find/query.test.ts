import { parseQuery, toFts5, writeFilters, writeWords } from './query';

describe('what is typed into the find bar', () => {
  it.each([
    ['tree', '("tree"*)'],
    ['lime tree', '(("lime" AND "tree"*) OR ("limetree"))'],
    ['"field capacity" soil', '("field capacity" AND "soil"*)'],
    ['soil -clay', '("soil"*) NOT "clay"'],
    ['soil -"wilting point"', '("soil"*) NOT "wilting point"'],
    ['half-past OR ) "', '(("half" AND "past" AND "or"*) OR ("or"* AND "halfpast") OR ("half" AND "pastor"))'],
    [
      "'; DROP TABLE recordings; --",
      '(("drop" AND "table" AND "recordings"*) OR ("recordings"* AND "droptable") OR ("drop" AND "tablerecordings"))',
    ],
    [
      'NEAR(lime tree) ^text:',
      '(("near" AND "lime" AND "tree" AND "text"*) OR ("tree" AND "text"* AND "nearlime") OR ("near" AND "text"* AND "limetree") OR ("near" AND "lime" AND "treetext"))',
    ],
  ])('%s', (typed, fts5) => {
    expect(toFts5(parseQuery(typed))).toBe(fts5);
  });

  it.each(['', '   ', '-clay', '"" -', '🌳', '?!.,;', '"', '()*^', 'person:Bram'])(
    'asks for no word with "%s"',
    (typed) => {
      expect(toFts5(parseQuery(typed))).toBeNull();
    },
  );

  it('finds other spellings and words that were split', () => {
    const variants = (word: string) => (word === 'database' ? [['data', 'base'], ['databases']] : []);
    expect(toFts5(parseQuery('database'), variants)).toBe('(("database"* OR "data base" OR "databases"))');
  });

  it('takes filters out of the words', () => {
    const typed = 'roots person:"Bram Vantongeren" tag:decision in:Home after:2026-01 before:2026-03-09 has:to-dos';
    const query = parseQuery(typed);
    expect(query.required).toEqual([['roots']]);
    expect(query.filters).toEqual({
      people: ['Bram Vantongeren'],
      tags: ['decision'],
      folders: ['Home'],
      after: '2026-01-01',
      before: '2026-03-09',
      has: ['todo'],
    });
    expect(parseQuery(writeFilters(query.filters)).filters).toEqual(query.filters);
    expect(writeWords(parseQuery('"lime tree" soil -clay'))).toBe('"lime tree" soil -clay');
  });

  it.each(['before:Easter', 'before:2026-13', 'after:2026-02-30', 'has:wings'])(
    'reads "%s" as words, since it is no filter',
    (typed) => {
      const { required, filters } = parseQuery(typed);
      expect(required.length).toBeGreaterThan(1);
      expect(writeFilters(filters)).toBe('');
    },
  );

  it('takes 5,000 characters, and asks once for what is asked for twice', () => {
    expect(parseQuery('lime '.repeat(1000)).required).toEqual([['lime']]);
    const many = Array.from({ length: 500 }, (_, i) => `w${i}`).join(' ');
    expect(parseQuery(many).required).toHaveLength(24);
    expect(parseQuery('"'.repeat(5000)).required).toEqual([]);
  });
});
