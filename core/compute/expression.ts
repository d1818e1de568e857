import {
  type ConstantNode,
  type FunctionNode,
  type MathJsInstance,
  type MathNode,
  type OperatorNode,
  type SymbolNode,
  type Unit,
  all,
  create,
} from 'mathjs';
import { type CurrencyTable, currencyCode, unknownCurrency } from './currencies';
import { SumProblem } from './sumProblem';

/** A longer line is no sum. */
const MAX_LENGTH = 300;
/** More digits than any number that somebody computes with; a double keeps 15 to 17 of them. */
const MAX_DIGITS = 30;
const MAX_NODES = 200;

/** Functions of one or two numbers that end at once, whatever they are given. */
const FUNCTIONS = new Set([
  ...['sqrt', 'cbrt', 'abs', 'round', 'floor', 'ceil', 'exp', 'log', 'log10', 'log2', 'sin', 'cos', 'tan'],
  ...['asin', 'acos', 'atan', 'min', 'max', 'mean', 'sum', 'mod', 'gcd', 'lcm', 'sign', 'unit', 'to'],
]);
const OPERATORS = new Set(['+', '-', '*', '/', '^', '%', 'to', 'in', 'mod']);
const CONSTANTS = new Set(['pi', 'e', 'tau', 'phi']);

export type Value = number | Unit;
export type Names = ReadonlyMap<string, Value>;

/** What a sum is worked out with: units, and the currencies of a table. */
export class Calculator {
  private readonly math: MathJsInstance;

  constructor(readonly currencies: CurrencyTable | null = null) {
    this.math = create(all!, { number: 'number', predictable: true });
    if (!currencies) return;
    this.math.createUnit(currencies.base, { aliases: [] }, { override: true });
    for (const { code, rate } of currencies.rates)
      if (code !== currencies.base) this.math.createUnit(code, `${1 / rate} ${currencies.base}`, { override: true });
  }

  /**
   * @param text as a person writes it: "12 * 4.5", "15% of 80", "5 km in miles", "1,200 / 7"
   * @param names that hold a value where this stands
   * @param free a name that stands for any number, as in what is drawn
   * @throws SumProblem with a sentence
   */
  parse(text: string, names: Names, free?: string): Parsed {
    if (text.length > MAX_LENGTH) throw new SumProblem('This line is too long to compute.');
    const plain = asWritten(text);
    if (/\d/.test(plain) && longestNumber(plain) > MAX_DIGITS)
      throw new SumProblem(`A number here has more than ${MAX_DIGITS} digits.`);
    let node: MathNode;
    try {
      node = this.math.parse(plain);
    } catch {
      throw new SumProblem('This cannot be read as a sum.');
    }
    this.check(node, names, free);
    return new Parsed(this.math, node, names);
  }

  /** The sum of a column, however long it is. @throws SumProblem where its entries do not go together */
  sum(column: readonly { number: string; word: string }[], names: Names): Value {
    return column
      .map(({ number, word }) => (this.isUnit(word) ? `${number} ${word}` : number))
      .map((text) => this.parse(text, names).value())
      .reduce((sum, value) => {
        if (typeof sum === 'number' && typeof value === 'number') return sum + value;
        try {
          return this.math.add(sum as Unit, value as Unit) as Unit;
        } catch (error) {
          throw new SumProblem(whyNot(error));
        }
      });
  }

  /** Only what ends at once and touches nothing. */
  private check(root: MathNode, names: Names, free: string | undefined): void {
    let count = 0;
    root.traverse((node, _path, parent) => {
      if (++count > MAX_NODES) throw new SumProblem('This line is too long to compute.');
      switch (node.type) {
        case 'ConstantNode':
          if (typeof (node as ConstantNode).value !== 'number') throw new SumProblem('This cannot be read as a sum.');
          return;
        case 'ParenthesisNode':
          return;
        case 'OperatorNode':
          if (!OPERATORS.has((node as OperatorNode).op)) throw new SumProblem('This cannot be read as a sum.');
          return;
        case 'FunctionNode': {
          const { name } = (node as FunctionNode).fn as unknown as SymbolNode;
          if (!FUNCTIONS.has(name)) throw new SumProblem(`Immeld does not know “${name}”.`);
          return;
        }
        case 'SymbolNode': {
          const { name } = node as SymbolNode;
          const isFunction = parent?.type === 'FunctionNode' && (parent as FunctionNode).fn === node;
          if (isFunction || name === free || names.has(name) || CONSTANTS.has(name)) return;
          if (currencyCode(name) && !this.knows(name)) throw new SumProblem(unknownCurrency(name));
          if (!this.isUnit(name)) throw new SumProblem(`“${name}” has no value above this line.`);
          return;
        }
        default:
          throw new SumProblem('This cannot be read as a sum.');
      }
    });
  }

  private knows(code: string): boolean {
    return code === this.currencies?.base || (this.currencies?.rates.some((r) => r.code === code) ?? false);
  }

  private isUnit(name: string): boolean {
    return name !== '' && (this.math as unknown as { Unit: typeof Unit }).Unit.isValuelessUnit(name);
  }
}

/** A sum that can be worked out, once or for many values of its free name. */
export class Parsed {
  private readonly compiled: { evaluate: (scope: Map<string, unknown>) => unknown };
  /** With a value for the free name. */
  private scope: Map<string, unknown> | null = null;

  constructor(
    private readonly math: MathJsInstance,
    private readonly node: MathNode,
    private readonly names: Names,
  ) {
    this.compiled = node.compile();
  }

  /** Whether it holds this name. */
  has(name: string): boolean {
    return this.node.filter((n) => n.type === 'SymbolNode' && (n as SymbolNode).name === name).length > 0;
  }

  /** @throws SumProblem where it has no value */
  value(): Value {
    let value: unknown;
    try {
      // Nothing that is let through gives a name a value.
      value = this.compiled.evaluate(this.names as Map<string, unknown>);
    } catch (error) {
      throw new SumProblem(whyNot(error));
    }
    if (typeof value === 'number') return finite(value, this.node);
    if (this.math.typeOf(value) === 'Unit') {
      finite((value as Unit).toNumeric((value as Unit).formatUnits() || undefined) as number, this.node);
      return value as Unit;
    }
    throw new SumProblem('This has no result among the real numbers.');
  }

  /** Its value for one of its free name; NaN where it has none. */
  at(name: string, x: number): number {
    const scope = (this.scope ??= new Map<string, unknown>(this.names));
    scope.set(name, x);
    try {
      const value = this.compiled.evaluate(scope);
      return typeof value === 'number' ? value : NaN;
    } catch {
      return NaN;
    }
  }
}

function finite(value: number, node: MathNode): number {
  if (Number.isFinite(value)) return value;
  const divides = node.filter((n) => n.type === 'OperatorNode' && ['/', 'mod'].includes((n as OperatorNode).op));
  if (divides.length) throw new SumProblem('Nothing can be divided by 0.');
  if (Number.isNaN(value)) throw new SumProblem('This has no result among the real numbers.');
  throw new SumProblem('The result is too large to be written down.');
}

function whyNot(error: unknown): string {
  const message = error instanceof Error ? error.message : '';
  // Numbers without a unit are added to none, either.
  if (/Units do not match|Unexpected type of argument|no conversion/i.test(message))
    return 'These units do not go together.';
  return 'This cannot be worked out.';
}

const longestNumber = (text: string): number =>
  text.split(/[^0-9.]+/).reduce((most, number) => Math.max(most, number.replace('.', '').length), 0);

const SIGNS: Record<string, string> = { '€': 'EUR', '£': 'GBP', $: 'USD' };
const UNITS: Record<string, string> = { '°C': 'degC', '°F': 'degF', '°': 'deg' };

/** Whether a text is a number alone, perhaps with a unit, or a name: it needs no answer. */
export function isBare(text: string): boolean {
  const parts = asWritten(text).trim().split(/\s+/);
  const unit = parts.length === 1 && !/^-?\d/.test(parts[0]!) ? parts[0]! : (parts[1] ?? '');
  const number = parts[0] === unit ? '' : parts[0]!;
  return parts.length <= 2 && /^-?[\d.]{0,31}$/.test(number) && /^\p{L}{0,20}$/u.test(unit);
}

/** What people write as what the parser reads. Each rule looks at a few characters, however long the text is. */
export function asWritten(text: string): string {
  return text
    .replace(/[−–]/g, '-')
    .replace(/[×·⋅]/g, '*')
    .replace(/÷/g, '/')
    .replace(/²/g, '^2')
    .replace(/³/g, '^3')
    .replace(/√\s?([\d.]{1,20}|\p{L}{1,20})/gu, 'sqrt($1)')
    .replace(/√/g, 'sqrt')
    .replace(/π/g, 'pi')
    .replace(/(\d),(?=\d\d\d(?!\d))/g, '$1')
    .replace(/°[CF]?/g, (unit) => ` ${UNITS[unit] ?? 'deg'}`)
    .replace(/([€£$])\s?(\d[\d.]{0,20})/g, (_, sign: string, number: string) => `${number} ${SIGNS[sign]}`)
    .replace(/(\d)\s?([€£])/g, (_, digit: string, sign: string) => `${digit} ${SIGNS[sign]}`)
    .replace(/%\s{1,3}of\b/g, '% *')
    .replace(/\bin(?=\s{1,3}[A-Za-z]{1,20}\s{0,3}$)/g, 'to');
}
