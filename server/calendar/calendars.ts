import type { Appointment } from '@immeld/core/contract/appointments';
import { Problem } from '@immeld/core/contract/problem';
import { CalendarRow } from '../models/calendar';
import { quickTasks } from '../tasks/taskPool';
import { AddressBlocked, type OutboundClient, readTextWithin } from '../outbound/outboundClient';
import { CalendarError, isZone } from './occurrences';

const MAX_BYTES = 5_000_000;
const MAX_WAIT_MS = 10_000;
/** A recording that begins a little before its appointment belongs to it. */
const EARLY_MINUTES = 10;

/** Following the rules of a calendar that takes longer is given up. */
const MAX_READING_MS = 2000;
const TOO_LONG = 'The repeating events of this calendar take too long to work out, so it is not shown.';

/** Contents that were given up; the same are not tried again. */
const givenUp = new Map<string, string>();

/** Fetches a feed. Throws CalendarError with a sentence; what was fetched before stays. */
export async function fetchFeed(address: string, outside: OutboundClient): Promise<string> {
  const signal = AbortSignal.timeout(MAX_WAIT_MS);
  let content: string | null;
  try {
    const response = await outside.fetch(address.replace(/^webcal:/i, 'https:'), { signal });
    if (!response.ok)
      throw new CalendarError(
        `The calendar’s server reported error ${response.status}. The appointments loaded earlier stay.`,
      );
    content = await readTextWithin(response, MAX_BYTES);
  } catch (error) {
    if (error instanceof CalendarError) throw error;
    if (error instanceof AddressBlocked) throw new CalendarError(error.message);
    throw new CalendarError('The calendar’s server cannot be reached. The appointments loaded earlier stay.');
  }
  if (content === null) throw new CalendarError('This calendar is too large (more than 5 million characters).');
  await checkCalendar(content);
  return content;
}

/** Throws CalendarError where a text is no calendar. */
export async function checkCalendar(content: string): Promise<void> {
  const problem = await quickTasks.run({ kind: 'calendar', content });
  if (problem) throw new CalendarError(problem);
}

/** Fetches a feed anew; a failure is kept with the calendar as a sentence. */
export async function refresh(row: CalendarRow, outside: OutboundClient): Promise<void> {
  if (!row.address) return;
  try {
    await row.update({ content: await fetchFeed(row.address, outside), fetchedAt: new Date(), problem: null });
  } catch (error) {
    if (!(error instanceof CalendarError)) throw error;
    await row.update({ problem: error.message });
  }
}

/** All appointments that touch these days, in the person's time zone. */
export async function appointmentsBetween(from: string, to: string, zone: string): Promise<Appointment[]> {
  const rows = await CalendarRow.findAll();
  const ofEach = await Promise.all(
    rows.map((row) => occurrencesOf(row, { from, to, zone: isZone(zone) ? zone : serverZone() })),
  );
  return ofEach.flat().sort((a, b) => a.start.localeCompare(b.start));
}

async function occurrencesOf(
  row: CalendarRow,
  days: { from: string; to: string; zone: string },
): Promise<Appointment[]> {
  const { id: calendarId, content } = row;
  if (givenUp.get(calendarId) === content) return [];
  try {
    const task = { kind: 'occurrences', calendarId, content, ...days } as const;
    return await quickTasks.run(task, { limitMs: MAX_READING_MS });
  } catch (error) {
    if (error instanceof Problem && error.code === 'too-many') throw error;
    // One calendar that cannot be followed must not hide the others.
    givenUp.set(calendarId, content);
    await row.update({ problem: TOO_LONG });
    return [];
  }
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
