import fs from 'node:fs';
import path from 'node:path';
import type { FindResult, FoundAnswer } from '@immeld/core/contract/find';
import type { Calendar } from '@immeld/core/contract/appointments';
import type { Day } from '@immeld/core/contract/find';
import type { Todo } from '@immeld/core/contract/todos';
import { QueryTypes } from 'sequelize';
import { openDatabase } from '../database';
import { TodoRow } from '../models/todo';
import type { RunningServer } from '../start';
import { Device } from '../testing/device';
import { say } from '../testing/filledServer';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';

const folder = temporaryFolder();
const at = (name: string) => path.join(folder, name);
let server: RunningServer;
beforeAll(async () => {
  server = await startTestServer(at('data'), new ControlledPool());
});
afterAll(async () => {
  await server.close();
  fs.rmSync(folder, { recursive: true });
});
const ask = async <T>(method: string, address: string, body?: unknown) => askJson<T>(server, method, address, body);

it('each connection waits for the disk and keeps ties between rows, those of transactions too', async () => {
  const database = TodoRow.sequelize!;
  const told = (transaction?: object) =>
    Promise.all(
      ['synchronous', 'foreign_keys'].map(
        async (name) =>
          Object.values((await database.query(`PRAGMA ${name}`, { type: QueryTypes.SELECT, ...transaction }))[0]!)[0],
      ),
    );
  // 2 is FULL (SQLite, “PRAGMA synchronous”).
  expect(await told()).toEqual([2, 1]);
  await database.transaction(async (transaction) => expect(await told({ transaction })).toEqual([2, 1]));
});

it('capitals of every alphabet are capitals', async () => {
  const id = await say({ text: 'The limes.' });
  for (const tag of ['Élan', 'élan', 'ÉLAN', 'МОСТ', 'мост', 'Straße', 'STRASSE']) {
    expect((await ask('PATCH', `/recordings/${id}`, { tags: [tag] })).status).toBe(200);
  }
  const { body } = await ask<{ tags: { name: string }[] }>('GET', '/shelves');
  expect(body.tags.map((t) => t.name)).toEqual(['Straße']);
  const people = await Promise.all(['Ömer', 'ömer'].map((name) => ask<{ id: string }>('POST', '/people', { name })));
  expect(people.map((p) => p.status)).toEqual([200, 200]);
});

it('a to-do that was ticked at half past eleven at night in New York was done on that day', async () => {
  const todo = (await ask<Todo>('POST', '/todos', { text: 'Close the lock' })).body;
  await TodoRow.update(
    { doneAt: new Date('2026-03-10T03:30:00Z'), createdAt: new Date('2026-03-10T03:30:00Z') },
    { where: { id: todo.id } },
  );
  const digest = async (zone: string) =>
    (
      await ask<FoundAnswer>(
        'GET',
        `/ask?q=${encodeURIComponent('What did I do today?')}&today=2026-03-09&zone=${zone}`,
      )
    ).body.digest;
  expect((await digest('America/New_York')).flatMap((d) => d.todosDone)).toEqual(['Close the lock']);
  expect((await digest('Europe/London')).flatMap((d) => d.todosDone)).toEqual([]);
  const weeks = async (zone: string) =>
    (
      await ask<{ weeks: { monday: string; todosDone: number }[] }>(
        'GET',
        `/weeks?until=2026-03-10&count=2&zone=${zone}`,
      )
    ).body.weeks;
  await TodoRow.update({ doneAt: new Date('2026-03-09T03:30:00Z') }, { where: { id: todo.id } });
  expect((await weeks('America/New_York')).map((w) => w.todosDone)).toEqual([1, 0]);
  expect((await weeks('Europe/London')).map((w) => w.todosDone)).toEqual([0, 1]);
});

it('a calendar whose rules cannot be followed says so, and the others are shown', async () => {
  const calendar = (name: string, ...lines: string[]) =>
    ask<Calendar>('POST', '/calendars', {
      name,
      content: [
        'BEGIN:VCALENDAR',
        'VERSION:2.0',
        'PRODID:x',
        'BEGIN:VEVENT',
        `UID:${name}`,
        `SUMMARY:${name}`,
        ...lines,
        'END:VEVENT',
        'END:VCALENDAR',
      ].join('\r\n'),
    });
  await calendar('Never', 'DTSTART:19700101T000000Z', 'RRULE:FREQ=MINUTELY;BYMONTH=2;BYMONTHDAY=31');
  await calendar('Walk', 'DTSTART:20260309T090000Z', 'DTEND:20260309T100000Z');
  for (let i = 0; i < 2; i++) {
    const { status, body } = await ask<Day>('GET', '/days/2026-03-09?zone=UTC');
    expect([status, body.appointments.map((a) => a.title)]).toEqual([200, ['Walk']]);
  }
  const { items } = (await ask<{ items: Calendar[] }>('GET', '/calendars')).body;
  expect(items.find((c) => c.name === 'Never')!.problem).toContain('take too long');
});

it('lines of a calendar have at most 75 octets, and read as they were', async () => {
  await ask('POST', '/todos', {
    text: 'Bäume gießen am Ufer – 埠頭の木に水をやる 🌳🌳🌳 und noch einmal, weil es so trocken ist',
  });
  const text = await (await fetch(`${server.address}/api/todos.ics`)).text();
  const lines = text.split('\r\n');
  expect(Math.max(...lines.map((l) => Buffer.byteLength(l)))).toBeLessThanOrEqual(75);
  expect(lines.some((l) => Buffer.byteLength(l) > 70)).toBe(true);
  expect(text.replace(/\r\n /g, '')).toContain('埠頭の木に水をやる 🌳🌳🌳 und noch einmal');
});

it('nobody learns whether somebody else has said a word', async () => {
  const other = await startTestServer(at('two'), new ControlledPool(), false);
  const [one, two] = [await Device.guest(() => other.address), await Device.guest(() => other.address)];
  const note = (device: Device, title: string) => device.ask('POST', '/notes', { title });
  const instead = async () => (await one.ask<FindResult>('GET', '/find?q=orchand')).body;
  await note(one, 'The orchard');
  const before = await instead();
  await note(two, 'The orchand');
  await other.close();
  const again = await startTestServer(at('two'), new ControlledPool(), false);
  const device = new Device(() => again.address);
  device.cookie = one.cookie;
  expect(before.results).toHaveLength(1);
  expect((await device.ask<FindResult>('GET', '/find?q=orchand')).body).toEqual(before);
  await again.close();
});

it('what an earlier version kept as it was is sealed at the next start, and goes on to open', async () => {
  const first = await startTestServer(at('old'), new ControlledPool());
  const { body } = await askJson<{ address: string }>(first, 'PUT', '/todo-feed', { isOn: true });
  const token = body.address.split('/').pop()!.replace('.ics', '');
  await first.close();
  const database = await openDatabase(at('old'));
  await database.query('UPDATE todo_feeds SET token = ?, token_hash = NULL', { replacements: [token] });
  await database.close();
  const second = await startTestServer(at('old'), new ControlledPool());
  expect((await fetch(second.address + body.address)).status).toBe(200);
  expect((await askJson<{ address: string }>(second, 'GET', '/todo-feed')).body).toEqual(body);
  await second.close();
  expect(fs.readFileSync(at('old/immeld.sqlite')).includes(token)).toBe(false);
});
