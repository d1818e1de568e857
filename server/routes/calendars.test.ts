import fs from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Appointment, Calendar } from '@immeld/core/contract/appointments';
import type { Day } from '@immeld/core/contract/find';
import type { Recording } from '@immeld/core/contract/recordings';
import type { SharedSettings } from '@immeld/core/contract/settings';
import { standInCalendar } from '../standIns/calendarFeed';
import type { RunningServer } from '../start';
import { ControlledPool, SPOKEN, startTestServer, temporaryFolder, until, upload } from '../testing/testServer';

const dataFolder = temporaryFolder();
const pool = new ControlledPool();
let server: RunningServer;
/** Somebody else's server with a calendar. */
let feed = { status: 200, content: '' };
const outside = http.createServer((_request, response) => {
  response.writeHead(feed.status, { 'Content-Type': 'text/calendar' }).end(feed.content);
});
let feedAddress = '';

beforeAll(async () => {
  server = await startTestServer(dataFolder, pool);
  await new Promise<void>((resolve) => outside.listen(0, '127.0.0.1', resolve));
  feedAddress = `http://127.0.0.1:${(outside.address() as AddressInfo).port}/calendar.ics`;
});
afterAll(async () => {
  outside.close();
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const ask = async <T>(method: string, address: string, body?: unknown) => {
  const response = await fetch(`${server.address}/api${address}`, {
    method,
    ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
  });
  return { status: response.status, body: (await response.json()) as T & { detail: string } };
};
const ZONE = 'Europe/Berlin';
const meeting = (title: string, from: string, to: string, extra = '') =>
  `BEGIN:VEVENT\r\nUID:${title}\r\nSUMMARY:${title}\r\nDTSTART:${from}\r\nDTEND:${to}\r\n${extra}END:VEVENT\r\n`;
const ics = (...events: string[]) => `BEGIN:VCALENDAR\r\nVERSION:2.0\r\n${events.join('')}END:VCALENDAR\r\n`;

const DAY = '2026-03-09';
const content = ics(
  meeting(
    'Quay walk',
    '20260309T080000',
    '20260309T090000',
    'LOCATION:Old crane\r\nATTENDEE;CN=Bram:mailto:b@x.example\r\n',
  ),
  meeting('Planning', '20260309T130000Z', '20260309T140000Z'),
);

let counter = 0;
const recorded = async (startedAt: string, more: Record<string, string> = {}) => {
  const metadata = { startedAt, source: 'speak', zone: ZONE, ...more };
  const { recordingId } = await upload(server.address, Buffer.from(`said ${counter++}`), 'Spoken.webm', metadata);
  const get = () => ask<Recording>('GET', `/recordings/${recordingId}`).then((r) => r.body);
  return until(get, (r) => r.state === 'ready');
};

describe('calendars', () => {
  let calendar: Calendar;

  it('are brought in as a file, and their appointments stand on the day in the person’s time', async () => {
    calendar = (await ask<Calendar>('POST', '/calendars', { name: 'Work', content })).body;
    const { body } = await ask<Day>('GET', `/days/${DAY}?zone=${ZONE}`);
    expect(body.appointments.map((a) => [a.title, a.start.slice(11, 16)])).toEqual([
      ['Quay walk', '08:00'],
      ['Planning', '14:00'],
    ]);
  });

  it('give a recording made during an appointment its title, people and place', async () => {
    const recording = await recorded(`${DAY}T08:20:00`);
    expect(recording.appointment).toMatchObject({ title: 'Quay walk', place: 'Old crane', people: ['Bram'] });
    expect(recording.suggestion.title).toBe('Quay walk');
  });

  it('count a recording in that began a few minutes early, and leave one out that began after', async () => {
    expect((await recorded(`${DAY}T07:52:00`)).appointment?.title).toBe('Quay walk');
    expect((await recorded(`${DAY}T07:40:00`)).appointment).toBeNull();
    expect((await recorded(`${DAY}T09:00:00`)).appointment).toBeNull();
  });

  it('let a recording started from a card belong to that one', async () => {
    const { body } = await ask<{ items: Appointment[] }>('GET', `/appointments?from=${DAY}&to=${DAY}&zone=${ZONE}`);
    const planning = body.items.find((a) => a.title === 'Planning')!;
    expect((await recorded(`${DAY}T12:00:00`, { appointmentId: planning.id })).appointment?.title).toBe('Planning');
  });

  it('do not touch what was brought in as a file', async () => {
    expect((await recorded(`${DAY}T08:30:00`, { source: 'import' })).appointment).toBeNull();
  });

  it('a wrong match is changed, with the title that came from it', async () => {
    const recording = await recorded(`${DAY}T08:40:00`);
    const { body } = await ask<{ items: Appointment[] }>('GET', `/appointments?from=${DAY}&to=${DAY}&zone=${ZONE}`);
    const planning = body.items.find((a) => a.title === 'Planning')!;
    const change = (appointmentId: string | null) =>
      ask<Recording>('PATCH', `/recordings/${recording.id}`, { appointmentId, zone: ZONE });
    expect((await change(planning.id)).body).toMatchObject({
      appointment: { title: 'Planning' },
      suggestion: { title: 'Planning' },
    });
    expect((await change(null)).body).toMatchObject({ appointment: null, suggestion: { title: null } });
    expect((await change('nothing:like:this')).status).toBe(400);
  });

  it('are taken away; recordings keep the appointment they have', async () => {
    const recording = await recorded(`${DAY}T08:45:00`);
    expect((await ask('DELETE', `/calendars/${calendar.id}`)).status).toBe(200);
    expect((await ask<Day>('GET', `/days/${DAY}`)).body.appointments).toEqual([]);
    expect((await ask<Recording>('GET', `/recordings/${recording.id}`)).body.appointment?.title).toBe('Quay walk');
  });

  it.each([
    ['a file that is no calendar', { name: 'x', content: 'hello' }, 'not an iCalendar file'],
    ['both at once', { name: 'x', content, address: 'https://x.example/c.ics' }, 'either the address'],
    ['neither', { name: 'x' }, 'either the address'],
    ['an address that is none', { name: 'x', address: 'calendar' }, 'must begin with https://'],
    ['no name', { name: ' ', content }, 'Enter a name'],
  ])('refuse %s', async (_, body, sentence) => {
    const refused = await ask('POST', '/calendars', body);
    expect(refused.status).toBe(400);
    expect(refused.body.detail).toContain(sentence);
  });
});

describe('a feed', () => {
  it('is fetched, fetched anew, and keeps what it had when its server fails', async () => {
    feed = { status: 200, content };
    const { body: made } = await ask<Calendar>('POST', '/calendars', { name: 'Feed', address: feedAddress });
    const titles = async () =>
      (await ask<Day>('GET', `/days/${DAY}?zone=${ZONE}`)).body.appointments.map((a) => a.title);
    expect(await titles()).toEqual(['Quay walk', 'Planning']);
    feed.content = ics(meeting('Moved', '20260309T100000', '20260309T110000'));
    await ask('POST', `/calendars/${made.id}/refresh`);
    expect(await titles()).toEqual(['Moved']);
    for (const broken of [
      { status: 500, content: '' },
      { status: 200, content: '<html>sign in</html>' },
    ]) {
      feed = broken;
      const { body } = await ask<Calendar>('POST', `/calendars/${made.id}/refresh`);
      expect(body.problem).toBeTruthy();
      expect(await titles()).toEqual(['Moved']);
    }
  });

  it('that does not answer is refused with a sentence', async () => {
    const refused = await ask('POST', '/calendars', { name: 'x', address: 'http://127.0.0.1:9/none.ics' });
    expect(refused.status).toBe(400);
    expect(refused.body.detail).toContain('cannot be reached');
  });

  it('ships as a stand-in that is read like any other', async () => {
    const { status } = await ask('POST', '/calendars', { name: 'Stand-in', content: standInCalendar() });
    expect(status).toBe(200);
  });
});

describe('spoken asides', () => {
  it('have phrases that can be set, long enough not to be heard by chance', async () => {
    expect((await ask<SharedSettings>('GET', '/settings')).body.asideOpening).toBe('side note');
    expect((await ask('PATCH', '/settings', { asideOpening: 'a' })).body.detail).toContain('at least four letters');
    const changed = await ask<SharedSettings>('PATCH', '/settings', { asideOpening: 'for me' });
    expect(changed.body).toMatchObject({ asideOpening: 'for me', asideClosing: 'back to it' });
    await ask('PATCH', '/settings', { asideOpening: 'side note' });
  });

  it('are listened for in what is recorded here, not in what is brought in', async () => {
    await recorded(`${DAY}T20:00:00`);
    expect(pool.tasks.at(-1)!.asides).toEqual({ opening: 'side note', closing: 'back to it' });
    await recorded(`${DAY}T20:10:00`, { source: 'import' });
    expect(pool.tasks.at(-1)!.asides).toBeNull();
  });

  it('stand in the margin, once, also when it is recognised again after they were changed', async () => {
    const aside = { from: 3, to: 10, startMs: 1500, endMs: 5000, text: 'ask Bram.', isClosed: true };
    pool.answer = async () => ({ ...SPOKEN, asides: [aside] });
    const recording = await recorded(`${DAY}T20:20:00`);
    expect(recording.slips).toMatchObject([{ kind: 'aside', text: 'ask Bram.', startMs: 1500 }]);
    await ask('PATCH', `/slips/${recording.slips[0]!.id}`, { text: 'ask Bram today' });
    await ask('POST', `/recordings/${recording.id}/recognition`);
    const get = () => ask<Recording>('GET', `/recordings/${recording.id}`).then((r) => r.body);
    await until(get, (r) => r.state === 'ready');
    expect((await get()).slips).toMatchObject([{ text: 'ask Bram today' }]);
  });

  it('that were never closed say so', async () => {
    const aside = { from: 3, to: 10, startMs: 1500, endMs: 5000, text: 'ask Bram', isClosed: false };
    pool.answer = async () => ({ ...SPOKEN, asides: [aside] });
    expect((await recorded(`${DAY}T20:30:00`)).slips[0]!.text).toContain('closing phrase missing');
  });
});
