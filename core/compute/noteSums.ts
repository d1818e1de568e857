import { type CurrencyTable } from './currencies';
import { dateAnswer } from './dateSums';
import { Calculator, type Names, type Value, asWritten, isBare } from './expression';
import type { NoteLine } from './noteLines';
import { decimalFormat, numberText } from './numberText';
import { type Plot, plotOf } from './plot';
import { SumProblem } from './sumProblem';

/** What stands in pencil behind a line. */
export type LineAnswer =
  | { kind: 'answer'; text: string }
  /** Under a rule: the sum of the column above it. */
  | { kind: 'total'; text: string }
  | { kind: 'problem'; text: string }
  | { kind: 'plot'; plot: Plot };

/** More sums in one note are not worked out. */
const MAX_SUMS = 2000;
/** A longer line is prose. */
const LONGEST = 400;
const UNIT_DIGITS = 8;
const NAME = /^\p{L}[\p{L}\d_]{0,39}$/u;
/** The name that is drawn over. */
const FREE = 'x';
const NUMBER_AT_END = /(?:^|\s)([€£$]?\s?[-−–]?\d[\d,]{0,20}(?:\.\d{1,10})?\s?(?:[€£$]|[A-Z]{3})?)$/;
const NUMBER_AT_START = /^([€£$]?\s?[-−–]?\d[\d,]{0,20}(?:\.\d{1,10})?\s?[€£$]?)(?=\s|$)/;

/** What a note is worked out with. */
export type SumSettings = { today: Date; currencies?: CurrencyTable | null };

/** A currency has two decimals; a unit is written behind its number. */
export function valueText(value: Value, currencies: CurrencyTable | null): string {
  if (typeof value === 'number') return numberText(value);
  const [number, ...unit] = value.format({ precision: UNIT_DIGITS }).split(' ');
  const name = unit.join(' ');
  const isMoney = name === currencies?.base || currencies?.rates.some((r) => r.code === name);
  if (isMoney) return `${decimalFormat(2, 2).format(Number(number))} ${name}`;
  return `${numberText(Number(number))} ${name}`.trim();
}

let made: { key: string; calculator: Calculator } | null = null;

/** Making one takes longer than a hundred sums: the last is kept, as the rates of a person seldom change. */
function calculatorFor(currencies: CurrencyTable | null): Calculator {
  const key = JSON.stringify(currencies);
  if (made?.key !== key) made = { key, calculator: new Calculator(currencies) };
  return made.calculator;
}

/**
 * Works out the lines of a note from the top: what ends in "=", what gives a name a value, a column over a rule, what is to
 * be drawn. A name holds from its line on.
 * @returns for each line what stands behind it, null where that is nothing
 */
export function noteSums(lines: readonly NoteLine[], { today, currencies = null }: SumSettings): (LineAnswer | null)[] {
  const note = new NoteSums(calculatorFor(currencies), currencies, today);
  return lines.map((line, i) => note.answer(line, lines, i));
}

class NoteSums {
  private readonly names = new Map<string, Value>();
  private count = 0;

  constructor(
    private readonly calculator: Calculator,
    private readonly currencies: CurrencyTable | null,
    private readonly today: Date,
  ) {}

  answer(line: NoteLine, lines: readonly NoteLine[], at: number): LineAnswer | null {
    if (this.count > MAX_SUMS) return null;
    try {
      if ('isRule' in line) return this.total(columnAbove(lines, at));
      const text = line.text.trim();
      if (text.length > LONGEST || !text.includes('=')) return null;
      this.count++;
      if (text.endsWith('=')) return this.asked(text.slice(0, -1).trim());
      const parts = text.split('=').map((part) => part.trim());
      return parts.length === 2 && parts[0] && parts[1] ? this.equation(parts[0], parts[1], text) : null;
    } catch (error) {
      if (error instanceof SumProblem) return { kind: 'problem', text: error.message };
      throw error;
    }
  }

  private asked(text: string): LineAnswer | null {
    if (text === '' || text.includes('=')) return null;
    const date = dateAnswer(text, this.today);
    if (date !== null) return { kind: 'answer', text: date };
    // A line of words that happens to end in "=" is nobody's sum.
    if (!/\d/.test(text) && !this.names.has(text) && !/[a-z]\s*[-+*/^(]\s*[a-z]/i.test(text)) return null;
    return { kind: 'answer', text: this.text(this.calculator.parse(text, this.names).value()) };
  }

  private equation(left: string, right: string, whole: string): LineAnswer | null {
    const isName = NAME.test(left) && left !== FREE;
    if (!isName || left === 'y') {
      const drawn = this.drawn(left, right, whole);
      if (drawn || !isName) return drawn;
    }
    if (!looksLikeSum(right, this.names)) return null;
    const value = this.calculator.parse(right, this.names).value();
    this.names.set(left, value);
    return isBare(right) && !this.names.has(right) ? null : { kind: 'answer', text: this.text(value) };
  }

  /** "y = 2x - 3", "f(x) = x^2", or an equation in x, as the difference of its sides. */
  private drawn(left: string, right: string, whole: string): LineAnswer | null {
    const isCurve = left === 'y' || left === 'f(x)';
    if (!/\d|[-+*/^(]/.test(whole) || !hasFree(isCurve ? right : whole)) return null;
    const text = isCurve ? right : `(${left}) - (${right})`;
    let parsed;
    try {
      parsed = this.calculator.parse(text, this.names, FREE);
    } catch (error) {
      // Words with an x and an equals sign are no equation.
      if (error instanceof SumProblem && !isCurve) return null;
      throw error;
    }
    if (!parsed.has(FREE)) return null;
    const plot = plotOf(parsed, FREE, whole);
    return plot ? { kind: 'plot', plot } : { kind: 'problem', text: 'This has no value that could be drawn.' };
  }

  private total(column: ReturnType<typeof columnAbove>): LineAnswer | null {
    if (column.length < 2) return null;
    const decimals = Math.max(...column.map(({ number }) => /\.(\d+)/.exec(number)?.[1]?.length ?? 0));
    const sum = this.calculator.sum(column, this.names);
    // 3.20 and 4.10 come to 7.30, as on a bill.
    return { kind: 'total', text: typeof sum === 'number' ? numberText(sum, decimals) : this.text(sum) };
  }

  private text(value: Value): string {
    return valueText(value, this.currencies);
  }
}

const hasFree = (text: string): boolean => /(?:^|[^\p{L}])x(?!\p{L})/u.test(text);

/** Whether something right of an equals sign is meant to be worked out: a number, or names that have a value. */
function looksLikeSum(text: string, names: Names): boolean {
  if (names.has(text)) return true;
  const words = asWritten(text).match(/\p{L}+/gu) ?? [];
  return /\d/.test(text) ? words.length <= 8 : /[-+*/^]/.test(text) && words.length <= 4;
}

/** The numbers straight above a rule, one a line, each with the word behind it; a line without a number ends the column. */
function columnAbove(lines: readonly NoteLine[], rule: number): { number: string; word: string }[] {
  const column: { number: string; word: string }[] = [];
  for (let i = rule - 1; i >= 0; i--) {
    const line = lines[i]!;
    if ('isRule' in line) break;
    const text = line.text.trim();
    const number = text.length <= LONGEST ? (NUMBER_AT_END.exec(text) ?? NUMBER_AT_START.exec(text))?.[1] : undefined;
    if (number === undefined || text.endsWith('=')) break;
    const word = text.startsWith(number) ? (/^\s*(\p{L}{1,20})/u.exec(text.slice(number.length))?.[1] ?? '') : '';
    column.unshift({ number: number.trim(), word });
  }
  return column;
}
