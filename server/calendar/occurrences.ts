import type { Appointment } from '@immeld/core/contract/appointments';
import { TZDate } from '@date-fns/tz';
import ICAL from 'ical.js';

/** Occurrences looked at for one event, so that a rule without an end cannot run for ever. */
const MAX_OCCURRENCES = 50_000;

export class CalendarError extends Error {}

/** Local time as text: `2026-03-09T14:00:00`. */
function localText(instant: Date, zone: string): string {
  return new TZDate(instant.getTime(), zone).toISOString().slice(0, 19);
}

const wallText = (time: ICAL.Time): string => time.toString().slice(0, 19);

/**
 * A time of the calendar as local time of the person. Whole days and floating times are the same everywhere
 * (RFC 5545, 3.3.5); others are an instant, in UTC, in a zone that the file describes, or in one known by its name.
 */
function toLocal(time: ICAL.Time, zoneName: string | null, zone: string): string {
  if (time.isDate) return `${time.toString().slice(0, 10)}T00:00:00`;
  if (time.zone && time.zone.tzid === 'UTC') return localText(time.toJSDate(), zone);
  const isDescribed = time.zone && time.zone.tzid !== 'floating';
  if (isDescribed) return localText(new Date(time.toUnixTime() * 1000), zone);
  if (zoneName && isZone(zoneName)) {
    const there = new TZDate(time.year, time.month - 1, time.day, time.hour, time.minute, time.second, zoneName);
    return localText(there, zone);
  }
  return wallText(time);
}

export function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

const nameOf = (property: ICAL.Property): string | null => {
  const name = property.getParameter('cn');
  if (typeof name === 'string' && name.trim()) return name.trim();
  const value = property.getFirstValue();
  return typeof value === 'string' ? value.replace(/^mailto:/i, '') : null;
};

/** Reads iCalendar text. Throws CalendarError with a sentence when it is none. */
export function readCalendar(content: string): ICAL.Component {
  try {
    const calendar = new ICAL.Component(ICAL.parse(content) as unknown[]);
    if (calendar.name !== 'vcalendar') throw new Error('not a calendar');
    return calendar;
  } catch {
    throw new CalendarError('This is not an iCalendar file. It must begin with BEGIN:VCALENDAR.');
  }
}

/**
 * The occurrences of all events of a calendar that touch a stretch of days, exceptions and cancelled ones observed.
 * @param from first day, `2026-03-09` @param to last day, inclusive @param zone IANA name of the person's time zone
 */
export function occurrences(
  calendar: ICAL.Component,
  calendarId: string,
  { from, to, zone }: { from: string; to: string; zone: string },
): Appointment[] {
  const zones = calendar.getAllSubcomponents('vtimezone').map((component) => new ICAL.Timezone(component));
  const known = new Map(zones.map((z) => [z.tzid, z]));
  const found: Appointment[] = [];
  const first = `${from}T00:00:00`;
  const last = `${to}T23:59:59`;
  for (const component of calendar.getAllSubcomponents('vevent')) {
    if (component.hasProperty('recurrence-id')) continue;
    const event = new ICAL.Event(component);
    const add = (item: ICAL.Event, startTime: ICAL.Time, endTime: ICAL.Time, key: string): boolean => {
      const zoneName = zoneOf(item.component);
      const described = zoneName ? known.get(zoneName) : undefined;
      if (described) for (const time of [startTime, endTime]) if (!time.isDate) time.zone = described;
      const start = toLocal(startTime, zoneName, zone);
      const end = toLocal(endTime, zoneName, zone);
      const isCancelled = String(item.component.getFirstPropertyValue('status') ?? '').toUpperCase() === 'CANCELLED';
      const touches = start <= last && (end > first || (start === end && start >= first));
      if (touches && !isCancelled) {
        found.push({
          id: `${calendarId}:${item.uid}:${key}`,
          calendarId,
          title: item.summary ?? '',
          ...{ start, end, isWholeDay: startTime.isDate },
          place: item.location || null,
          people: [
            ...new Set(
              [...item.component.getAllProperties('organizer'), ...item.attendees]
                .map(nameOf)
                .filter((n) => n !== null),
            ),
          ],
        });
      }
      return start <= last;
    };
    if (!event.startDate) continue;
    if (!event.isRecurring()) {
      add(event, event.startDate.clone(), event.endDate.clone(), '');
      continue;
    }
    const iterator = event.iterator();
    for (let i = 0; i < MAX_OCCURRENCES; i++) {
      const next = iterator.next();
      if (!next) break;
      const { item, startDate, endDate } = event.getOccurrenceDetails(next);
      // A moved occurrence may lie before its place in the row: only the row itself tells when to stop.
      add(item, startDate.clone(), endDate.clone(), wallText(next));
      if (`${next.toString().slice(0, 10)}T00:00:00` > dayAfter(last)) break;
    }
  }
  return found.sort((a, b) => a.start.localeCompare(b.start) || a.title.localeCompare(b.title));
}

/** Two days more, because the calendar's own zone may be ahead of the person's. */
function dayAfter(local: string): string {
  const date = new Date(`${local.slice(0, 10)}T00:00:00Z`);
  return new Date(date.getTime() + 2 * 86_400_000).toISOString().slice(0, 19);
}

function zoneOf(component: ICAL.Component): string | null {
  const zone = component.getFirstProperty('dtstart')?.getParameter('tzid');
  return typeof zone === 'string' ? zone : null;
}
