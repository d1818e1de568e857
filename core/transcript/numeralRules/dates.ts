import type { NumeralKind } from '../../contract/numeralKinds';
import { ORDINALS, TENS, UNITS } from '../../language/spokenNumbers';
import { SCALES, grouped, readBelowHundred, readBelowThousand } from './amounts';
import { isMeasureWord } from './measureWords';
import { MONTHS } from './monthNames';
import { readYear } from './numbers';
import { type Figure, Reader, type Token, before, beginsSentence } from './tokens';

const SUFFIX = new Intl.PluralRules('en', { type: 'ordinal' });
const ENDINGS: Record<string, string> = { one: 'st', two: 'nd', few: 'rd' };
const ordinalText = (value: number): string => `${grouped.format(value)}${ENDINGS[SUFFIX.select(value)] ?? 'th'}`;

function readOrdinal(r: Reader): number | null {
  const written = /^(\d{1,2})(?:st|nd|rd|th)$/.exec(r.word);
  if (written) {
    r.at++;
    return Number(written[1]);
  }
  if (r.word in ORDINALS) {
    r.at++;
    return ORDINALS[r.tokens[r.at - 1]!.word]!;
  }
  const [tens, unit, ...rest] = r.word.split('-');
  if (!rest.length && tens! in TENS && unit && ORDINALS[unit]! < 10) {
    r.at++;
    return TENS[tens!]! + ORDINALS[unit]!;
  }
  if (r.word in TENS && ORDINALS[r.ahead(1)]! < 10) {
    r.at += 2;
    return TENS[r.tokens[r.at - 2]!.word]! + ORDINALS[r.tokens[r.at - 1]!.word]!;
  }
  return null;
}

export function ordinal(tokens: readonly Token[], at: number, kinds: ReadonlySet<NumeralKind>): Figure | null {
  const r = new Reader(tokens, at);
  let value = readOrdinal(r);
  if (value === null) {
    const hundreds = readBelowThousand(r);
    if (hundreds !== null && r.take('hundredth')) value = hundreds * 100;
    else if (hundreds !== null && hundreds >= 100 && hundreds % 100 === 0) {
      r.take('and');
      const rest = readOrdinal(r);
      if (rest !== null) value = hundreds + rest;
    }
  }
  if (value === null) return null;
  const isDayOfMonth =
    kinds.has('dates') && ['on', 'by', 'until'].includes(before(tokens, at - 1)) && before(tokens, at) === 'the';
  if (value < 10 && !isDayOfMonth) return null;
  if (isDayOfMonth && value < 10 && r.word !== '' && !['and', 'or', 'at', 'in', 'we', 'i'].includes(r.word)) {
    return null;
  }
  if (beginsSentence(tokens, at) && value < 100) return null;
  return { end: r.at, text: ordinalText(value) };
}

const NOT_BEFORE_MONTH = new Set([
  'i',
  'you',
  'he',
  'she',
  'it',
  'we',
  'they',
  'that',
  'this',
  'which',
  'who',
  'there',
  'will',
]);

/** "The twelfth of May", "May the twelfth", "twelfth May", each with or without a year. */
export function date(tokens: readonly Token[], at: number): Figure | null {
  const r = new Reader(tokens, at);
  const capital = /^\p{Lu}/u.test(tokens[at]!.core);
  const named = MONTHS.get(r.word);
  if (named) {
    if (!capital || NOT_BEFORE_MONTH.has(before(tokens, at))) return null;
    r.at++;
    const hasThe = r.take('the');
    const day = readOrdinal(r) ?? (hasThe ? null : readDayNumber(r));
    if (day === null || day < 1 || day > 31) return null;
    return { text: `${named} ${day}${readYearAfter(r, ', ')}`, end: r.at };
  }
  r.take('the');
  const day = readOrdinal(r);
  if (day === null || day < 1 || day > 31) return null;
  r.take('of');
  const month = MONTHS.get(r.word);
  if (!month) return null;
  if (r.word === 'may' && !/^\p{Lu}/u.test(tokens[r.at]!.core)) return null;
  r.at++;
  return { text: `${day} ${month}${readYearAfter(r, ' ')}`, end: r.at };
}

/** "May twelve", but not "May two hundred people". */
function readDayNumber(r: Reader): number | null {
  const start = r.at;
  const value = readBelowHundred(r);
  const goesOn =
    r.word !== '' &&
    (r.word in SCALES || r.word === 'hundred' || r.word in UNITS || r.word in TENS || isMeasureWord(r.word));
  if (value !== null && !goesOn && value <= 31 && value > 0) return value;
  if (value !== null && readYear(r.tokens, r.at)) return value;
  r.at = start;
  return null;
}

function readYearAfter(r: Reader, joint: string): string {
  if (!r.word) return '';
  const found = readYear(r.tokens, r.at);
  if (found) {
    r.at = found.end;
    return joint + found.text;
  }
  if (r.take('two', 'thousand')) {
    r.take('and');
    const rest = readBelowHundred(r) ?? 0;
    return joint + String(2000 + rest);
  }
  return '';
}
