import ICAL from 'ical.js';
import type { RequestHandler } from 'express';

/** Where the stand-in calendar is served in the demo: an outside calendar that is none. */
export const STAND_IN_FEED = '/standins/calendar.ics';

/** Tells the stand-in from real calendars, wherever its text went. */
export const STAND_IN_NAME = '-//Immeld//Stand-in calendar//EN';

type Entry = {
  title: string;
  day: number;
  hour: number;
  minutes: number;
  place?: string;
  people?: string[];
  rule?: string;
};

/** Days are counted from today, in the invented town of Harrowmere. */
const ENTRIES: Entry[] = [
  {
    title: 'Lamp cables: which trench first',
    day: 0,
    hour: 10,
    minutes: 60,
    place: 'Town hall, room 3',
    people: ['Ottoline Reyes'],
  },
  {
    title: 'Planting day, planning',
    day: 0,
    hour: 14,
    minutes: 45,
    place: 'School orchard',
    people: ['Jun Fairweather', 'Bram Vantongeren'],
  },
  {
    title: 'Soil course: lecture',
    day: 0,
    hour: 18,
    minutes: 90,
    place: 'Evening college, room 4',
    people: ['Professor Idris Malmquist'],
    rule: 'FREQ=WEEKLY',
  },
  {
    title: 'Walk the quay with Bram',
    day: -1,
    hour: 8,
    minutes: 45,
    place: 'Quayside, old crane',
    people: ['Bram Vantongeren'],
  },
  { title: 'Dentist', day: 2, hour: 9, minutes: 30, place: 'Petra Sund, reception' },
];

/** The stand-in calendar as iCalendar text, around a day. */
export function standInCalendar(today = new Date()): string {
  const calendar = new ICAL.Component(['vcalendar', [], []]);
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', STAND_IN_NAME);
  for (const [i, entry] of ENTRIES.entries()) {
    const event = new ICAL.Event(new ICAL.Component('vevent'));
    event.uid = `stand-in-${i}@harrowmere.example`;
    event.summary = entry.title;
    const date = new Date(today.getFullYear(), today.getMonth(), today.getDate() + entry.day);
    const start = new ICAL.Time(
      {
        ...{ year: date.getFullYear(), month: date.getMonth() + 1, day: date.getDate() },
        ...{ hour: entry.hour, minute: 0, second: 0, isDate: false },
      },
      ICAL.Timezone.localTimezone,
    );
    event.startDate = start;
    const end = start.clone();
    end.adjust(0, 0, entry.minutes, 0);
    event.endDate = end;
    if (entry.place) event.location = entry.place;
    if (entry.rule) event.component.addPropertyWithValue('rrule', ICAL.Recur.fromString(entry.rule));
    for (const person of entry.people ?? []) {
      const attendee = event.component.addPropertyWithValue(
        'attendee',
        `mailto:${person.toLowerCase().replace(/\W+/g, '.')}@harrowmere.example`,
      );
      attendee.setParameter('cn', person);
    }
    calendar.addSubcomponent(event.component);
  }
  return calendar.toString();
}

export const serveStandInCalendar: RequestHandler = (_request, response) => {
  response.type('text/calendar').send(standInCalendar());
};
