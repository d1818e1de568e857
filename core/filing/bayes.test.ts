import { type Example, mostProbableClass } from './bayes';
import { featuresOf } from './features';

const example = (label: string, ...features: string[]): Example => ({ label, features: new Set(features) });

describe('the mostProbableClass label', () => {
  /*
   * Documents of the worked example 13.1 in Manning, Raghavan and Schütze 2008, Introduction to Information Retrieval. Ours
   * counts each word of a document once, so what is checked is the clear case and not the book's numbers.
   */
  const china = [
    example('China', 'chinese', 'beijing'),
    example('China', 'chinese', 'shanghai'),
    example('China', 'chinese', 'macao'),
    example('other', 'tokyo', 'japan', 'chinese'),
  ];

  it('follows the words that tell', () => {
    expect(mostProbableClass(new Set(['chinese', 'shanghai']), china)[0]!.label).toBe('China');
    expect(mostProbableClass(new Set(['tokyo', 'japan']), china)[0]!.label).toBe('other');
  });

  it('is the most frequent one where no word is known', () => {
    expect(mostProbableClass(new Set(['lime']), china)[0]!.label).toBe('China');
  });

  it('is not drawn to one long example in which every word stands', () => {
    const everything = Array.from({ length: 400 }, (_, i) => `word ${i}`);
    const examples = [example('lecture', ...everything, 'lock', 'pit'), example('walk', 'lock', 'pit', 'crane')];
    expect(mostProbableClass(new Set(['lock', 'pit']), examples)[0]!.label).toBe('walk');
  });

  it('is not drawn to a label of few words either', () => {
    const shelf = Array.from({ length: 40 }, (_, i) =>
      example('no', ...Array.from({ length: 60 }, (_, k) => `${i} ${k}`)),
    );
    const few = [...shelf, example('yes', 'tooth', 'drill')];
    // Once heard under "no", never under "yes": nothing speaks for "yes".
    expect(mostProbableClass(new Set(['3 7', '5 9', '8 1']), few)[0]!.label).toBe('no');
    expect(mostProbableClass(new Set(['tooth', 'drill', '3 7']), few)[0]!.label).toBe('yes');
  });

  it('tells nothing from a circumstance that all have, and something from one that few have', () => {
    const long = Array.from({ length: 5 }, (_, i) =>
      example('lecture', '@source import', `a${i}`, `b${i}`, `c${i}`, `d${i}`),
    );
    const all = [...long, example('call', '@source import', 'hello'), example('call', '@source import', 'yes')];
    expect(mostProbableClass(new Set(['@source import']), all)[0]).toMatchObject({ label: 'lecture' });
    expect(mostProbableClass(new Set(['@source import']), all)[0]!.probability).toBeCloseTo(5 / 7, 1);
    const evenings = Array.from({ length: 8 }, () => example('diary', '@hours 7', 'garden'));
    const mornings = Array.from({ length: 8 }, () => example('walk', '@hours 2', 'garden'));
    expect(mostProbableClass(new Set(['@hours 7', 'garden']), [...mornings, ...evenings])[0]!.label).toBe('diary');
  });

  it('has probabilities that add up to one, and counts heavier examples more', () => {
    const all = mostProbableClass(new Set(['chinese']), china);
    expect(all.reduce((sum, l) => sum + l.probability, 0)).toBeCloseTo(1, 9);
    const heavy = [...china, { ...example('other', 'chinese'), weight: 20 }];
    expect(mostProbableClass(new Set(['chinese']), heavy)[0]!.label).toBe('other');
  });

  it('is none where there is nothing to learn from', () =>
    expect(mostProbableClass(new Set(['lime']), [])).toEqual([]));
});

describe('the features of a recording', () => {
  const memo = { source: 'speak', people: ['Bram'], appointment: 'Walk the quay', place: '52.12345, 4.98765' };

  it('are its words and how it was made', () => {
    // 10 March 2026 is a Tuesday.
    const features = featuresOf({ ...memo, text: 'The roots of the limes', startedAt: '2026-03-10T07:40:00' });
    for (const f of ['root', 'lime', '@day 2', '@hours 2', '@source speak', '@person bram', '@place 52.12 4.99']) {
      expect(features).toContain(f);
    }
    expect([...features].some((f) => f.startsWith('@appointment'))).toBe(true);
    expect(features).not.toContain('the');
  });

  it('are fewer where less is known', () => {
    const bare = { text: '', startedAt: 'unknown', source: 'import', people: [], appointment: null, place: null };
    expect([...featuresOf(bare)]).toEqual(['@source import']);
  });
});
