/** How often something is to be done, from how people say it: as a recurrence rule (RFC 5545, 3.3.10). */
import { NUMBER_WORD, ORDINAL_WORD, numberValue, ordinalValue } from './spokenNumbers';

/** `due` is the first day, ISO; `start`/`end` delimit the phrase in the text. */
export type SpokenRepeat = { rule: string; due: string; start: number; end: number };

const DAYS = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'];
const CODES = ['SU', 'MO', 'TU', 'WE', 'TH', 'FR', 'SA'];
const DAY = `(?:${DAYS.join('|')})s?`;
const DAY_LIST = `${DAY}(?:(?:, | and |, and | or )${DAY})*`;

type Reading = { pattern: RegExp; rule: (match: RegExpExecArray, today: Date) => { rule: string; first: Date } | null };

const plus = (day: Date, days: number): Date => new Date(day.getTime() + days * 86_400_000);
const nextOf = (today: Date, weekdays: readonly number[]): Date => {
  for (let ahead = 1; ahead <= 7; ahead++) {
    const day = plus(today, ahead);
    if (weekdays.includes(day.getUTCDay())) return day;
  }
  return today;
};
const weekdaysIn = (text: string): number[] =>
  DAYS.flatMap((name, i) => (new RegExp(`\\b${name}s?\\b`, 'i').test(text) ? [i] : []));
const weekly = (days: readonly number[], today: Date, interval = 1) => ({
  rule: `FREQ=WEEKLY${interval > 1 ? `;INTERVAL=${interval}` : ''};BYDAY=${[...days]
    .sort((a, b) => ((a + 6) % 7) - ((b + 6) % 7))
    .map((d) => CODES[d])
    .join(',')}`,
  first: nextOf(today, days),
});
const nextDayOfMonth = (today: Date, day: number): Date => {
  for (let ahead = 0; ; ahead++) {
    const date = new Date(Date.UTC(today.getUTCFullYear(), today.getUTCMonth() + ahead, day));
    if (date.getUTCDate() === day && date > today) return date;
  }
};
const UNITS: Record<string, string> = { day: 'DAILY', week: 'WEEKLY', month: 'MONTHLY', year: 'YEARLY' };

const READINGS: Reading[] = [
  {
    pattern: new RegExp(`\\b(?:on )?(?:the )?(${ORDINAL_WORD}) of (?:every|each) month\\b`, 'i'),
    rule: (m, today) => {
      const day = ordinalValue(m[1]!);
      return day && day <= 31 ? { rule: `FREQ=MONTHLY;BYMONTHDAY=${day}`, first: nextDayOfMonth(today, day) } : null;
    },
  },
  {
    pattern: /\b(?:at |on )?(?:the )?(?:end|last day) of (?:every|each) month\b/i,
    rule: (_, today) => ({
      rule: 'FREQ=MONTHLY;BYMONTHDAY=-1',
      first: new Date(Date.UTC(today.getUTCFullYear(), today.getUTCMonth() + 1, 0)),
    }),
  },
  {
    pattern: new RegExp(`\\b(?:on )?every (?:other|second) (${DAY_LIST})\\b`, 'i'),
    rule: (m, today) => weekly(weekdaysIn(m[1]!), today, 2),
  },
  {
    pattern: new RegExp(`\\b(?:on )?(?:every|each) (${DAY_LIST})(?: (?:morning|afternoon|evening|night))?\\b`, 'i'),
    rule: (m, today) => weekly(weekdaysIn(m[1]!), today),
  },
  {
    pattern: /\b(?:on )?(?:every|each) (?:weekday|working day)\b/i,
    rule: (_, today) => weekly([1, 2, 3, 4, 5], today),
  },
  {
    pattern: /\b(?:every|each) (day|morning|afternoon|evening|night)\b|\bdaily\b/i,
    rule: (m, today) => ({
      rule: 'FREQ=DAILY',
      first: /morning|afternoon/i.test(m[1] ?? '') ? plus(today, 1) : today,
    }),
  },
  {
    pattern: new RegExp(`\\bevery (?:(other|second)|(${NUMBER_WORD})) (day|week|month|year)s?\\b`, 'i'),
    rule: (m, today) => {
      const interval = m[1] ? 2 : numberValue(m[2]!);
      return interval ? { rule: `FREQ=${UNITS[m[3]!.toLowerCase()]};INTERVAL=${interval}`, first: today } : null;
    },
  },
  {
    pattern:
      /\b(?:(?:every|each) (week|month|year)|(?:once|twice|three times) a (week|month|year)|(weekly|monthly|yearly))\b/i,
    rule: (m, today) => ({
      rule: `FREQ=${(m[3] ?? `${UNITS[(m[1] ?? m[2])!.toLowerCase()]}`).toUpperCase()}`,
      first: today,
    }),
  },
];

/**
 * The repetition that a phrase names, or null.
 * @param at when it was said: local date and time, `2026-03-09T07:40`
 */
export function spokenRepeat(text: string, at: string): SpokenRepeat | null {
  const today = new Date(`${at.slice(0, 10)}T00:00:00Z`);
  for (const { pattern, rule } of READINGS) {
    const match = pattern.exec(text);
    const found = match && rule(match, today);
    if (found) {
      return {
        ...{ rule: found.rule, due: found.first.toISOString().slice(0, 10) },
        ...{ start: match.index, end: match.index + match[0].length },
      };
    }
  }
  return null;
}
