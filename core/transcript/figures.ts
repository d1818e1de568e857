import { FIGURE_KINDS, type FigureKind } from '../contract/figureKinds';
import { ORDINALS, TENS, UNITS, tableOf } from '../language/spokenNumbers';
import type { Word } from './manuscript';

export const ALL_FIGURES: ReadonlySet<FigureKind> = new Set(FIGURE_KINDS);

/** A word as people write it; where it is not what was said, `spoken` are the words that were, with their times. */
export type WrittenWord = Word & { spoken?: readonly Word[] };

/**
 * Spoken numbers, times, dates, sums and measures in figures, as people write them. Numbers below ten stay words unless
 * a measure, a sum or a label such as "page" asks for a figure, and so does a number below a hundred that begins a
 * sentence (common practice of style guides; the numbers themselves are checked against the Unicode CLDR spell-out rules).
 *
 * @param words of one passage, in order
 * @returns new words in the same order; those that took the place of others span their times and hold them in `spoken`
 */
export function writtenWords(
  words: readonly WrittenWord[],
  kinds: ReadonlySet<FigureKind> = ALL_FIGURES,
): WrittenWord[] {
  if (kinds.size === 0) return [...words];
  const tokens = words.map((w) => (w.isTyped ? NOT_SAID : tokenOf(w.text)));
  const result: WrittenWord[] = [];
  for (let at = 0; at < words.length;) {
    const found = figureAt(tokens, at, kinds);
    if (!found) {
      result.push(words[at]!);
      at++;
      continue;
    }
    const spoken = spokenWords(words.slice(at, found.end));
    const [first, last] = [tokens[at]!, tokens[found.end - 1]!];
    const text = first.before + found.text + last.after;
    if (spoken.length === 1 && spoken[0]!.text === text) result.push(spoken[0]!);
    else {
      result.push({
        ...{ startMs: spoken[0]!.startMs, endMs: spoken.at(-1)!.endMs, text },
        ...{ confidence: Math.min(...spoken.map((w) => w.confidence)), spoken },
      });
    }
    at = found.end;
  }
  return result;
}

/** The words as they were said: the way back from `writtenWords`, whatever was changed beside the figures. */
export const spokenWords = (words: readonly WrittenWord[]): Word[] => words.flatMap((w) => w.spoken ?? [w]);

/** A line of text in figures. */
export const inFigures = (text: string, kinds: ReadonlySet<FigureKind> = ALL_FIGURES): string =>
  writtenWords(
    text.split(/\s+/u).map((word) => ({ startMs: 0, endMs: 0, text: word, confidence: 1 })),
    kinds,
  )
    .map((w) => w.text)
    .join(' ');

type Token = { before: string; core: string; after: string; word: string };
type Figure = { end: number; text: string };

/** What a person has typed stays as it was typed. */
const NOT_SAID: Token = { before: '|', core: '', after: '|', word: '' };

function tokenOf(text: string): Token {
  const [, before = '', core = '', after = ''] = /^([^\p{L}\p{N}$£€-]*)(.*?)([^\p{L}\p{N}%°]*)$/su.exec(text) ?? [];
  const word = /^[ap]\.m$/i.test(core) ? core.toLowerCase().replace('.', '') : core.toLowerCase();
  return {
    before,
    core,
    after: /^[ap]m$/.test(word) && /^[ap]\.m$/i.test(core) ? after.replace(/^\./, '') : after,
    word,
  };
}

/** A reader of tokens that does not step over punctuation. */
class Reader {
  private readonly start: number;

  constructor(
    readonly tokens: readonly Token[],
    public at: number,
  ) {
    this.start = at;
  }

  /** The word here, or the empty string where the phrase has ended. */
  get word(): string {
    return this.ahead(0);
  }

  ahead(steps: number): string {
    const token = this.tokens[this.at + steps];
    if (!token) return '';
    for (let i = this.at + steps; i > this.start; i--) {
      if (this.tokens[i]!.before || this.tokens[i - 1]!.after) return '';
    }
    return token.word;
  }

  take(...words: string[]): boolean {
    for (const [i, word] of words.entries()) if (this.ahead(i) !== word) return false;
    this.at += words.length;
    return true;
  }
}

type Rule = (tokens: readonly Token[], at: number, kinds: ReadonlySet<FigureKind>) => Figure | null;

const RULES: readonly [FigureKind, Rule][] = [
  ['digits', digitRow],
  ['dates', date],
  ['times', time],
  ['money', money],
  ['percent', percent],
  ['units', measure],
  ['ordinals', ordinal],
  ['numbers', plainNumber],
];

function figureAt(tokens: readonly Token[], at: number, kinds: ReadonlySet<FigureKind>): Figure | null {
  if (!tokens[at]!.word) return null;
  for (const [kind, rule] of RULES) {
    if (!kinds.has(kind)) continue;
    const found = rule(tokens, at, kinds);
    if (found) return found;
  }
  return null;
}

const grouped = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 10 });
const before = (tokens: readonly Token[], at: number): string =>
  at > 0 && !tokens[at - 1]!.after && !tokens[at]!.before ? tokens[at - 1]!.word : '';
/** With a small letter it goes on from before. */
const beginsSentence = (tokens: readonly Token[], at: number): boolean =>
  /^\p{Lu}/u.test(tokens[at]!.core) && (at === 0 || /[.?!…:]/.test(tokens[at - 1]!.after));

// ---- numbers

type Amount = {
  /** As it is written, with commas between thousands: "11,400", "2.5 million". */
  text: string;
  value: number;
  /** Said with "a" alone ("a hundred") or as a round word: not a figure by itself. */
  isLoose: boolean;
};

const SCALES = tableOf({ thousand: 1e3, million: 1e6, billion: 1e9, trillion: 1e12 });
const HALVES = tableOf({ half: 0.5, quarter: 0.25 });

/** Below a hundred, in words: "forty", "forty-two", "forty two"; or digits. */
function readBelowHundred(r: Reader): number | null {
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
function readBelowThousand(r: Reader): number | null {
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

function readAmount(r: Reader): Amount | null {
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

/** Words after which even a small number is a figure: "page four". Common practice, no source. */
const LABELS = new Set(
  'page pages chapter room number line platform step version section figure table exercise unit lesson lecture part level grade question gate seat bus route extension box item day week class plot bed'.split(
    ' ',
  ),
);
const YEAR_LEADS = new Set([
  'in',
  'since',
  'year',
  'of',
  'from',
  'until',
  'till',
  'by',
  'before',
  'after',
  'to',
  ...months(),
]);
const LINKS = new Set(['to', 'or']);

function plainNumber(tokens: readonly Token[], at: number): Figure | null {
  const year = readYear(tokens, at);
  if (year) return year;
  const compound =
    /^([a-z]+(?:-[a-z]+)?)-((?:year|month|week|day|hour|minute|metre|meter|mile|page|seat|storey|story|foot)(?:-.+)?)$/.exec(
      tokens[at]!.word,
    );
  if (compound) {
    const value = readAmount(new Reader([{ before: '', core: '', after: '', word: compound[1]! }], 0));
    if (value && value.value > 9) return { end: at + 1, text: `${value.text}-${compound[2]}` };
  }
  const r = new Reader(tokens, at);
  const amount = readAmount(r);
  if (!amount || amount.isLoose || isOrdinalNext(r)) return null;
  const isFigure =
    amount.value > 9 ||
    amount.value < 0 ||
    !Number.isInteger(amount.value) ||
    LABELS.has(before(tokens, at)) ||
    isLinkedToLarge(tokens, at, r);
  if (!isFigure) return null;
  if (beginsSentence(tokens, at) && amount.value < 100 && Number.isInteger(amount.value)) return null;
  return { end: r.at, text: amount.text };
}

/** "Nine to eleven": both or none. */
function isLinkedToLarge(tokens: readonly Token[], at: number, r: Reader): boolean {
  if (LINKS.has(r.word)) {
    const next = new Reader(tokens, r.at + 1);
    const amount = r.ahead(1) ? readAmount(next) : null;
    return amount !== null && amount.value > 9 && !amount.isLoose;
  }
  if (!LINKS.has(before(tokens, at))) return false;
  for (let from = Math.max(0, at - 6); from < at - 1; from++) {
    const earlier = new Reader(tokens, from);
    const amount = readAmount(earlier);
    if (amount && earlier.at === at - 1 && earlier.word !== '') return amount.value > 9 && !amount.isLoose;
  }
  return false;
}

const isOrdinalNext = (r: Reader): boolean => r.word in ORDINALS && r.word !== 'second';

/** "Nineteen eighty-four", "twenty twenty-six", "twenty oh five"; "two thousand and six" where a year is led up to. */
function readYear(tokens: readonly Token[], at: number): Figure | null {
  const r = new Reader(tokens, at);
  const century = UNITS[r.word] ?? TENS[r.word];
  const isLed = YEAR_LEADS.has(before(tokens, at));
  if (century !== undefined && century >= 11 && century <= 20) {
    r.at++;
    if (isLed && r.take('hundred')) {
      if (!(r.word in UNITS) && !(r.word in TENS) && r.word !== 'and') return { end: r.at, text: `${century}00` };
      return null;
    }
    if (r.word === 'oh') {
      r.at++;
      const unit = UNITS[r.word];
      if (unit !== undefined && unit > 0 && unit < 10) return { end: r.at + 1, text: `${century}0${unit}` };
      return null;
    }
    const rest = readBelowHundred(r);
    const isPair = rest !== null && rest >= 10 && (century === 19 || century === 20 || isLed);
    return isPair && !isMeasureWord(r.word) && !(r.word in SCALES) && r.word !== 'hundred'
      ? { end: r.at, text: `${century}${rest}` }
      : null;
  }
  if (!isLed || !r.take('two', 'thousand')) return null;
  r.take('and');
  const rest = readBelowHundred(r);
  return rest && !isMeasureWord(r.word) && r.word !== 'hundred' && !/s$/.test(r.word)
    ? { end: r.at, text: String(2000 + rest) }
    : null;
}

// ---- ordinals and dates

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

function ordinal(tokens: readonly Token[], at: number, kinds: ReadonlySet<FigureKind>): Figure | null {
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

function months(): string[] {
  return 'january february march april may june july august september october november december'.split(' ');
}
const MONTHS = new Map(months().map((name) => [name, name[0]!.toUpperCase() + name.slice(1)]));
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
function date(tokens: readonly Token[], at: number): Figure | null {
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

// ---- times of day

const CLOCK_LEADS = new Set([
  'at',
  'by',
  'until',
  'till',
  'before',
  'after',
  'since',
  "it's",
  'it’s',
  'from',
  'around',
]);
const twoDigits = (value: number): string => String(value).padStart(2, '0');

function time(tokens: readonly Token[], at: number): Figure | null {
  const r = new Reader(tokens, at);
  const lead = before(tokens, at);
  r.take('a');
  const half = r.take('half') ? 30 : r.take('quarter') ? 15 : null;
  if (half !== null) {
    if (r.take('past')) return clock(r, half, 'past');
    if (half === 15 && r.take('to')) return clock(r, half, 'to');
    return half === 30 && CLOCK_LEADS.has(lead) ? clock(r, half, 'past') : null;
  }
  r.at = at;
  const minutes = readBelowHundred(r);
  if (minutes !== null && minutes > 0 && minutes < 60) {
    const hasMinutes = r.take('minutes') || r.take('minute');
    const isFive = minutes % 5 === 0;
    if ((hasMinutes || isFive) && r.take('past')) return clock(r, minutes, 'past');
    if ((hasMinutes ? isFive : isFive && minutes < 30 && CLOCK_LEADS.has(lead) && lead !== 'from') && r.take('to')) {
      return clock(r, minutes, 'to');
    }
  }
  r.at = at;
  const isMilitary = r.word === 'oh' && (r.at++, true);
  const hour = readBelowHundred(r) ?? numberOf(r);
  if (hour === null || hour > 24) return null;
  if (r.take("o'clock") || r.take('o’clock')) return hour >= 1 && hour <= 12 ? { text: `${hour}:00`, end: r.at } : null;
  const start = r.at;
  const isOh = r.take('oh');
  let minute = readBelowHundred(r);
  if (minute !== null && (isOh ? minute > 9 : minute < 10 || minute > 59)) minute = null;
  if (minute === null) r.at = start;
  const half12 = readHalfOfDay(r);
  const shown = isMilitary ? twoDigits(hour) : String(hour);
  if (half12 && hour >= 1 && hour <= 12)
    return { text: `${shown}${minute === null ? '' : `:${twoDigits(minute)}`} ${half12}`, end: r.at };
  if (minute === null || hour === 0) return null;
  const isLed = CLOCK_LEADS.has(lead) && !isMeasureWord(r.word) && !(r.word in SCALES) && r.word !== 'hundred';
  return isLed &&
    !(hour >= 19 && (lead === 'since' || lead === 'from' || lead === 'by' || lead === 'before' || lead === 'after'))
    ? { text: `${shown}:${twoDigits(minute)}`, end: r.at }
    : null;
}

function numberOf(r: Reader): number | null {
  if (!/^\d{1,2}$/.test(r.word)) return null;
  r.at++;
  return Number(r.tokens[r.at - 1]!.word);
}

function readHalfOfDay(r: Reader): string | null {
  if (r.take('am') || r.take('a', 'm')) return 'am';
  return r.take('pm') || r.take('p', 'm') ? 'pm' : null;
}

/** The hour after "past" or "to", and the time it makes. */
function clock(r: Reader, minutes: number, side: 'past' | 'to'): Figure | null {
  const hour = readBelowHundred(r) ?? numberOf(r);
  if (hour === null || hour < 1 || hour > 12 || isMeasureWord(r.word) || r.word === 'hundred' || r.word in SCALES)
    return null;
  if (!r.take("o'clock")) r.take('o’clock');
  const half = readHalfOfDay(r);
  const shown = side === 'past' ? hour : ((hour + 10) % 12) + 1;
  const minute = side === 'past' ? minutes : 60 - minutes;
  return { text: `${shown}:${twoDigits(minute)}${half ? ` ${half}` : ''}`, end: r.at };
}

// ---- money, percent, units, rows of digits

const COINS = tableOf({
  pounds: { sign: '£', small: 'pence' },
  pound: { sign: '£', small: 'pence' },
  dollars: { sign: '$', small: 'cents' },
  dollar: { sign: '$', small: 'cents' },
  euros: { sign: '€', small: 'cents' },
  euro: { sign: '€', small: 'cents' },
});

function money(tokens: readonly Token[], at: number): Figure | null {
  const r = new Reader(tokens, at);
  const amount = readAmount(r);
  if (!amount || amount.value < 0) return null;
  if (amount.isLoose && !(r.word in COINS)) return null;
  if (r.take('pence') || (amount.value > 1 && r.take('p'))) return { text: `${amount.text}p`, end: r.at };
  const coin = COINS[r.word];
  // "Five pounds of soil" is a weight.
  if (!coin || (coin.sign === '£' && ['of', 'heavier', 'lighter', 'weight'].includes(r.ahead(1)))) return null;
  r.at++;
  const start = r.at;
  r.take('and');
  const small = Number.isInteger(amount.value) ? readBelowHundred(r) : null;
  const isSmallNamed = small !== null && r.take(coin.small);
  // Fifty after pounds is pence, unless it counts something else: "for ten pounds twenty people came".
  const isSmall =
    small !== null &&
    small > 0 &&
    (isSmallNamed || (small % 5 === 0 && small > 9 && start === r.at - 1 && !isPlural(r.word)));
  if (!isSmall) r.at = start;
  return { text: `${coin.sign}${amount.text}${isSmall ? `.${twoDigits(small)}` : ''}`, end: r.at };
}

const isPlural = (word: string): boolean => word.length > 3 && word.endsWith('s') && !word.endsWith('ss');

function percent(tokens: readonly Token[], at: number): Figure | null {
  const r = new Reader(tokens, at);
  const amount = readAmount(r);
  return amount && (r.take('percent') || r.take('per', 'cent')) ? { text: `${amount.text}%`, end: r.at } : null;
}

/** Symbols of the SI and of units accepted beside it (BIPM, The International System of Units, 9th edition, tables 2, 4 and 8). */
const SYMBOLS: readonly [names: string, symbol: string][] = [
  ['kilometer kilometers kilometre kilometres', 'km'],
  ['meter meters metre metres', 'm'],
  ['centimeter centimeters centimetre centimetres', 'cm'],
  ['millimeter millimeters millimetre millimetres', 'mm'],
  ['kilogram kilograms kilo kilos', 'kg'],
  ['gram grams', 'g'],
  ['milligram milligrams', 'mg'],
  ['liter liters litre litres', 'L'],
  ['milliliter milliliters millilitre millilitres', 'mL'],
  ['hectare hectares', 'ha'],
  ['volt volts', 'V'],
  ['watt watts', 'W'],
  ['kilowatt kilowatts', 'kW'],
  ['hertz', 'Hz'],
  ['kilohertz', 'kHz'],
  ['kilobyte kilobytes', 'kB'],
  ['megabyte megabytes', 'MB'],
  ['gigabyte gigabytes', 'GB'],
  ['decibel decibels', 'dB'],
];
const UNIT_SYMBOLS = new Map(
  SYMBOLS.flatMap(([names, symbol]) => names.split(' ').map((n): [string, string] => [n, symbol])),
);
/** Measures that stay words after a figure. */
const FIGURE_BEFORE = new Set(
  'feet foot inches inch miles mile yards yard acres acre tonnes tons pounds ounces degrees'.split(' '),
);
const TIME_UNITS = new Set(
  'seconds second minutes minute hours hour days day weeks week months month years year people times'.split(' '),
);
const isMeasureWord = (word: string): boolean =>
  word in COINS ||
  UNIT_SYMBOLS.has(word) ||
  FIGURE_BEFORE.has(word) ||
  TIME_UNITS.has(word) ||
  /^per ?cent$|^percent$/.test(word);

function measure(tokens: readonly Token[], at: number): Figure | null {
  const r = new Reader(tokens, at);
  const amount = readAmount(r);
  if (!amount) return null;
  if (r.word === 'degrees' || r.word === 'degree') {
    r.at++;
    if (r.take('celsius') || r.take('centigrade')) return { text: `${amount.text} °C`, end: r.at };
    if (r.take('fahrenheit')) return { text: `${amount.text} °F`, end: r.at };
    return { text: `${amount.text}°`, end: r.at };
  }
  const power = r.take('square') ? '²' : r.take('cubic') ? '³' : '';
  const symbol = UNIT_SYMBOLS.get(r.word);
  if (symbol && (!power || symbol.endsWith('m'))) {
    r.at++;
    const perHour = (r.word === 'per' || r.word === 'an') && r.ahead(1) === 'hour' && symbol === 'km';
    if (perHour) r.at += 2;
    return { text: `${amount.text} ${symbol}${power}${perHour ? '/h' : ''}`, end: r.at };
  }
  if (power || amount.isLoose || !FIGURE_BEFORE.has(r.word)) return null;
  return { text: amount.text, end: r.at };
}

const ROW_LEADS = new Set(['number', 'code', 'room', 'extension', 'dial', 'call', 'pin', 'is']);

/** "Oh seven four, double five one": figures one by one, as telephone numbers are said. */
function digitRow(tokens: readonly Token[], at: number): Figure | null {
  const groups: string[] = [''];
  let end = at;
  for (let i = at; i < tokens.length; i++) {
    const token = tokens[i]!;
    if (i > at && token.before) break;
    const times = token.word === 'double' ? 2 : token.word === 'triple' ? 3 : 1;
    const digit = digitOf(times > 1 ? tokens[i + 1]?.word : token.word);
    if (digit === null || (times > 1 && token.after)) break;
    if (times > 1) i++;
    groups[groups.length - 1] += digit.repeat(times);
    end = i + 1;
    const { after } = tokens[i]!;
    if (after === ',') groups.push('');
    else if (after) break;
  }
  const rows = groups.filter(Boolean);
  const shortest = ROW_LEADS.has(before(tokens, at)) ? 3 : 4;
  const isRow = rows.length === 1 ? rows[0]!.length >= shortest : rows.every((row) => row.length >= 3);
  if (rows.length === 0 || !isRow || isMeasureWord(tokens[end]?.word ?? '')) return null;
  // "Three two one" said alone at the end may be a count: only the rows that are long enough are joined.
  return { end, text: rows.join(' ') };
}

function digitOf(word: string | undefined): string | null {
  if (word === 'oh') return '0';
  const value = word === undefined ? undefined : UNITS[word];
  return value !== undefined && value < 10 ? String(value) : null;
}
