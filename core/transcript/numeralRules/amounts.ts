import { TENS, UNITS, tableOf } from '../../language/spokenNumbers';
import { Reader } from './tokens';

export const grouped = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 10 });

type Amount = {
  /** As it is written, with commas between thousands: "11,400", "2.5 million". */
  text: string;
  value: number;
  /** Said with "a" alone ("a hundred") or as a round word: not a figure by itself. */
  isLoose: boolean;
};

export const SCALES = tableOf({ thousand: 1e3, million: 1e6, billion: 1e9, trillion: 1e12 });
const HALVES = tableOf({ half: 0.5, quarter: 0.25 });

/** Below a hundred, in words: "forty", "forty-two", "forty two"; or digits. */
export function readBelowHundred(r: Reader): number | null {
  const { word } = r;
  if (word in UNITS) {
    r.at++;
    return UNITS[word]!;
  }
  if (word in TENS) {
    r.at++;
    const unit = UNITS[r.word];
    if (unit === undefined || unit < 1 || unit > 9) return TENS[word]!;
    r.at++;
    return TENS[word]! + unit;
  }
  const [tens, unit, ...rest] = word.split('-');
  if (!rest.length && tens! in TENS && unit && unit in UNITS && UNITS[unit]! < 10 && UNITS[unit]! > 0) {
    r.at++;
    return TENS[tens!]! + UNITS[unit]!;
  }
  return null;
}

/** Below a thousand, or "twenty-five hundred". */
export function readBelowThousand(r: Reader): number | null {
  const start = r.at;
  let value: number | null;
  if ((r.word === 'a' || r.word === 'an') && r.ahead(1) === 'hundred') {
    r.at++;
    value = 1;
  } else value = readBelowHundred(r);
  if (value === null) return null;
  if (r.word !== 'hundred' || value === 0 || (value > 9 && (value % 10 === 0 || value > 99))) {
    return value;
  }
  r.at++;
  value *= 100;
  const pause = r.at;
  r.take('and');
  const rest = readBelowHundred(r);
  if (rest === null || rest === 0) r.at = pause;
  else value += rest;
  return r.at === start ? null : value;
}

/** Digits as they stand: "11,400", "3.5". */
function readWrittenDigits(r: Reader): Amount | null {
  const { word } = r;
  if (!/^\d{1,3}(,\d{3})+$|^\d+(\.\d+)?$/.test(word)) return null;
  r.at++;
  return { text: word, value: Number(word.replace(/,/g, '')), isLoose: false };
}

export function readAmount(r: Reader): Amount | null {
  const start = r.at;
  const isNegative = r.word === 'minus' && (r.at++, true);
  const amount = readPositive(r);
  if (!amount) {
    r.at = start;
    return null;
  }
  return isNegative ? { text: `\u2212${amount.text}`, value: -amount.value, isLoose: false } : amount;
}

function readPositive(r: Reader): Amount | null {
  const startsWithA = r.word === 'a' || r.word === 'an';
  const written = readWrittenDigits(r);
  if (written) return withScale(r, written);
  if (startsWithA && r.ahead(1) in SCALES) {
    r.at += 2;
    return restOfThousands(r, SCALES[r.tokens[r.at - 1]!.word]!, true);
  }
  const first = readBelowThousand(r);
  if (first === null) return null;
  const fraction = readFraction(r);
  if (fraction !== null) {
    const value = Number(`${first}.${fraction}`);
    return withScale(r, { text: `${grouped.format(first)}.${fraction}`, value, isLoose: false });
  }
  if (r.word === 'and' && r.ahead(1) === 'a' && r.ahead(2) in HALVES) {
    const value = first + HALVES[r.ahead(2)]!;
    r.at += 3;
    return withScale(r, { text: grouped.format(value), value, isLoose: false });
  }
  if (r.word in SCALES) {
    const scale = SCALES[r.word]!;
    r.at++;
    return restOfThousands(r, first * scale, false);
  }
  return { text: grouped.format(first), value: first, isLoose: startsWithA && first === 100 };
}

/** "point five two": digits one by one. */
function readFraction(r: Reader): string | null {
  if (r.word !== 'point') return null;
  const start = r.at++;
  let digits = '';
  for (;;) {
    const digit = digitOf(r.word);
    if (digit === null) break;
    digits += digit;
    r.at++;
  }
  if (!digits) {
    const value = readBelowHundred(r);
    if (value !== null) return String(value);
    r.at = start;
    return null;
  }
  return digits;
}

function withScale(r: Reader, amount: Amount): Amount {
  const scale = SCALES[r.word];
  if (!scale) return amount;
  const name = r.word;
  r.at++;
  const value = amount.value * scale;
  return name === 'thousand' || Number.isNaN(value)
    ? { text: grouped.format(value), value, isLoose: false }
    : { text: `${amount.text} ${name}`, value, isLoose: false };
}

/** After "two million": the smaller steps, each once and downwards. */
function restOfThousands(r: Reader, first: number, isA: boolean): Amount {
  let value = first;
  let step = Object.values(SCALES).findLast((scale) => first % scale === 0 && first >= scale)!;
  const largest = step;
  // Recognisers write a comma in "eleven thousand, four hundred".
  if (r.word === '' && SCALES[r.tokens[r.at - 1]!.word] === 1000 && r.tokens[r.at - 1]!.after === ',') {
    const rest = new Reader(r.tokens, r.at);
    const hundreds = readBelowThousand(rest);
    if (hundreds !== null && hundreds >= 100 && r.tokens[r.at + 1]?.word === 'hundred') {
      r.at = rest.at;
      return { text: grouped.format(value + hundreds), value: value + hundreds, isLoose: false };
    }
  }
  for (;;) {
    const start = r.at;
    const hadAnd = r.take('and');
    const next = r.word === 'a' && r.ahead(1) !== 'hundred' ? null : readBelowThousand(r);
    if (next === null || next === 0 || (hadAnd && next > 99 && r.word in SCALES)) {
      r.at = start;
      break;
    }
    const scale = SCALES[r.word];
    if (scale && scale < step) {
      r.at++;
      value += next * scale;
      step = scale;
    } else if (scale || next >= step) {
      r.at = start;
      break;
    } else {
      value += next;
      break;
    }
  }
  const isRound = largest >= 1e6 && value % (largest / 10) === 0 && value / largest < 1000;
  const name = Object.keys(SCALES).find((key) => SCALES[key] === largest)!;
  const text = isRound ? `${grouped.format(value / largest)} ${name}` : grouped.format(value);
  return { text, value, isLoose: isA && value === largest };
}

export function digitOf(word: string | undefined): string | null {
  if (word === 'oh') return '0';
  const value = word === undefined ? undefined : UNITS[word];
  return value !== undefined && value < 10 ? String(value) : null;
}
