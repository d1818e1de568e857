import type { Appointment } from '@immeld/core/contract/appointments';
import type ICAL from 'ical.js';
import { CalendarRow } from '../models/calendar';
import { CalendarError, isZone, occurrences, readCalendar } from './occurrences';

const LARGEST_BYTES = 5_000_000;
const LONGEST_WAIT_MS = 10_000;
/** A recording that begins a little before its appointment belongs to it. */
const EARLY_MINUTES = 10;

const parsed = new WeakMap<CalendarRow, { content: string; calendar: ICAL.Component }>();

/** Fetches a feed. Throws CalendarError with a sentence; what was fetched before stays. */
export async function fetchFeed(address: string): Promise<string> {
  let response: Response;
  try {
    response = await fetch(address.replace(/^webcal:/i, 'https:'), { signal: AbortSignal.timeout(LONGEST_WAIT_MS) });
  } catch {
    throw new CalendarError('The calendar’s server does not answer. The appointments that were fetched before stay.');
  }
  if (!response.ok) throw new CalendarError(`The calendar’s server answered with the error ${response.status}.`);
  const content = await response.text();
  if (content.length > LARGEST_BYTES) throw new CalendarError('This calendar is larger than 5 million characters.');
  readCalendar(content);
  return content;
}

/** Fetches a feed anew; a failure is kept with the calendar as a sentence. */
export async function refresh(row: CalendarRow): Promise<void> {
  if (!row.address) return;
  try {
    await row.update({ content: await fetchFeed(row.address), fetchedAt: new Date(), problem: null });
  } catch (error) {
    if (!(error instanceof CalendarError)) throw error;
    await row.update({ problem: error.message });
  }
}

/** All appointments that touch these days, in the person's time zone. */
export async function appointmentsBetween(from: string, to: string, zone: string): Promise<Appointment[]> {
  const all = (await CalendarRow.findAll()).flatMap((row) => {
    let known = parsed.get(row);
    if (known?.content !== row.content) {
      known = { content: row.content, calendar: readCalendar(row.content) };
      parsed.set(row, known);
    }
    return occurrences(known.calendar, row.id, { from, to, zone: isZone(zone) ? zone : serverZone() });
  });
  return all.sort((a, b) => a.start.localeCompare(b.start));
}

export const serverZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

const minutesBefore = (local: string, minutes: number): string =>
  new Date(new Date(`${local}Z`).getTime() - minutes * 60_000).toISOString().slice(0, 19);

/**
 * The appointment during which a recording was started: the one that was asked for, else the one that began last.
 * Whole days are no appointments to be recorded.
 */
export async function appointmentFor(
  startedAt: string,
  zone: string | null,
  askedId: string | null = null,
): Promise<Appointment | null> {
  const day = startedAt.slice(0, 10);
  const all = await appointmentsBetween(day, day, zone ?? serverZone());
  const asked = all.find((a) => a.id === askedId);
  if (asked) return asked;
  const running = all.filter(
    (a) => !a.isWholeDay && minutesBefore(a.start, EARLY_MINUTES) <= startedAt && startedAt < a.end,
  );
  return running.at(-1) ?? null;
}
