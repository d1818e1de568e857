const DAYS: Record<string, string> = {
  ...{ MO: 'Monday', TU: 'Tuesday', WE: 'Wednesday', TH: 'Thursday', FR: 'Friday', SA: 'Saturday', SU: 'Sunday' },
};
const UNITS: Record<string, string> = { DAILY: 'day', WEEKLY: 'week', MONTHLY: 'month', YEARLY: 'year' };

const ordinal = (n: number): string => {
  const ending = n % 100 >= 11 && n % 100 <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${ending}`;
};
const joined = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** A rule of repetition (RFC 5545, 3.3.10) as people say it: "every Tuesday and Friday", "every 2 weeks". */
export function repeatName(rule: string): string {
  const parts = new Map(rule.split(';').map((part) => part.split('=') as [string, string]));
  const unit = UNITS[parts.get('FREQ') ?? ''] ?? 'time';
  const interval = Number(parts.get('INTERVAL') ?? 1);
  const days = (parts.get('BYDAY') ?? '').split(',').flatMap((code) => DAYS[code] ?? []);
  const ofMonth = Number(parts.get('BYMONTHDAY') ?? 0);
  if (days.length === 5 && !days.includes('Saturday') && !days.includes('Sunday')) return 'every weekday';
  if (days.length)
    return `every ${interval === 2 ? 'other ' : interval > 2 ? `${ordinal(interval)} ` : ''}${joined(days)}`;
  if (ofMonth === -1) return 'on the last day of every month';
  if (ofMonth > 0) return `on the ${ordinal(ofMonth)} of every month`;
  return interval > 1 ? `every ${interval} ${unit}s` : `every ${unit}`;
}
