import fs from 'node:fs';
import type { Todo, TodoFeed } from '@immeld/core/contract/todos';
import { randomUUID } from 'node:crypto';
import * as nodeIcal from 'node-ical';
import type { RunningServer } from '../start';
import { say } from '../testing/filledServer';
import { ControlledPool, askJson, startTestServer, temporaryFolder } from '../testing/testServer';
import { nextDate } from '../todos/icalendar';

const dataFolder = temporaryFolder();
let server: RunningServer;
beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const ask = async <T>(method: string, address: string, body?: unknown) =>
  (await askJson<T>(server, method, address, body)).body;
const add = (todo: object) => ask<Todo>('POST', '/todos', todo);
const change = (id: string, part: object) => ask<Todo>('PATCH', `/todos/${id}`, part);
const open = async () => (await ask<{ items: Todo[] }>('GET', '/todos')).items.filter((t) => !t.isDone);

/** Tasks as an independent reader of iCalendar finds them. */
const tasksIn = (text: string) =>
  Object.values(nodeIcal.sync.parseICS(text)).filter((c) => c?.type === 'VTODO') as unknown as Record<
    string,
    { toString(): string }
  >[];

it('keeps priority, notes, order and snoozing', async () => {
  const todo = await add({ text: 'Call the arborist', who: 'me', priority: 'high', notes: 'Bring the map' });
  expect(todo).toMatchObject({ priority: 'high', notes: 'Bring the map', snoozedUntil: null });
  expect(await change(todo.id, { snoozedUntil: '2027-01-05', priority: null })).toMatchObject({
    ...{ snoozedUntil: '2027-01-05', priority: null },
  });
  const gone = '00000000-0000-4000-8000-000000000000';
  const places = [todo.id, gone].map((id) => ({ id, position: -1.5 }));
  expect(await ask('PUT', '/todo-order', { places })).toEqual({ count: 1 });
  expect((await open()).find((t) => t.id === todo.id)).toMatchObject({ position: -1.5, notes: 'Bring the map' });
  expect((await askJson(server, 'PUT', '/todo-order', { places: [] })).status).toBe(400);
  const { status, body } = await askJson<{ detail: string }>(server, 'PATCH', `/todos/${todo.id}`, {
    priority: 'huge',
  });
  expect([status, body.detail]).toEqual([400, 'The priority must be high, middle or low.']);
  expect((await askJson(server, 'PATCH', `/todos/${todo.id}`, { repeat: 'FREQ=SECONDLY' })).status).toBe(400);
  await change(todo.id, { isBinned: true });
});

it('that a device added without the server is there once, however often it is sent', async () => {
  const added = { id: randomUUID(), text: 'Buy stakes', who: 'me' };
  const [first, second] = [await add(added), await add(added)];
  expect([first.id, second.id]).toEqual([added.id, added.id]);
  expect((await open()).filter((t) => t.text === 'Buy stakes')).toHaveLength(1);
  await change(added.id, { isBinned: true });
});

it('comes again when it is done, and not when that is taken back', async () => {
  const first = await add({ text: 'Water the pears', due: '2026-03-10T07:00', repeat: 'FREQ=WEEKLY;BYDAY=TU,FR' });
  await change(first.id, { isDone: true });
  const [next] = await open();
  expect(next).toMatchObject({ text: 'Water the pears', repeat: first.repeat });
  expect(next!.due! > new Date().toISOString().slice(0, 10)).toBe(true);
  expect([2, 5]).toContain(new Date(`${next!.due!.slice(0, 10)}T00:00:00Z`).getUTCDay());
  expect(next!.due!.slice(10)).toBe('T07:00');
  await change(first.id, { isDone: true });
  expect(await open()).toHaveLength(1);
  await change(first.id, { isDone: false });
  expect((await open()).map((t) => t.id)).toEqual([first.id]);
  await change(first.id, { isBinned: true });
});

/** Sources: the dates of RFC 5545, 3.8.5.3, examples "Every other week", "Monthly on the first Friday", cut short. */
it.each([
  ['FREQ=DAILY', '1997-09-02', '1997-09-02', '1997-09-03'],
  ['FREQ=WEEKLY;INTERVAL=2', '1997-09-02', '1997-09-02', '1997-09-16'],
  ['FREQ=WEEKLY;BYDAY=TU,TH', '1997-09-02T09:00', '1997-09-02', '1997-09-04T09:00'],
  ['FREQ=MONTHLY;BYMONTHDAY=-1', '1997-09-30', '1997-09-30', '1997-10-31'],
  ['FREQ=MONTHLY;BYMONTHDAY=31', '1997-10-31', '1997-10-31', '1997-12-31'],
  ['FREQ=DAILY', '1997-09-02', '1997-09-10', '1997-09-11'],
])('%s from %s on, done on %s, is due on %s', (rule, due, today, next) => {
  expect(nextDate(rule, due, today)).toBe(next);
});

it('leaves as tasks that another program reads, and as a check list', async () => {
  const recordingId = await say({ text: 'Send the plan, please; to "Otti".', title: 'Walk, with; signs' });
  const made = await add({
    ...{ text: 'Send the plan; all of it, to Otti', who: 'Jun', due: '2026-05-12T09:30', project: 'Quayside *limes*' },
    ...{ priority: 'high', notes: 'Two\nlines', recordingId, startMs: 1500 },
  });
  await add({ text: 'Pay the bill', who: 'me', due: '2026-05-01', repeat: 'FREQ=MONTHLY;BYMONTHDAY=1' });
  const response = await fetch(`${server.address}/api/todos.ics`);
  expect(response.headers.get('content-type')).toBe('text/calendar; charset=utf-8');
  const text = await response.text();
  expect(text.split('\r\n').every((line) => Buffer.byteLength(line) <= 75)).toBe(true);
  const [task, bill] = tasksIn(text);
  expect(task).toMatchObject({
    ...{
      summary: 'Send the plan; all of it, to Otti (Jun)',
      priority: '1',
      status: 'NEEDS-ACTION',
      uid: `${made.id}@immeld`,
    },
    ...{ description: 'Two\nlines\nFrom “Walk, with; signs”', categories: ['Quayside *limes*'] },
  });
  expect(task!['url']).toBe(`${server.address}/recordings/${recordingId}?at=1500`);
  // A time of one's own, without a zone (RFC 5545, 3.3.5, form 1); a day is a date.
  expect([task!['due'], bill!['due']]).toEqual(['20260512T093000', { params: { VALUE: 'DATE' }, val: '20260501' }]);
  expect(bill!['rrule'].toString()).toContain('FREQ=MONTHLY;BYMONTHDAY=1');

  const list = await (await fetch(`${server.address}/api/todos.md`)).text();
  expect(list).toContain(
    '## Quayside \\*limes\\*\n\n- [ ] Send the plan; all of it, to Otti (Jun, by 12 May 2026, 9:30, high priority)',
  );
  expect(list).toContain(`[Walk, with; signs](${server.address}/recordings/${recordingId}?at=1500)`);
  expect(list).toContain('\n      Two\n      lines\n');
});

it('has a private address for calendar programs, which stops when it is taken back', async () => {
  expect(await ask<TodoFeed>('GET', '/todo-feed')).toEqual({ address: null });
  const { address } = await ask<TodoFeed>('PUT', '/todo-feed', { isOn: true });
  expect(address).toMatch(/^\/feeds\/[0-9a-f]{32}\.ics$/);
  const get = (place: string) => fetch(`${server.address}${place}`);
  expect(tasksIn(await (await get(address!)).text()).map((t) => t['summary'])).toContain('Pay the bill');
  const renewed = (await ask<TodoFeed>('PUT', '/todo-feed', { isOn: true })).address!;
  expect((await get(address!)).status).toBe(404);
  expect((await get(renewed)).status).toBe(200);
  expect(await ask<TodoFeed>('PUT', '/todo-feed', { isOn: false })).toEqual({ address: null });
  expect((await get(renewed)).status).toBe(404);
  expect((await get('/feeds/%00.ics')).status).toBe(404);
});

it('shows 10,000 to-dos', async () => {
  const { TodoRow } = await import('../models/todo');
  const { FIRST_ACCOUNT } = await import('../accounts/firstAccount');
  const { asAccount } = await import('../accounts/currentAccount');
  await asAccount(FIRST_ACCOUNT, () =>
    TodoRow.bulkCreate(
      Array.from({ length: 10_000 }, (_, i) => ({
        ...{ text: `Thing ${i}`, who: 'me', due: null, project: null, quote: null, recordingId: null, startMs: null },
        ...{ state: 'ink' as const, doneAt: null, binnedAt: null },
      })),
    ),
  );
  expect((await open()).length).toBeGreaterThanOrEqual(10_000);
  expect(tasksIn(await (await fetch(`${server.address}/api/todos.ics`)).text()).length).toBeGreaterThanOrEqual(10_000);
});
