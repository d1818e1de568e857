/**
 * When something is due, from how people say it, relative to when it was said.
 * Our own rules come first, for the spoken forms that date packages miss (hours in words, ordinals without a month,
 * "in a fortnight", "the week after next"); chrono-node reads the written forms that are left.
 */
import * as chrono from 'chrono-node';
import { NUMBER_WORD, ORDINAL_WORD, numberValue, ordinalValue } from './spokenNumbers';

/** `due` is an ISO date, or a date-time in local time without offset; `start`/`end` delimit the phrase in the text. */
export type SpokenDate = { due: string; start: number; end: number };

const WEEKDAYS = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'];
const MONTHS = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
];
const WEEKDAY = WEEKDAYS.join('|');
const MONTH = MONTHS.join('|');
const LEAD = '(?:(?:by|before|until|till|on|for|from|due|no later than|at the latest)\\s+)?';

type Day = { year: number; month: number; day: number };
type Clock = { hour: number; minute: number };
type Rule = { pattern: RegExp; day: (match: RegExpMatchArray, today: Day) => Day | null };

const toUtc = (d: Day): Date => new Date(Date.UTC(d.year, d.month, d.day));
const fromUtc = (d: Date): Day => ({ year: d.getUTCFullYear(), month: d.getUTCMonth(), day: d.getUTCDate() });
const plusDays = (d: Day, days: number): Day => fromUtc(new Date(toUtc(d).getTime() + days * 86_400_000));
const plusMonths = (d: Day, months: number): Day => {
  const last = new Date(Date.UTC(d.year, d.month + months + 1, 0)).getUTCDate();
  return fromUtc(new Date(Date.UTC(d.year, d.month + months, Math.min(d.day, last))));
};
const weekdayOf = (d: Day): number => toUtc(d).getUTCDay();
const before = (a: Day, b: Day): boolean => toUtc(a) < toUtc(b);

/** The next day of this name; said on that day itself it means the one in a week. */
function nextWeekday(today: Day, name: string): Day {
  const ahead = (WEEKDAYS.indexOf(name.toLowerCase()) - weekdayOf(today) + 7) % 7;
  return plusDays(today, ahead === 0 ? 7 : ahead);
}

/** The day of this name in the calendar week after this one (weeks begin on Monday, ISO 8601). */
function weekdayOfNextWeek(today: Day, name: string, weeks = 1): Day {
  const monday = plusDays(today, -((weekdayOf(today) + 6) % 7));
  return plusDays(monday, weeks * 7 + ((WEEKDAYS.indexOf(name.toLowerCase()) + 6) % 7));
}

function dateInYear(today: Day, month: number, day: number): Day | null {
  for (const year of [today.year, today.year + 1]) {
    const date = { year, month, day };
    if (fromUtc(toUtc(date)).month !== month) continue;
    if (!before(date, today)) return date;
  }
  return null;
}

function ordinalInMonths(today: Day, day: number): Day | null {
  for (let ahead = 0; ahead < 3; ahead++) {
    const month = plusMonths({ ...today, day: 1 }, ahead);
    const date = { ...month, day };
    if (fromUtc(toUtc(date)).month === month.month && !before(date, today)) return date;
  }
  return null;
}

const amount = (text: string): number =>
  /^an?$|^the$/i.test(text) ? 1 : /^a couple of$/i.test(text) ? 2 : (numberValue(text) ?? 1);
const AMOUNT = `(?:an?|a couple of|${NUMBER_WORD})`;
const HALVES = '(?: (?:morning|afternoon|evening|night))?';
const rule = (source: string, day: Rule['day']): Rule => ({
  pattern: new RegExp(`\\b${LEAD}(?:${source})${HALVES}\\b`, 'i'),
  day,
});

const RULES: Rule[] = [
  rule('(?:the )?day after tomorrow', (_, t) => plusDays(t, 2)),
  rule('tomorrow', (_, t) => plusDays(t, 1)),
  rule(`(${WEEKDAY}) in (${AMOUNT}) weeks?(?: time)?`, (m, t) => weekdayOfNextWeek(t, m[1]!, amount(m[2]!))),
  rule(`(?:a|one) week (?:from|on) (${WEEKDAY})`, (m, t) => plusDays(nextWeekday(t, m[1]!), 7)),
  rule(`(${NUMBER_WORD}) weeks from (${WEEKDAY})`, (m, t) => plusDays(nextWeekday(t, m[2]!), 7 * amount(m[1]!))),
  rule(`(${WEEKDAY})(?: in)? a week|(?:on )?(${WEEKDAY}) week`, (m, t) => plusDays(nextWeekday(t, (m[1] ?? m[2])!), 7)),
  rule(`(?:the )?(${WEEKDAY}) after next`, (m, t) => plusDays(nextWeekday(t, m[1]!), 7)),
  rule(`next (${WEEKDAY})|(${WEEKDAY}) (?:of )?next week`, (m, t) => weekdayOfNextWeek(t, (m[1] ?? m[2])!)),
  rule(`next week on (${WEEKDAY})`, (m, t) => weekdayOfNextWeek(t, m[1]!)),
  rule(`(?:the )?(?:${WEEKDAY}),? (?:the )?(${ORDINAL_WORD}) (?:of )?(${MONTH})`, (m, t) => monthDay(m[2]!, m[1]!, t)),
  rule(`(?:the )?last day of (?:the|this) month`, (_, t) => lastOfMonth(t, 0)),
  rule(`(?:the )?last (${WEEKDAY}) (?:of|in) (${MONTH})`, (m, t) => lastWeekdayOf(m[1]!, m[2]!, t)),
  rule(`(?:the )?(?:${WEEKDAY}),? the (${ORDINAL_WORD})`, (m, t) => ordinalInMonths(t, ordinalValue(m[1]!) ?? 0)),
  rule(`(?:the )?(${ORDINAL_WORD}) (?:of )?(${MONTH})`, (m, t) => monthDay(m[2]!, m[1]!, t)),
  rule(`(\\d{1,2}) (?:of )?(${MONTH})`, (m, t) => monthDay(m[2]!, m[1]!, t)),
  rule(`(${MONTH}) (?:the )?(${ORDINAL_WORD})`, (m, t) => monthDay(m[1]!, m[2]!, t)),
  rule(`(${MONTH}) (${NUMBER_WORD})(?! o'clock)`, (m, t) => monthDay(m[1]!, m[2]!, t)),
  rule(`(?:this |coming |this coming )?(${WEEKDAY})`, (m, t) => nextWeekday(t, m[1]!)),
  rule(`in (${AMOUNT}) days?(?: time)?`, (m, t) => plusDays(t, amount(m[1]!))),
  rule(`(?:in|within) (${AMOUNT}) weeks?(?: time)?`, (m, t) => plusDays(t, 7 * amount(m[1]!))),
  rule(`within (${AMOUNT}) days?`, (m, t) => plusDays(t, amount(m[1]!))),
  rule(`in (?:a|one) fortnight|in a fortnight's time`, (_, t) => plusDays(t, 14)),
  rule(`in (${AMOUNT}) months?(?: time)?`, (m, t) => plusMonths(t, amount(m[1]!))),
  rule('(?:the )?week after next', (_, t) => weekdayOfNextWeek(t, 'monday', 2)),
  rule('(?:the )?end of (?:the|this) week', (_, t) => plusDays(t, (5 - weekdayOf(t) + 7) % 7)),
  rule('(?:the )?end of next week', (_, t) => weekdayOfNextWeek(t, 'friday')),
  rule('(?:the )?end of (?:the|this) month', (_, t) => lastOfMonth(t, 0)),
  rule('(?:the )?end of next month', (_, t) => lastOfMonth(t, 1)),
  rule(`(?:the )?end of (${MONTH})`, (m, t) => endOfMonthNamed(m[1]!, t)),
  rule(`(?:the )?middle of (${MONTH})|mid[- ](${MONTH})`, (m, t) => middleOfMonth((m[1] ?? m[2])!, t)),
  rule('(?:the )?end of (?:the|this) year', (_, t) => ({ year: t.year, month: 11, day: 31 })),
  rule('(?:the )?weekend|this weekend', (_, t) => plusDays(t, (6 - weekdayOf(t) + 7) % 7)),
  rule('next week', (_, t) => weekdayOfNextWeek(t, 'monday')),
  rule('next month', (_, t) => ({ ...plusMonths({ ...t, day: 1 }, 1) })),
  rule('this week', (_, t) => plusDays(t, (5 - weekdayOf(t) + 7) % 7)),
  rule(
    `the (${ORDINAL_WORD})(?! (?:one|time|thing|part|floor|row|tree|week|draft|version|point|chapter|of (?:the|all|these|those|our|my)))`,
    (m, t) => ordinalInMonths(t, ordinalValue(m[1]!) ?? 0),
  ),
  rule('(?:end of (?:the )?day|today|tonight|this (?:morning|afternoon|evening))', (_, t) => t),
];

function monthDay(month: string, day: string, today: Day): Day | null {
  const number = ordinalValue(day) ?? numberValue(day);
  return number && number <= 31 ? dateInYear(today, MONTHS.indexOf(month.toLowerCase()), number) : null;
}
function middleOfMonth(month: string, today: Day): Day | null {
  return dateInYear(today, MONTHS.indexOf(month.toLowerCase()), 15);
}
function lastOfMonth(today: Day, ahead: number): Day {
  return fromUtc(new Date(Date.UTC(today.year, today.month + ahead + 1, 0)));
}
function lastWeekdayOf(weekday: string, month: string, today: Day): Day {
  const last = endOfMonthNamed(month, today);
  return plusDays(last, -((weekdayOf(last) - WEEKDAYS.indexOf(weekday.toLowerCase()) + 7) % 7));
}
function endOfMonthNamed(name: string, today: Day): Day {
  const month = MONTHS.indexOf(name.toLowerCase());
  return fromUtc(new Date(Date.UTC(today.year + (month < today.month ? 1 : 0), month + 1, 0)));
}

const CLOCK_LEAD = '(?:(?:by|before|until|till|at|from|around|about|no later than)\\s+)';
const HALF = '(?:\\s*(a\\.?m\\.?|p\\.?m\\.?|in the morning|in the afternoon|in the evening|at night))';

const CLOCKS: { pattern: RegExp; clock: (m: RegExpMatchArray) => Clock | null }[] = [
  {
    pattern: new RegExp(
      `\\b${CLOCK_LEAD}?(half past|quarter past|a quarter past|quarter to|a quarter to) (${NUMBER_WORD})${HALF}?`,
      'i',
    ),
    clock: (m) => {
      const hour = numberValue(m[2]!);
      if (hour === null || hour > 24) return null;
      const kind = m[1]!.toLowerCase();
      const minute = kind.includes('half') ? 30 : kind.includes('past') ? 15 : 45;
      return halfOfDay(kind.endsWith('to') ? (hour + 23) % 24 || 12 : hour, minute, m[3]);
    },
  },
  {
    // "Half nine" is half past nine where it is said.
    pattern: new RegExp(
      `\\b${CLOCK_LEAD}?half (one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)${HALF}?(?=$|[.,;:!?]|\\s+(?:and|or|on|today|tomorrow|tonight|this|next|sharp|for|with|so|in|if|because|at|${WEEKDAY}))`,
      'i',
    ),
    clock: (m) => halfOfDay(numberValue(m[1]!) ?? 25, 30, m[2]),
  },
  {
    pattern: new RegExp(`\\b${CLOCK_LEAD}?(${NUMBER_WORD})(?: minutes)? (past|to) (${NUMBER_WORD})${HALF}?`, 'i'),
    clock: (m) => {
      const minute = numberValue(m[1]!);
      const hour = numberValue(m[3]!);
      if (minute === null || hour === null || minute > 59 || hour > 12 || minute % 5 !== 0) return null;
      return m[2]!.toLowerCase() === 'past'
        ? halfOfDay(hour, minute, m[4])
        : halfOfDay(hour === 1 ? 12 : hour - 1, 60 - minute, m[4]);
    },
  },
  {
    pattern: new RegExp(`\\b${CLOCK_LEAD}?(\\d{1,2})[:.](\\d{2})${HALF}?(?!\\d| ?(?:per|%|metres|kilo))`, 'i'),
    clock: (m) => halfOfDay(Number(m[1]), Number(m[2]), m[3]),
  },
  {
    pattern: new RegExp(
      `\\b${CLOCK_LEAD}?(${NUMBER_WORD})(?: (thirty|fifteen|forty-five|forty five|twenty|ten))?(?: o'?clock)${HALF}?|\\b${CLOCK_LEAD}?(${NUMBER_WORD})(?: (thirty|fifteen|forty-five|forty five))?${HALF}`,
      'i',
    ),
    clock: (m) => {
      const hour = numberValue((m[1] ?? m[4])!);
      const minute = numberValue(m[2] ?? m[5] ?? '0');
      return hour === null || minute === null ? null : halfOfDay(hour, minute, m[3] ?? m[6]);
    },
  },
  {
    pattern: new RegExp(
      `(?<!\\d )\\b(?:by|before|until|till|at)\\s+(${NUMBER_WORD})(?: (thirty|fifteen|forty-five|forty five))?(?=$|[.,;!?]|\\s+(?:and|on|today|tomorrow|tonight|this|next|sharp|for|with|so|because|${WEEKDAY}))`,
      'i',
    ),
    clock: (m) => {
      const hour = numberValue(m[1]!);
      const minute = numberValue(m[2] ?? '0');
      return hour === null || minute === null || hour > 24 || hour === 0 ? null : halfOfDay(hour, minute);
    },
  },
  {
    pattern: new RegExp(`\\b${CLOCK_LEAD}?(?:noon|midday)\\b|\\b${CLOCK_LEAD}lunch(?:time)?\\b`, 'i'),
    clock: () => ({ hour: 12, minute: 0 }),
  },
  { pattern: new RegExp(`\\b${CLOCK_LEAD}?midnight\\b`, 'i'), clock: () => ({ hour: 23, minute: 59 }) },
];

/** Without a half of the day said, one to six means the afternoon and seven to twelve the day. Common practice, no source. */
function halfOfDay(hour: number, minute: number, said?: string): Clock | null {
  if (hour > 24 || minute > 59) return null;
  const half = said?.toLowerCase().replace(/\./g, '') ?? '';
  if (hour > 12) return { hour: hour % 24, minute };
  if (/^am|morning/.test(half)) return { hour: hour % 12, minute };
  if (/^pm|afternoon|evening|night/.test(half)) return { hour: (hour % 12) + 12, minute };
  return { hour: hour < 7 ? hour + 12 : hour, minute };
}

/**
 * The date or time that a phrase names, or null.
 * @param text one sentence or clause
 * @param at when it was said: local date and time, `2026-03-09T07:40`
 */
export function spokenDate(text: string, at: string): SpokenDate | null {
  const [datePart, timePart = '00:00'] = at.split('T') as [string, string?];
  const [year, month, dayOfMonth] = datePart.split('-').map(Number) as [number, number, number];
  const today: Day = { year, month: month - 1, day: dayOfMonth };
  const plain = text.replace(/’/g, "'");
  const clock = findClock(plain);
  const rest = clock ? blank(plain, clock.start, clock.end) : plain;
  const day = findDay(rest, today) ?? writtenDay(rest, today, timePart);
  if (!clock && !day) return null;
  const date = day?.day ?? today;
  if (clock && clock.clock.hour < 12 && /\b(?:tonight|evening)\b/i.test(plain)) clock.clock.hour += 12;
  const start = Math.min(clock?.start ?? Infinity, day?.start ?? Infinity);
  const end = Math.max(clock?.end ?? 0, day?.end ?? 0);
  const iso = toUtc(date).toISOString().slice(0, 10);
  const two = (n: number) => String(n).padStart(2, '0');
  return { due: clock ? `${iso}T${two(clock.clock.hour)}:${two(clock.clock.minute)}` : iso, start, end };
}

const blank = (text: string, start: number, end: number): string =>
  text.slice(0, start) + ' '.repeat(end - start) + text.slice(end);

function findClock(text: string): { clock: Clock; start: number; end: number } | null {
  for (const { pattern, clock } of CLOCKS) {
    const match = pattern.exec(text);
    const found = match && clock(match);
    if (found) return { clock: found, start: match.index, end: match.index + match[0].length };
  }
  return null;
}

/** What is said first counts; of two readings that begin at one place, the rule that stands first. */
function findDay(text: string, today: Day): { day: Day; start: number; end: number } | null {
  let first: { match: RegExpExecArray; day: Rule['day'] } | null = null;
  for (const { pattern, day } of RULES) {
    const match = pattern.exec(text);
    if (match && (!first || overlaps(match, first.match) ? !first : match.index < first.match.index))
      first = { match, day };
  }
  const found = first?.day(first.match, today);
  // A day that the calendar has not ("the thirtieth of February") is not turned into another one.
  return found && first
    ? { day: found, start: first.match.index, end: first.match.index + first.match[0].length }
    : null;
}

const overlaps = (a: RegExpExecArray, b: RegExpExecArray): boolean =>
  a.index < b.index + b[0].length && b.index < a.index + a[0].length;

/** Written dates such as 2026-05-12 or 12/05/2026, by chrono-node; only where a day and a month are certain. */
function writtenDay(text: string, today: Day, time: string) {
  if (!/\d/.test(text)) return null;
  const [hour, minute] = time.split(':').map(Number) as [number, number];
  const reference = new Date(today.year, today.month, today.day, hour, minute);
  const match = chrono.en.GB.parse(text, reference, { forwardDate: true }).find(
    (r) => r.start.isCertain('day') && r.start.isCertain('month') && /\d/.test(r.text),
  );
  if (!match) return null;
  const lead = /(?:by|before|until|on|due)\s+$/i.exec(text.slice(0, match.index))?.[0].length ?? 0;
  const d = match.start;
  return {
    day: { year: d.get('year')!, month: d.get('month')! - 1, day: d.get('day')! },
    start: match.index - lead,
    end: match.index + match.text.length,
  };
}
