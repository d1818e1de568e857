import {
  addBusinessDays,
  addDays,
  addMonths,
  addWeeks,
  addYears,
  differenceInBusinessDays,
  differenceInCalendarDays,
  format,
  isValid,
  parseISO,
} from 'date-fns';
import { SumProblem } from './sumProblem';

/** Steps that a date is moved by. */
const STEPS = {
  day: addDays,
  week: addWeeks,
  month: addMonths,
  year: addYears,
  workday: addBusinessDays,
} as const;
const MOST = { day: 400_000, week: 60_000, month: 13_000, year: 1000, workday: 300_000 } as const;
type Step = keyof typeof STEPS;

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const LONGEST = 80;
const DAYS_A_WEEK = 7;

/** A day as it is written in an answer: "Tuesday 2 June 2026". */
const dayInFull = (day: Date): string => format(day, 'EEEE d MMMM yyyy');

const words = (text: string): string[] =>
  text
    .toLowerCase()
    .replace(/[,.]/g, ' ')
    .replace(/(\d)(?:st|nd|rd|th)\b/g, '$1')
    .split(/\s+/)
    .filter(Boolean);

/**
 * A day from what is written: "12 May", "May 12 2026", "2026-05-12", "today", "tomorrow", "yesterday".
 * @param today from which a day without a year is meant: the nearest one, this year's
 */
function dayFrom(parts: readonly string[], today: Date): Date | null {
  const [first = '', second, third] = parts;
  if (parts.length === 1) {
    if (first === 'today') return today;
    if (first === 'tomorrow') return addDays(today, 1);
    if (first === 'yesterday') return addDays(today, -1);
    const day = /^\d{4}-\d\d-\d\d$/.test(first) ? parseISO(first) : null;
    return day && isValid(day) ? day : null;
  }
  if (parts.length > 3 || second === undefined) return null;
  const isDayFirst = /^\d{1,2}$/.test(first);
  const [dayText, monthText] = isDayFirst ? [first, second] : [second, first];
  const month = monthText.length >= 3 ? MONTHS.findIndex((m) => monthText.startsWith(m)) : -1;
  if (month < 0 || !/^\d{1,2}$/.test(dayText)) return null;
  if (third !== undefined && !/^\d{4}$/.test(third)) return null;
  const year = third === undefined ? today.getFullYear() : Number(third);
  const day = new Date(year, month, Number(dayText));
  return day.getMonth() === month ? day : null;
}

function stepFrom(parts: readonly string[]): { step: Step; count: number } | null {
  const [countText = '', unitText = '', more] = parts;
  const unit = (more === undefined ? unitText : unitText === 'working' ? 'workday' : '').replace(/s$/, '');
  const step = unit === 'workday' || (more === undefined && unit in STEPS) ? (unit as Step) : null;
  const count = countText === 'a' || countText === 'one' ? 1 : /^\d{1,6}$/.test(countText) ? Number(countText) : NaN;
  if (!step || Number.isNaN(count)) return null;
  if (count > MOST[step]) throw new SumProblem('This day is too far away.');
  return { step, count };
}

const countOf = (count: number, unit: string): string => `${count} ${unit}${count === 1 ? '' : 's'}`;

/** "17 days (2 weeks and 3 days)" */
function spanInWords(days: number): string {
  const weeks = Math.floor(Math.abs(days) / DAYS_A_WEEK);
  const rest = Math.abs(days) % DAYS_A_WEEK;
  const whole = countOf(Math.abs(days), 'day');
  if (weeks === 0) return whole;
  return `${whole} (${countOf(weeks, 'week')}${rest ? ` and ${countOf(rest, 'day')}` : ''})`;
}

/** Splits at the first of these words that has something on both sides. */
function split(parts: readonly string[], at: readonly string[]): [string[], string, string[]] | null {
  const place = parts.findIndex((p, i) => i > 0 && i < parts.length - 1 && at.includes(p));
  return place < 0 ? null : [parts.slice(0, place), parts[place]!, parts.slice(place + 1)];
}

/**
 * What is asked about days: "3 weeks from 12 May", "12 May + 10 days", "12 May - 2 weeks", "days from 1 March to 12 May",
 * "working days from 1 March to 12 May", "12 May - 1 March".
 * @returns the answer; null where it is no question about days
 * @throws SumProblem where the day is too far away
 */
export function dateAnswer(text: string, today: Date): string | null {
  if (text.length > LONGEST) return null;
  const parts = words(text.replace(/[−–+]|(?<=\s)-(?=\s)/g, (sign) => ` ${sign === '+' ? 'plus' : 'minus'} `));
  const between = parts.findIndex((p) => p === 'from' || p === 'between');
  const asked = parts.slice(0, between).join(' ');
  if (between > 0 && (asked === 'days' || asked === 'working days')) {
    const both = split(parts.slice(between + 1), ['to', 'and', 'until']);
    const [from, to] = both ? [dayFrom(both[0], today), dayFrom(both[2], today)] : [null, null];
    if (!from || !to) return null;
    return asked === 'days'
      ? spanInWords(differenceInCalendarDays(to, from))
      : countOf(Math.abs(differenceInBusinessDays(to, from)), 'working day');
  }
  const fromOrBefore = split(parts, ['from', 'after', 'before']);
  if (fromOrBefore) {
    const [count, word, day] = fromOrBefore;
    return moved(stepFrom(count), dayFrom(day, today), word === 'before' ? -1 : 1);
  }
  const signed = split(parts, ['plus', 'minus']);
  if (!signed) return null;
  const [left, sign, right] = signed;
  const start = dayFrom(left, today);
  const end = sign === 'minus' ? dayFrom(right, today) : null;
  if (start && end) return spanInWords(differenceInCalendarDays(start, end));
  return moved(stepFrom(right), start, sign === 'minus' ? -1 : 1);
}

function moved(by: ReturnType<typeof stepFrom>, day: Date | null, direction: 1 | -1): string | null {
  if (!by || !day) return null;
  return dayInFull(STEPS[by.step](day, direction * by.count));
}
