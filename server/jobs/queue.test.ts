import fs from 'node:fs';
import path from 'node:path';
import type { Job } from '@immeld/core/contract/jobs';
import type { Recording as View } from '@immeld/core/contract/recordings';
import type { Account } from '@immeld/core/contract/account';
import { asServer } from '../accounts/currentAccount';
import { JobRow } from '../models/job';
import { Recording } from '../models/recording';
import type { RunningServer } from '../start';
import { Device } from '../testing/device';
import type { WorkerTask } from './workerMessages';
import {
  ControlledPool,
  SPOKEN,
  askJson,
  startTestServer,
  temporaryFolder,
  until,
  upload,
} from '../testing/testServer';

const dataFolder = temporaryFolder();
let server: RunningServer;
beforeAll(async () => {
  server = await startTestServer(dataFolder, new ControlledPool());
});
afterEach(() => jest.restoreAllMocks());
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const SLOW_MS = 500;
const slowly = () => new Promise((resolve) => setTimeout(resolve, SLOW_MS));
const bringIn = async (words: string) =>
  (await upload(server.address, Buffer.from(`RIFF ${words}`), 'memo.wav')).recordingId;
const allReady = async (ids: readonly string[]) => {
  const states = async () =>
    Promise.all(ids.map(async (id) => (await askJson<View>(server, 'GET', `/recordings/${id}`)).body.state));
  expect(await until(states, (all) => all.every((state) => state === 'ready'))).toHaveLength(ids.length);
};

test('what comes while the queue looks for what waits is found all the same', async () => {
  // The answer is that of before; until it is there, something else has come.
  let delayed = 0;
  const findAll = JobRow.findAll.bind(JobRow) as (options: object) => Promise<JobRow[]>;
  jest.spyOn(JobRow, 'findAll').mockImplementation(async (options) => {
    const found = await findAll(options as object);
    if (
      Array.isArray(found) &&
      found.length === 0 &&
      (options as { where?: { state?: unknown } }).where?.state === 'waiting'
    ) {
      delayed++;
      await slowly();
    }
    return found as never;
  });
  const ids: string[] = [];
  for (let n = 0; n < 3; n++) ids.push(await bringIn(`looked for ${n}`));
  await allReady(ids);
  expect(delayed).toBeGreaterThan(0);
});

test('a recognition that is done at once leaves no recording waiting', async () => {
  let delayed = 0;
  const update = Recording.update.bind(Recording) as (...args: unknown[]) => Promise<unknown>;
  jest.spyOn(Recording, 'update').mockImplementation((async (...args: unknown[]) => {
    if ((args[0] as { state?: string }).state === 'waiting') {
      delayed++;
      await slowly();
    }
    return update(...args);
  }) as never);
  await allReady(await Promise.all([1, 2, 3, 4].map((n) => bringIn(`quick ${n}`))));
  expect(delayed).toBeGreaterThan(0);
});

test('who brings much waits for it: what somebody else brings afterwards comes next', async () => {
  const pool = new ControlledPool();
  const turns: string[] = [];
  let begin = () => undefined as void;
  const allAreHere = new Promise<void>((resolve) => (begin = resolve));
  pool.answer = async (task) => {
    const job = await asServer(() => JobRow.findByPk(task.jobId, { rejectOnEmpty: true }));
    turns.push(job.accountId);
    await allAreHere;
    return SPOKEN;
  };
  await server.close();
  server = await startTestServer(temporaryFolder(), pool, false);
  const [much, little] = [await Device.guest(() => server.address), await Device.guest(() => server.address)];
  for (let i = 0; i < 8; i++) await much.bringIn(`much ${i}`);
  await little.bringIn('little');
  begin();
  const { id } = (await little.ask<Account>('GET', '/account')).body;
  await until(
    async () => turns.length,
    (count) => count === 9,
  );
  // Two places come free at about the same time: it gets one of them.
  expect([2, 3]).toContain(turns.indexOf(id));
});

test('somebody’s hours of sound pause for the memo of somebody else, but not for what that one moved to the front', async () => {
  const pool = new ControlledPool();
  const answers = new Map<string, (result: typeof SPOKEN) => void>();
  pool.answer = (task) => new Promise((resolve) => answers.set(task.jobId, resolve));
  await server.close();
  server = await startTestServer(temporaryFolder(), pool, false);
  const [much, little] = [await Device.guest(() => server.address), await Device.guest(() => server.address)];
  const long = { filename: 'lecture.wav', durationMs: `${3 * 3600_000}` };
  const begun = (count: number) =>
    until(
      async () => pool.tasks.length,
      (tasks) => tasks === count,
    );
  for (const name of ['one', 'two']) await much.send(Buffer.from(name), long);
  await begun(2);
  await little.send(Buffer.from('as long'), long);
  const [waiting] = (await little.ask<{ items: Job[] }>('GET', '/jobs')).body.items;
  await little.ask('POST', `/jobs/${waiting!.id}/front`);
  expect(pool.held).toEqual([]);
  await little.send(Buffer.from('short'), { filename: 'memo.wav', durationMs: '30000' });
  await little.ask('POST', `/jobs/${waiting!.id}/pause`);
  await begun(3);
  expect(pool.held).toHaveLength(1);
  for (const answer of answers.values()) answer(SPOKEN);
});

test('what waits is put in order by hand, and what runs is not disturbed by that', async () => {
  const pool = new ControlledPool();
  const answers: (() => void)[] = [];
  pool.answer = () => new Promise((resolve) => answers.push(() => resolve(SPOKEN)));
  await server.close();
  server = await startTestServer(temporaryFolder(), pool, false);
  const device = await Device.guest(() => server.address);
  const begun = (count: number) =>
    until(
      async () => pool.tasks.length,
      (tasks) => tasks === count,
    );
  const send = (name: string, minutes: number) =>
    device.send(Buffer.from(name), { filename: `${name}.wav`, durationMs: `${minutes * 60_000}` });
  for (const name of ['first', 'second']) await send(name, 1);
  await begun(2);
  for (const [name, minutes] of [
    ['long', 60],
    ['middle', 30],
    ['short', 20],
  ] as const)
    await send(name, minutes);
  const list = async () => (await device.ask<{ items: Job[] }>('GET', '/jobs')).body.items;
  const names = (jobs: readonly Job[]) => jobs.slice(2).map((j) => j.name);
  expect(names(await list())).toEqual(['short.wav', 'middle.wav', 'long.wav']);
  const jobs = await list();
  const idOf = (name: string) => jobs.find((j) => j.name === name)!.id;
  const order = [jobs[0]!.id, jobs[1]!.id, idOf('long.wav'), idOf('short.wav')];
  const { body } = await device.ask<{ items: Job[] }>('PUT', '/job-order', { ids: order });
  expect(names(body.items)).toEqual(['long.wav', 'short.wav', 'middle.wav']);
  expect(pool.held).toEqual([]);
  answers.shift()!();
  await begun(3);
  expect((await list()).filter((j) => j.state === 'running').map((j) => j.name)).toContain('long.wav');
  expect((await device.ask('PUT', '/job-order', { ids: [] })).status).toBe(400);
  const stranger = await Device.guest(() => server.address);
  expect((await stranger.ask<{ items: Job[] }>('PUT', '/job-order', { ids: order })).body.items).toEqual([]);
  expect(names(await list())[0]).toBe('short.wav');
  for (const answer of answers) answer();
});

test('a transcription that goes on keeps its pieces until it has ended', async () => {
  const dataFolder = temporaryFolder();
  const pool = new ControlledPool();
  let end = () => undefined as void;
  pool.answer = () => new Promise((resolve) => (end = () => resolve(SPOKEN)));
  await server.close();
  server = await startTestServer(dataFolder, pool);
  const id = await bringIn('kept pieces');
  await until(
    async () => pool.tasks.length,
    (count) => count === 1,
  );
  const [{ pieceFile, draftedMs }] = pool.tasks as [WorkerTask];
  expect(draftedMs).toBe(0);
  fs.writeFileSync(pieceFile!, 'a piece');
  fs.writeFileSync(path.join(path.dirname(pieceFile!), 'of a job that is gone.jsonl'), '');
  await server.close();
  expect(fs.existsSync(pieceFile!)).toBe(true);
  const next = new ControlledPool();
  next.answer = pool.answer;
  server = await startTestServer(dataFolder, next);
  await until(
    async () => next.tasks.length,
    (count) => count === 1,
  );
  expect(next.tasks[0]!.pieceFile).toBe(pieceFile);
  expect(fs.readdirSync(path.dirname(pieceFile!))).toEqual([path.basename(pieceFile!)]);
  end();
  await allReady([id]);
  await until(
    async () => fs.existsSync(pieceFile!),
    (isThere) => !isThere,
  );
});
