/** Stretches of days that a question names, seen from the day on which it is asked. Weeks begin on Monday (ISO 8601). */
export type Period = {
  /** First and last day, `2026-05-12`. */
  from: string;
  to: string;
  /** As it was asked: "last week". */
  name: string;
};

const DAY_MS = 86_400_000;
const WEEKDAYS = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'];
const MONTHS = [
  ...['january', 'february', 'march', 'april', 'may', 'june', 'july', 'august', 'september', 'october'],
  ...['november', 'december'],
];
const COUNTS = ['two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'];

type Days = readonly [from: number, to: number];

const dayOf = (date: string): number => Date.parse(`${date}T00:00:00Z`) / DAY_MS;
const dateOf = (day: number): string => new Date(day * DAY_MS).toISOString().slice(0, 10);
const weekdayOf = (day: number): number => (((day + 4) % 7) + 7) % 7;
const mondayOf = (day: number): number => day - ((weekdayOf(day) + 6) % 7);
const monthOf = (day: number, ahead: number): Days => {
  const date = new Date(day * DAY_MS);
  const [year, month] = [date.getUTCFullYear(), date.getUTCMonth() + ahead];
  return [Date.UTC(year, month, 1) / DAY_MS, Date.UTC(year, month + 1, 0) / DAY_MS];
};
const countOf = (text: string | undefined): number =>
  !text || /^(?:couple of|few)$/.test(text) ? (text === 'few' ? 3 : 2) : Number(text) || COUNTS.indexOf(text) + 2;

const COUNT = `(\\d{1,3}|${COUNTS.join('|')}|couple of|few)`;

const RULES: { pattern: RegExp; days: (today: number, match: RegExpExecArray) => Days }[] = [
  { pattern: /\b(?:the )?day before yesterday\b/, days: (t) => [t - 2, t - 2] },
  { pattern: /\byesterday(?: (?:morning|afternoon|evening))?\b/, days: (t) => [t - 1, t - 1] },
  { pattern: /\blast night\b/, days: (t) => [t - 1, t - 1] },
  { pattern: /\b(?:today|this (?:morning|afternoon|evening)|tonight)\b/, days: (t) => [t, t] },
  { pattern: /\b(?:in |during )?(?:the )?last week\b/, days: (t) => [mondayOf(t) - 7, mondayOf(t) - 1] },
  { pattern: /\b(?:in |during )?(?:the )?week before last\b/, days: (t) => [mondayOf(t) - 14, mondayOf(t) - 8] },
  { pattern: /\b(?:in |during )?this week\b/, days: (t) => [mondayOf(t), mondayOf(t) + 6] },
  { pattern: /\b(?:at |on )?(?:the )?last weekend\b/, days: (t) => [mondayOf(t) - 2, mondayOf(t) - 1] },
  { pattern: /\b(?:in |during )?(?:the )?last month\b/, days: (t) => monthOf(t, -1) },
  { pattern: /\b(?:in |during )?this month\b/, days: (t) => monthOf(t, 0) },
  { pattern: /\b(?:in |during )?this year\b/, days: (t) => [dayOf(`${dateOf(t).slice(0, 4)}-01-01`), t] },
  {
    pattern: new RegExp(`\\b(?:in |during |over )?(?:the )?(?:last|past) ${COUNT} (day|week|month)s\\b`),
    days: (t, m) => [t - countOf(m[1]) * { day: 1, week: 7, month: 30 }[m[2] as 'day']! + 1, t],
  },
  {
    pattern: new RegExp(`\\b${COUNT} (day|week)s ago\\b`),
    days: (t, m) => {
      const n = countOf(m[1]);
      return m[2] === 'day' ? [t - n, t - n] : [mondayOf(t) - 7 * n, mondayOf(t) - 7 * n + 6];
    },
  },
  {
    pattern: new RegExp(`\\b(?:on |last )(${WEEKDAYS.join('|')})\\b`),
    days: (t, m) => {
      const back = (weekdayOf(t) - WEEKDAYS.indexOf(m[1]!) + 7) % 7 || 7;
      return [t - back, t - back];
    },
  },
  {
    pattern: new RegExp(`\\b(?:in |during |last )(${MONTHS.join('|')})(?: (\\d{4}))?\\b`),
    days: (t, m) => {
      const month = MONTHS.indexOf(m[1]!);
      const now = new Date(t * DAY_MS);
      const year = m[2] ? Number(m[2]) : now.getUTCFullYear() - (month > now.getUTCMonth() ? 1 : 0);
      return [Date.UTC(year, month, 1) / DAY_MS, Date.UTC(year, month + 1, 0) / DAY_MS];
    },
  },
  {
    pattern: /\b(?:on )?(\d{4}-\d{2}-\d{2})\b/,
    days: (_, m) => [dayOf(m[1]!), dayOf(m[1]!)],
  },
];

/**
 * The period that a question names, and the question without it; null when it names none.
 * @param today the day on which it is asked, `2026-05-12`
 */
export function periodIn(question: string, today: string): { period: Period; rest: string } | null {
  const text = question.toLowerCase();
  for (const { pattern, days } of RULES) {
    const match = pattern.exec(text);
    if (!match) continue;
    const [from, to] = days(dayOf(today), match);
    if (Number.isNaN(from)) continue;
    const name = match[0].replace(/^(?:in|during|over|on|at) /, '').replace(/^the /, '');
    const rest = question.slice(0, match.index) + question.slice(match.index + match[0].length);
    return { period: { from: dateOf(from), to: dateOf(to), name }, rest };
  }
  return null;
}
