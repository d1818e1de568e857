import { all, create, docs } from 'mathjs';
import { Calculator } from './expression';
import { SumProblem } from './sumProblem';

const NO_NAMES = new Map<string, number>();
const calculator = new Calculator();
const valueOf = (text: string) => calculator.parse(text, NO_NAMES).value();

/** The examples in mathjs' own documentation, which its package carries (`docs`), and its own evaluation of them. */
const math = create(all!, { number: 'number', predictable: true });
const examples = [
  ...new Set(Object.values(docs as Record<string, { examples?: string[] }>).flatMap((d) => d.examples ?? [])),
];

test('examples of mathjs’ documentation come to what mathjs makes of them, or are refused', () => {
  let compared = 0;
  for (const example of examples) {
    let own: unknown;
    try {
      own = valueOf(example);
    } catch (error) {
      // What it does not know it says in a sentence.
      expect([example, error]).toEqual([example, expect.any(SumProblem)]);
      continue;
    }
    compared++;
    expect([example, math.format(own as number, 12)]).toEqual([example, math.format(math.evaluate(example), 12)]);
  }
  expect(compared).toBeGreaterThan(60);
});

// The examples with which mathjs introduces itself ("Getting started"; from memory).
test.each([
  ['1.2 * (2 + 4.5)', '7.8'],
  ['12.7 cm to inch', '5 inch'],
  ['sin(45 deg) ^ 2', '0.5'],
  ['sqrt(3^2 + 4^2)', '5'],
  ['2 inch to cm', '5.08 cm'],
])('%s is %s', (text, expected) => expect(math.format(valueOf(text), 12)).toBe(expected));

// BIPM, The International System of Units (SI Brochure), 9th edition, table 8: units accepted for use with the SI (from memory).
test.each([
  ['1 minute to s', 60],
  ['1 h to s', 3600],
  ['1 day to s', 86_400],
  ['1 deg to rad', Math.PI / 180],
  ['1 hectare to m^2', 1e4],
  ['1 L to m^3', 1e-3],
  ['1 tonne to kg', 1000],
])('%s as in the SI brochure', (text, expected) => {
  const [number] = math.format(valueOf(text), 14).split(' ');
  expect(Number(number) / expected).toBeCloseTo(1, 8);
});
