import fc from 'fast-check';
import { type Passage, passageText } from './manuscript';
import { occurrencesIn, replacedIn } from './replace';

const RULES = { figures: ['numbers' as const], hidesFillers: false };

const passage = (text: string): Passage => ({
  ...{ startMs: 0, endMs: 60_000, speaker: null, startsParagraph: true },
  words: text.split(' ').map((word, i) => ({ startMs: i * 400, endMs: i * 400 + 300, text: word, confidence: 0.7 })),
});

const replace = (text: string, find: string, by: string, matchesCase = false): string => {
  const p = passage(text);
  const all = new Set(occurrencesIn(p, { find, by, matchesCase }, RULES).keys());
  return passageText(replacedIn(p, { find, by, matchesCase }, RULES, all));
};

it.each([
  ['The key wall, the key.', 'key', 'quay', 'The quay wall, the quay.'],
  ['Otterlean, and Otterlean’s plan.', 'otterlean', 'Ottoline', 'Ottoline, and Ottoline’s plan.'],
  ['Keys are not a key.', 'key', 'quay', 'Keys are not a quay.'],
  ['Data base one, the data base.', 'data base', 'database', 'Database one, the database.'],
  ['(Linden) trees', 'linden', 'lime', '(Lime) trees'],
  ['We met there today.', 'today', '', 'We met there.'],
  ['Well, the wall is wet.', 'well', '', 'the wall is wet.'],
  ['We planted eleven thousand limes.', '11,000', '12,000', 'We planted 12,000 limes.'],
  ['nothing here', 'quay', 'key', 'nothing here'],
  ['no no no', 'no no', 'yes', 'yes no'],
])('in "%s" replaces "%s" by "%s"', (text, find, by, expected) => {
  expect(replace(text, find, by)).toBe(expected);
});

it('tells capitals apart when asked to', () => {
  expect(replace('May I come in May?', 'May', 'June', true)).toBe('June I come in June?');
  expect(replace('may I come in May?', 'May', 'June', true)).toBe('may I come in June?');
});

it('replaces only the chosen places', () => {
  const p = passage('one key, two key, three key');
  const replacing = { find: 'key', by: 'quay', matchesCase: false };
  expect(passageText(replacedIn(p, replacing, RULES, new Set([1])))).toBe('one key, two quay, three key');
});

it('shows the words around a place', () => {
  const [hit] = occurrencesIn(
    passage('a b c d e f g key, h i j k l m n'),
    { find: 'key', by: 'quay', matchesCase: false },
    RULES,
  );
  expect(hit).toEqual({ startMs: 2800, before: 'b c d e f g', found: 'key,', instead: 'quay,', after: 'h i j k l m' });
});

it('looks for nothing where only marks are typed', () => {
  expect(occurrencesIn(passage('well - so'), { find: '-', by: 'x', matchesCase: false }, RULES)).toEqual([]);
});

it('keeps what was said under figures that are not replaced', () => {
  const p = passage('twenty five limes on the key');
  const all = new Set([0]);
  const now = replacedIn(p, { find: 'key', by: 'quay', matchesCase: false }, RULES, all);
  expect(passageText(now)).toBe('twenty five limes on the quay');
  expect(now.words[1]).toEqual(p.words[1]);
});

it('never moves the times of other words', () => {
  const word = fc.constantFrom('key', 'wall', 'the', 'limes,', 'quay', 'Bram.');
  fc.assert(
    fc.property(
      fc.array(word, { minLength: 1, maxLength: 30 }),
      fc.constantFrom('', 'bank', 'the long quay'),
      (texts, by) => {
        const p = passage(texts.join(' '));
        const replacing = { find: 'key', by, matchesCase: false };
        const all = new Set(occurrencesIn(p, replacing, RULES).keys());
        const now = replacedIn(p, replacing, RULES, all);
        const kept = p.words.filter((w) => w.text !== 'key');
        for (const w of kept) {
          expect(now.words.some((n) => n.startMs === w.startMs && n.endMs === w.endMs)).toBe(true);
        }
        expect(now.words.every((w, i) => i === 0 || now.words[i - 1]!.startMs <= w.startMs)).toBe(true);
      },
    ),
  );
});
