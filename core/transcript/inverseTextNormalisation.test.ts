import fs from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { NUMERAL_KINDS, type NumeralKind } from '../contract/numeralKinds';
import { withNumerals, spokenWords, normaliseWords } from './inverseTextNormalisation';
import type { Word } from './manuscript';

/** Said, a bar, written. Sentences of our own; how numbers are written is common practice unless the block names a source. */
const CASES = `
## numbers: ten and above in figures, below in words (the Associated Press rule, from memory)
we planted eleven thousand four hundred trees | we planted 11,400 trees
about eleven people came | about 11 people came
about nine people came | about nine people came
we need ten of them | we need 10 of them
there are forty-two lime trees | there are 42 lime trees
there are forty two lime trees | there are 42 lime trees
one hundred and five pits | 105 pits
one hundred five pits | 105 pits
they sold two hundred | they sold 200
they sold a hundred and twenty | they sold 120
they sold about a hundred | they sold about a hundred
a thousand thanks | a thousand thanks
it cost one thousand and one nights | it cost 1,001 nights
some two thousand six hundred words | some 2,600 words
some twenty-five hundred words | some 2,500 words
it holds three hundred thousand | it holds 300,000
it holds two million | it holds 2 million
it holds two million three hundred thousand | it holds 2.3 million
it holds two million three hundred thousand and twelve | it holds 2,300,012
it holds two and a half million | it holds 2.5 million
nearly one billion | nearly 1 billion
he was wrong by three point five | he was wrong by 3.5
a share of zero point two five | a share of 0.25
version two point one is out | version 2.1 is out
it fell to minus twelve | it fell to −12
from nine to eleven people | from 9 to 11 people
take eleven or nine | take 11 or 9
take two or three | take two or three
Twelve people came | Twelve people came
Two hundred people came | 200 people came
She left. Twelve stayed | She left. Twelve stayed
a twenty-five-year-old oak | a 25-year-old oak
see page four | see page 4
see page twelve, please | see page 12, please
in room four there was one | in room 4 there was one
step two comes after step one | step 2 comes after step 1
one of the two | one of the two
hundreds of people | hundreds of people
none of the constructors | none of the constructors
we had a hundred, fifty were left | we had a hundred, 50 were left
ninety-nine, one hundred | 99, 100
Ninety-nine, one hundred | Ninety-nine, 100
we had 20 thousand | we had 20,000
The trench costs eleven thousand, four hundred. | The trench costs 11,400.
in two thousand, twelve people came | in 2,000, 12 people came
we had 12 and five | we had 12 and five
seventeen thousand and six leaves | 17,006 leaves
## years
in nineteen eighty-four it began | in 1984 it began
in nineteen eighty four it began | in 1984 it began
by twenty twenty-six | by 2026
since twenty oh five | since 2005
since nineteen oh eight | since 1908
in two thousand and six we moved | in 2006 we moved
in two thousand six we moved | in 2006 we moved
I have two thousand and six leaves | I have 2,006 leaves
built in eighteen hundred | built in 1800
built in seventeen eighty | built in 1780
## ordinals
the twenty-first century | the 21st century
the twenty second time | the 22nd time
the third floor | the third floor
on the third floor | on the third floor
the eleventh hour | the 11th hour
her thirteenth birthday | her 13th birthday
the hundred and first tree | the hundred and first tree
the one hundred and first tree | the 101st tree
the two hundredth tree | the 200th tree
a second opinion | a second opinion
## dates
the twelfth of May | 12 May
on the twelfth of May. | on 12 May.
on the first of September, we | on 1 September, we
the twenty-third of October two thousand and twenty-six | 23 October 2026
the twenty third of October twenty twenty six | 23 October 2026
May the twelfth | May 12
on March third we | on March 3 we
March third, nineteen ninety-nine | March 3, 1999
by June the thirtieth | by June 30
December thirty first | December 31
on the fourteenth we meet | on the 14th we meet
on the third and the fifth | on the 3rd and the fifth
you may first check it | you may first check it
we march third in line | we march third in line
the forty-first of May | the 41st of May
from the first to the third of May | from the first to 3 May
## times
half past two | 2:30
we meet at half past two, then | we meet at 2:30, then
at a quarter past nine | at 9:15
a quarter to one | 12:45
quarter to five. | 4:45.
at ten past three | at 3:10
at twenty to six | at 5:40
twenty-five past eight | 8:25
five minutes past nine | 9:05
ten minutes to twelve | 11:50
seven minutes past four | 4:07
at two o'clock | at 2:00
at four o’clock sharp | at 4:00 sharp
seven thirty pm | 7:30 pm
nine a.m. tomorrow | 9 am tomorrow
eleven p m | 11 pm
at seven thirty we | at 7:30 we
at eighteen thirty | at 18:30
at nine oh five | at 9:05
at oh eight thirty | at 08:30
at half two | at 2:30
half past two p.m. | 2:30 pm
ten to twelve people | 10 to 12 people
half of it | half of it
a quarter of it | a quarter of it
at twenty people | at 20 people
## money
it costs twelve pounds | it costs £12
it costs five pounds | it costs £5
a bag of five pounds of soil | a bag of 5 pounds of soil
two pounds forty | £2.40
two pounds and forty pence | £2.40
twelve dollars fifty | $12.50
three euros | €3
four thousand pounds | £4,000
about two million euros | about €2 million
twenty pence | 20p
a hundred dollars | $100
fifty cents | 50 cents
Fifty cents | Fifty cents
they raised fifty cents | they raised 50 cents
## percent
twelve percent | 12%
five per cent of it | 5% of it
three point five percent | 3.5%
a hundred percent | 100%
half a percent | half a percent
## units (symbols: BIPM, The International System of Units, from memory)
five kilometers | 5 km
two and a half metres deep | 2.5 m deep
a hundred meters | 100 m
twenty centimetres | 20 cm
one kilo of sugar | 1 kg of sugar
three liters | 3 L
ten square meters | 10 m²
three cubic metres | 3 m³
fifty kilometers an hour | 50 km/h
ninety kilometres per hour | 90 km/h
thirty degrees | 30°
minus five degrees celsius | −5 °C
six feet under | 6 feet under
four miles | 4 miles
five minutes | five minutes
in fifteen minutes | in 15 minutes
## rows of digits
oh seven four four six | 07446
call oh one six double three, five five two, three oh one | call 01633 552 301
the code is triple nine four | the code is 9994
room one oh four | room 104
one two three | one two three
one, two, three, four | one, two, three, four
## punctuation and quotes stay where they are
“twelve percent,” she said | “12%,” she said
(half past two) | (2:30)
forty, five | 40, five
we have twenty. Five are left | we have 20. Five are left
`;

const cases = CASES.split('\n').flatMap((line): [string, string][] => {
  const [said, written] = line.split(' | ');
  return written === undefined ? [] : [[said!, written]];
});

test('the table has at least 120 cases', () => expect(cases.length).toBeGreaterThanOrEqual(120));
test.each(cases)('%s → %s', (said, written) => expect(withNumerals(said)).toBe(written));

test.each<[NumeralKind, string, string]>([
  ['numbers', 'about forty people', 'about forty people'],
  ['ordinals', 'the eleventh hour', 'the eleventh hour'],
  ['times', 'half past two', 'half past two'],
  ['dates', 'the second of May', 'the second of May'],
  ['money', 'five euros', 'five euros'],
  ['percent', 'five percent', 'five percent'],
  ['digits', 'one two three four', 'one two three four'],
  ['units', 'five kilometers', 'five kilometers'],
])('%s switched off leaves its words alone', (kind, said, written) => {
  expect(withNumerals(said)).not.toBe(said);
  expect(withNumerals(said, new Set(NUMERAL_KINDS.filter((k) => k !== kind)))).toBe(written);
});

const spoken = (text: string): Word[] =>
  text.split(' ').map((word, i) => ({ startMs: i * 400, endMs: i * 400 + 300, text: word, confidence: 0.5 + i / 100 }));

test('a figure spans the words that were said, is as sure as the least sure, and keeps them', () => {
  const words = spoken('meet at half past two, then');
  const written = normaliseWords(words);
  expect(written.map((w) => w.text)).toEqual(['meet', 'at', '2:30,', 'then']);
  expect(written[2]).toMatchObject({ startMs: 800, endMs: 1900, confidence: 0.52, spoken: words.slice(2, 5) });
  expect(spokenWords(written)).toEqual(words);
});

const vocabulary =
  'a and the of at on in half quarter past to two five ten twelve twenty thirty-one hundred thousand million point oh double May March third twelfth o\'clock pounds percent metres degrees minus am pm p.m. 12 3.5 tree, two. "Five 2026 - % … 🌳 constructor שלום'.split(
    ' ',
  );

test('whatever is said: no word is lost, none is added, times stay in order', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...vocabulary), { maxLength: 30 }), (texts) => {
      const words = spoken(texts.join(' ')).filter((w) => w.text);
      const written = normaliseWords(words);
      expect(spokenWords(written)).toEqual(words);
      for (const [i, word] of written.entries()) {
        expect(word.text).not.toMatch(/NaN|undefined|^$/);
        if (i > 0) expect(word.startMs).toBeGreaterThanOrEqual(written[i - 1]!.endMs);
      }
    }),
    { numRuns: 2000 },
  );
});

/**
 * The Unicode CLDR rules that spell numbers out in English (cldr-rbnf, SpelloutRules; format: Unicode Technical Standard
 * 35, Part 3, Rule-Based Number Formatting): what they spell must come back as the number.
 */
type RuleSet = [base: string, rule: string][];
const rules = (
  JSON.parse(
    fs.readFileSync(path.join(path.dirname(require.resolve('cldr-rbnf/package.json')), 'rbnf', 'en.json'), 'utf8'),
  ) as { rbnf: { rbnf: { SpelloutRules: Record<string, RuleSet> } } }
).rbnf.rbnf.SpelloutRules;

function spellOut(value: number, name: string): string {
  const numeric = rules[name]!.filter(([base]) => /^\d+$/.test(base)).map(([base, rule]) => ({
    base: Number(base),
    rule,
  }));
  const { base, rule } = numeric.findLast((r) => r.base <= value)!;
  const divisor = 10 ** Math.floor(Math.log10(base || 1));
  const part = (sign: string, to: string): string => {
    const of = sign === '←' ? Math.floor(value / divisor) : sign === '→' ? value % divisor : value;
    return to.startsWith('#') ? String(of) : spellOut(of, to || name);
  };
  return rule
    .replace(/;$/, '')
    .replace(/^'/, '')
    .replace(/\[(.*?)\]/gs, (_, optional: string) => (value % divisor === 0 ? '' : optional))
    .replace(/([←→=])(%{0,2}[\w-]*|#[^←→=]*)\1/gu, (_, sign: string, to: string) => part(sign, to));
}

test('the spell-out rules are read rightly: the example values of the CLDR chart of rule-based numbers, from memory', () => {
  expect(spellOut(21, '%spellout-cardinal')).toBe('twenty-one');
  expect(spellOut(1234, '%spellout-cardinal')).toBe('one thousand two hundred thirty-four');
  expect(spellOut(1234, '%spellout-cardinal-verbose')).toBe('one thousand two hundred and thirty-four');
  expect(spellOut(112, '%spellout-ordinal')).toBe('one hundred twelfth');
});

test.each(['%spellout-cardinal', '%spellout-cardinal-verbose'])(
  'numbers spelled by %s become the number again',
  (name) => {
    const large = fc.integer({ min: 10, max: 999_999 });
    fc.assert(
      fc.property(large, (value) => {
        expect(withNumerals(`some ${spellOut(value, name).replace(/,/g, '')}`)).toBe(
          `some ${value.toLocaleString('en-GB')}`,
        );
      }),
      { numRuns: 1000 },
    );
  },
);

test('ordinals spelled by %spellout-ordinal become the ordinal again', () => {
  for (let value = 10; value < 100; value++) {
    expect(withNumerals(`the ${spellOut(value, '%spellout-ordinal')}`)).toMatch(
      new RegExp(`^the ${value}(st|nd|rd|th)$`),
    );
  }
});
