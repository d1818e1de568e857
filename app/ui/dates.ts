import { differenceInCalendarDays, format, parseISO } from 'date-fns';

const two = (n: number): string => String(n).padStart(2, '0');

/** Local date and time without offset: `2026-03-09T07:40:12`. */
export const localTime = (date: Date): string => format(date, "yyyy-MM-dd'T'HH:mm:ss");
export const localDay = (date: Date): string => format(date, 'yyyy-MM-dd');

/** "today", "yesterday", "Tuesday" within a week, else "12 May" or "12 May 2025". */
export function dayName(iso: string, now = new Date()): string {
  const date = parseISO(iso.slice(0, 10));
  const days = differenceInCalendarDays(date, now);
  if (days === 0) return 'today';
  if (days === -1) return 'yesterday';
  if (days === 1) return 'tomorrow';
  if (Math.abs(days) < 7) return format(date, 'EEEE');
  return format(date, date.getFullYear() === now.getFullYear() ? 'd MMM' : 'd MMM yyyy');
}

/** "today 7:28" */
export const whenSaid = (iso: string): string => `${dayName(iso)} ${Number(iso.slice(11, 13))}:${iso.slice(14, 16)}`;

/** Beginnings of the parts of a day, by the hour. */
const DAY_PARTS: readonly { from: number; name: string }[] = [
  { from: 5, name: 'morning' },
  { from: 12, name: 'afternoon' },
  { from: 18, name: 'evening' },
];

/** What a recording is called that has no title: "Monday evening, 23:05", later "12 May, evening, 23:05". */
export function spokenName(iso: string, now = new Date()): string {
  const hour = Number(iso.slice(11, 13));
  const part = DAY_PARTS.findLast(({ from }) => hour >= from)?.name ?? 'night';
  const day = parseISO(iso.slice(0, 10));
  const isRecent = Math.abs(differenceInCalendarDays(day, now)) < 7;
  const name = isRecent ? `${format(day, 'EEEE')} ${part}` : `${dayName(iso, now)}, ${part}`;
  return `${name}, ${hour}:${iso.slice(14, 16)}`;
}

/** A due date as it stands with a to-do: "today 12:00", "Friday". */
export const dueName = (due: string): string =>
  due.length > 10 ? `${dayName(due)} ${Number(due.slice(11, 13))}:${due.slice(14, 16)}` : dayName(due);

/** "by Friday", or where it is late "was due yesterday"; null without a date. */
export function dueWords({ due, isDone }: { due: string | null; isDone: boolean }): string | null {
  if (!due) return null;
  const isLate = !isDone && due.slice(0, 10) < localDay(new Date());
  return `${isLate ? 'was due' : 'by'} ${dueName(due)}`;
}

/** "48 s", "3 min", "1 h 12 min" */
export function lengthName(ms: number): string {
  const seconds = Math.round(ms / 1000);
  if (seconds < 60) return `${seconds} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${two(minutes % 60)} min`;
}

export function sizeName(bytes: number): string {
  if (bytes < 1024) return `${bytes} B`;
  if (bytes < 1024 ** 2) return `${Math.round(bytes / 1024)} kB`;
  return `${(bytes / 1024 ** 2).toFixed(1)} MB`;
}
