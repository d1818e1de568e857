import { type LineAnswer, noteSums } from './noteSums';
import { numberText } from './numberText';

const TODAY = new Date(2026, 2, 9);
const CURRENCIES = { day: '2026-03-02', base: 'EUR', rates: [{ code: 'USD', rate: 1.25 }] };

const answersTo = (...lines: string[]): (LineAnswer | null)[] =>
  noteSums(
    lines.map((text) => (text === '---' ? { isRule: true } : { text })),
    { today: TODAY, currencies: CURRENCIES },
  );
const textOf = (answer: LineAnswer | null | undefined): string | null =>
  !answer ? null : answer.kind === 'plot' ? `plot of ${answer.plot.label}` : answer.text;
const texts = (...lines: string[]) => answersTo(...lines).map(textOf);
const answer = (line: string) => texts(line)[0];

describe('a line that ends in an equals sign', () => {
  it.each([
    ['12 * 4.5 =', '54'],
    ['12 × 4,000 ÷ 3 =', '16,000'],
    ['0.1 + 0.2 =', '0.3'],
    ['2 (3 + 4)² =', '98'],
    ['15% of 80 =', '12'],
    ['80 + 15% =', '92'],
    ['√2 =', '1.4142135624'],
    ['2^10 =', '1,024'],
    ['7 mod 3 =', '1'],
    ['max(3, 8, 5) =', '8'],
    ['5 km in miles =', '3.106856 miles'],
    ['20 °C in degF =', '68 degF'],
    ['90 km/h to m/s =', '25 m / s'],
    ['€20 in USD =', '25.00 USD'],
    ['3 * $12.50 =', '37.50 USD'],
    ['sin(45 deg)^2 =', '0.5'],
  ])('%s is answered with %s', (line, text) => expect(answer(line)).toBe(text));

  it.each([
    ['1/0 =', 'Nothing can be divided by 0.'],
    ['0/0 =', 'Nothing can be divided by 0.'],
    ['9^9^9 =', 'The result is too large to be written down.'],
    ['sqrt(-4) =', 'This has no result among the real numbers.'],
    ['12 * =', 'This cannot be read as a sum.'],
    ['2 kg + 3 m =', 'These units do not go together.'],
    ['3 glorps + 2 =', '“glorps” has no value above this line.'],
    ['20 CHF in EUR =', 'There is no rate for CHF. Add it in the settings under “Currencies”.'],
    [`${'9'.repeat(200)} + 1 =`, 'A number here has more than 30 digits.'],
    [`${'1+'.repeat(160)}1 =`, 'This line is too long to compute.'],
    ['factorial(170) =', 'Immeld does not know “factorial”.'],
    ['[1,2] * 3 =', 'This cannot be read as a sum.'],
    ['import("fs") + 1 =', 'Immeld does not know “import”.'],
    ['f(x) = 3; 4 =', null],
  ])('%s gets a quiet sentence', (line, text) => expect(answer(line)).toBe(text));

  it.each(['Bram said that this is =', '=', 'a = b =', 'Call the nursery =', ''])('%s is prose', (line) =>
    expect(answer(line)).toBeNull(),
  );

  it('a line of 10,000 digits costs nothing', () => {
    const started = performance.now();
    expect(answer(`${'1'.repeat(10_000)} =`)).toBeNull();
    expect(performance.now() - started).toBeLessThan(100);
  });
});

describe('names', () => {
  it('hold from their line on, and change with it', () => {
    expect(texts('rent = 840', 'rent * 12 =', 'rent = 900', 'rent * 12 =')).toEqual([null, '10,080', null, '10,800']);
    expect(texts('rent = 2 * 420', 'year = rent * 12', 'year =')).toEqual(['840', '10,080', '10,080']);
    expect(texts('fence = 12 m', 'fence / 4 =')).toEqual([null, '3 m']);
    expect(texts('price = €48.50', 'other = price', '2 price =')).toEqual([null, '48.50 EUR', '97.00 EUR']);
  });

  it('that are made of themselves, or stand below, have no value', () => {
    expect(texts('cost = price + 1', 'price = cost + 1')).toEqual([
      '“price” has no value above this line.',
      '“cost” has no value above this line.',
    ]);
    expect(answer('a = a + 1')).toBe('“a” has no value above this line.');
  });

  it.each([
    'Bram = head gardener',
    'answer = yes',
    'https://example.org/?a=1',
    'Tamsin = 2 of the people in the row by the wall at the quay',
  ])('%s is prose', (line) => expect(answer(line)).toBeNull());
});

describe('a column over a rule', () => {
  it('is added up, whatever stands beside the numbers', () => {
    expect(texts('Spent this week', 'Bread 3.20', '4.10 apples', 'Rope 12', '---').at(-1)).toBe('19.30');
    expect(texts('€3.20', '€4.10', '---').at(-1)).toBe('7.30 EUR');
    expect(texts('Stakes 1,200', 'Ties 80', '---', 'Water 3', 'Sand 4', '---')).toEqual([
      ...[null, null, '1,280', null, null, '7'],
    ]);
  });

  it('is none where fewer than two numbers stand above it', () => {
    expect(texts('Only words', '---')).toEqual([null, null]);
    expect(texts('One 3', 'and words', 'Two 4', '---').at(-1)).toBeNull();
    expect(texts('3 kg', '4 kg', '---').at(-1)).toBe('7 kg');
    expect(texts('3 kg', '4', '---').at(-1)).toBe('These units do not go together.');
    expect(texts('€3', '4', '---').at(-1)).toBe('These units do not go together.');
  });
});

describe('days', () => {
  it.each([
    ['3 weeks from 12 May =', 'Tuesday 2 June 2026'],
    ['12 May + 10 days =', 'Friday 22 May 2026'],
    ['12 May 2027 - 2 weeks =', 'Wednesday 28 April 2027'],
    ['31 January + 1 month =', 'Saturday 28 February 2026'],
    ['5 working days after 6 March =', 'Friday 13 March 2026'],
    ['days from 1 March to 12 May =', '72 days (10 weeks and 2 days)'],
    ['working days between 2 March and 9 March =', '5 working days'],
    ['12 May - 1 March =', '72 days (10 weeks and 2 days)'],
    ['a week before today =', 'Monday 2 March 2026'],
    ['900000 days from today =', 'This day is too far away.'],
  ])('%s is %s', (line, text) => expect(answer(line)).toBe(text));

  it('a day that is not in the calendar is no day', () =>
    expect(answer('31 February + 1 day =')).toMatch(/no value|sum/));
});

describe('what is drawn', () => {
  const plotOf = (line: string) => {
    const [made] = answersTo(line);
    if (made?.kind !== 'plot') throw new Error(`No plot of ${line}: ${JSON.stringify(made)}`);
    return made.plot;
  };
  const near = (values: readonly number[], expected: readonly number[]) => {
    expect(values).toHaveLength(expected.length);
    values.forEach((value, i) => expect(value).toBeCloseTo(expected[i]!, 5));
  };

  it('a straight line with its root', () => {
    const plot = plotOf('y = 2x - 3');
    near(plot.roots, [1.5]);
    expect([plot.label, plot.extremes, plot.curves.length]).toEqual(['y = 2x - 3', [], 1]);
    expect(plot.x[0]).toBeLessThan(0);
    expect(plot.x[1]).toBeGreaterThan(1.5);
  });

  // Roots and extremes by hand: x^2-4 at -2 and 2, lowest -4; x^3-3x at 0 and ±√3, turning at ±1 with ∓2.
  it('roots and turning points are those of analysis', () => {
    const parabola = plotOf('y = x^2 - 4');
    near(parabola.roots, [-2, 2]);
    expect(parabola.extremes).toEqual([{ x: 0, y: -4, kind: 'lowest' }]);
    const cubic = plotOf('f(x) = x^3 - 3x');
    near(cubic.roots, [-Math.sqrt(3), 0, Math.sqrt(3)]);
    near(
      cubic.extremes.map((e) => e.x),
      [-1, 1],
    );
    expect(cubic.extremes.map((e) => e.kind)).toEqual(['highest', 'lowest']);
    near(plotOf('y = (x - 1)^2').roots, [1]);
    near(
      plotOf('sin(x) = 0').roots,
      [-3, -2, -1, 0, 1, 2, 3].map((n) => n * Math.PI),
    );
    near(plotOf('x^2 = 2x + 3').roots, [-1, 3]);
    near(plotOf('y = x - 250').roots, [250]);
  });

  it('a pole is no root, and the curve is broken there', () => {
    const plot = plotOf('y = 1 / x');
    expect([plot.roots, plot.extremes]).toEqual([[], []]);
    expect(plot.curves).toHaveLength(2);
    near(plotOf('y = log(x)').roots, [1]);
  });

  it('uses the names above it, and says what it does not know', () => {
    const [, made] = answersTo('slope = 2', 'y = slope * x + 4');
    expect(made).toMatchObject({ kind: 'plot', plot: { roots: [-2] } });
    expect(answer('y = slope * x + 4')).toBe('“slope” has no value above this line.');
    expect(answer('y = sqrt(-1 - x^2)')).toBe('This has no value that could be drawn.');
    expect(answer('x = the missing one')).toBeNull();
    expect(answer('Room x = 12')).toBeNull();
  });
});

it('numbers are written as people write them', () => {
  expect([1e21, 1 / 3, -0.000_000_1, 1234567.5, -0].map((value) => numberText(value))).toEqual([
    ...['1e+21', '0.3333333333', '-1e-7', '1,234,567.5', '0'],
  ]);
});
