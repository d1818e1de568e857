import { CalendarError, occurrences, readCalendar } from './occurrences';

const ID = '00000000-0000-4000-8000-000000000000';
const calendar = (...lines: string[]) =>
  readCalendar(['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//test//EN', ...lines, 'END:VCALENDAR'].join('\r\n'));
const event = (...lines: string[]) => ['BEGIN:VEVENT', 'UID:e1', 'SUMMARY:Walk', ...lines, 'END:VEVENT'];
const starts = (lines: string[], from: string, to: string, zone = 'America/New_York') =>
  occurrences(calendar(...lines), ID, { from, to, zone }).map((a) => a.start);

/** VTIMEZONE of RFC 5545, 3.6.5, shortened to the rules since 2007. */
const NEW_YORK = [
  'BEGIN:VTIMEZONE',
  'TZID:America/New_York',
  'BEGIN:DAYLIGHT',
  'DTSTART:20070311T020000',
  'RRULE:FREQ=YEARLY;BYDAY=2SU;BYMONTH=3',
  'TZOFFSETFROM:-0500',
  'TZOFFSETTO:-0400',
  'END:DAYLIGHT',
  'BEGIN:STANDARD',
  'DTSTART:20071104T020000',
  'RRULE:FREQ=YEARLY;BYDAY=1SU;BYMONTH=11',
  'TZOFFSETFROM:-0400',
  'TZOFFSETTO:-0500',
  'END:STANDARD',
  'END:VTIMEZONE',
];

describe('recurring events, by the examples of RFC 5545, 3.8.5.3', () => {
  it('daily for 10 occurrences', () => {
    const lines = event('DTSTART;TZID=America/New_York:19970902T090000', 'RRULE:FREQ=DAILY;COUNT=10');
    const days = starts(lines, '1997-09-01', '1997-12-31');
    expect(days).toHaveLength(10);
    expect([days[0], days[9]]).toEqual(['1997-09-02T09:00:00', '1997-09-11T09:00:00']);
  });

  it('every other week on Tuesday and Thursday, for 8 occurrences', () => {
    const lines = event(
      'DTSTART;TZID=America/New_York:19970902T090000',
      'RRULE:FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH',
    );
    expect(starts(lines, '1997-09-01', '1997-12-31').map((s) => s.slice(5, 10))).toEqual([
      ...['09-02', '09-04', '09-16', '09-18', '09-30', '10-02', '10-14', '10-16'],
    ]);
  });

  it('monthly on the second-to-last Monday for 6 months', () => {
    const lines = event('DTSTART;TZID=America/New_York:19970922T090000', 'RRULE:FREQ=MONTHLY;COUNT=6;BYDAY=-2MO');
    expect(starts(lines, '1997-09-01', '1998-12-31').map((s) => s.slice(0, 10))).toEqual([
      ...['1997-09-22', '1997-10-20', '1997-11-17', '1997-12-22', '1998-01-19', '1998-02-16'],
    ]);
  });

  it('every Friday the 13th, the first day itself left out', () => {
    const lines = event(
      'DTSTART;TZID=America/New_York:19970902T090000',
      'EXDATE;TZID=America/New_York:19970902T090000',
      'RRULE:FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
    );
    expect(starts(lines, '1997-09-01', '2000-12-31').map((s) => s.slice(0, 10))).toEqual([
      ...['1998-02-13', '1998-03-13', '1998-11-13', '1999-08-13', '2000-10-13'],
    ]);
  });
});

describe('times', () => {
  const weekly = [...event('DTSTART;TZID=America/New_York:20260302T090000', 'RRULE:FREQ=WEEKLY')];

  it('stay at their hour over the change of clocks, and move in another zone', () => {
    expect(starts([...NEW_YORK, ...weekly], '2026-03-01', '2026-03-20')).toEqual([
      ...['2026-03-02T09:00:00', '2026-03-09T09:00:00', '2026-03-16T09:00:00'],
    ]);
    // New York changes three weeks before Berlin: six hours apart, then five.
    expect(starts([...NEW_YORK, ...weekly], '2026-03-01', '2026-03-20', 'Europe/Berlin')).toEqual([
      ...['2026-03-02T15:00:00', '2026-03-09T14:00:00', '2026-03-16T14:00:00'],
    ]);
  });

  it('are the same whether the zone is described in the file or only named', () => {
    for (const zone of ['America/New_York', 'Europe/Berlin', 'Asia/Tokyo']) {
      expect(starts(weekly, '2026-03-01', '2026-03-20', zone)).toEqual(
        starts([...NEW_YORK, ...weekly], '2026-03-01', '2026-03-20', zone),
      );
    }
  });

  it('in UTC are moved, floating ones and whole days are the same everywhere', () => {
    expect(starts(event('DTSTART:20260701T120000Z'), '2026-07-01', '2026-07-01', 'Europe/Berlin')).toEqual([
      '2026-07-01T14:00:00',
    ]);
    expect(starts(event('DTSTART:20260701T120000'), '2026-07-01', '2026-07-01', 'Asia/Tokyo')).toEqual([
      '2026-07-01T12:00:00',
    ]);
    const [whole] = occurrences(calendar(...event('DTSTART;VALUE=DATE:20260701')), ID, {
      ...{ from: '2026-07-01', to: '2026-07-01', zone: 'Asia/Tokyo' },
    });
    expect(whole).toMatchObject({ isWholeDay: true, start: '2026-07-01T00:00:00', end: '2026-07-02T00:00:00' });
  });

  it('that cross midnight belong to both days', () => {
    const lines = event('DTSTART:20260701T230000', 'DTEND:20260702T010000');
    expect(starts(lines, '2026-07-01', '2026-07-01')).toHaveLength(1);
    expect(starts(lines, '2026-07-02', '2026-07-02')).toHaveLength(1);
    expect(starts(lines, '2026-07-03', '2026-07-03')).toHaveLength(0);
  });
});

describe('one occurrence', () => {
  const series = event('DTSTART:20260302T090000', 'RRULE:FREQ=DAILY;COUNT=3');

  it('can be moved and renamed', () => {
    const moved = event('RECURRENCE-ID:20260303T090000', 'DTSTART:20260303T150000', 'DTEND:20260303T160000');
    const found = occurrences(calendar(...series, ...moved.map((l) => l.replace('Walk', 'Late walk'))), ID, {
      ...{ from: '2026-03-01', to: '2026-03-31', zone: 'UTC' },
    });
    expect(found.map((a) => [a.start.slice(5, 16), a.title])).toEqual([
      ['03-02T09:00', 'Walk'],
      ['03-03T15:00', 'Late walk'],
      ['03-04T09:00', 'Walk'],
    ]);
    expect(new Set(found.map((a) => a.id)).size).toBe(3);
  });

  it('can be cancelled', () => {
    const cancelled = event('RECURRENCE-ID:20260303T090000', 'DTSTART:20260303T090000', 'STATUS:CANCELLED');
    expect(starts([...series, ...cancelled], '2026-03-01', '2026-03-31')).toHaveLength(2);
  });
});

it('takes place and people along, by their names where they have one', () => {
  const lines = event(
    'DTSTART:20260302T090000',
    'LOCATION:Quay\\, by the crane',
    'ORGANIZER;CN=Tamsin Okwuosa:mailto:t@harrowmere.example',
    'ATTENDEE;CN="Bram Vantongeren":mailto:b@harrowmere.example',
    'ATTENDEE:mailto:o@harrowmere.example',
  );
  const [found] = occurrences(calendar(...lines), ID, { from: '2026-03-02', to: '2026-03-02', zone: 'UTC' });
  expect(found).toMatchObject({
    place: 'Quay, by the crane',
    people: ['Tamsin Okwuosa', 'Bram Vantongeren', 'o@harrowmere.example'],
  });
});

it.each(['', 'hello', '<html>', 'BEGIN:VCARD\r\nEND:VCARD'])('refuses what is no calendar: %j', (content) => {
  expect(() => readCalendar(content)).toThrow(CalendarError);
});
