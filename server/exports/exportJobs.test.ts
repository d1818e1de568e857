import fs from 'node:fs';
import path from 'node:path';
import { Problem } from '@immeld/core/contract/problem';
import { asAccount } from '../accounts/currentAccount';
import { temporaryFolder, until } from '../testing/testServer';
import { ExportJobs, type ExportJob } from './exportJobs';
import { log } from '../log';

const folder = temporaryFolder();
const [ours, theirs] = ['11111111-1111-4111-8111-111111111111', '22222222-2222-4222-8222-222222222222'];
let files: ExportJobs;
beforeEach(() => {
  files = new ExportJobs(path.join(folder, 'made'));
});
afterAll(() => fs.rmSync(folder, { recursive: true }));

/** Writes a text as a file. */
const writing =
  (text: string, name = 'words.txt') =>
  async ({ folder: own, view }: ExportJob) => {
    fs.writeFileSync(path.join(own, 'one'), text);
    view.done = view.total;
    return { path: path.join(own, 'one'), name };
  };
const mine = <T>(work: () => T): T => asAccount(ours!, work);
const ended = (id: string) =>
  until(
    async () => mine(() => files.get(id)),
    (view) => view.state !== 'making',
  );

test('what is made waits under its name until it is fetched', async () => {
  const { id, state } = mine(() => files.begin(3, writing('The limes.')));
  expect(state).toBe('making');
  expect(await ended(id)).toMatchObject({ state: 'ready', done: 3, total: 3, fileName: 'words.txt', sizeBytes: 10 });
  const { path: place, name } = mine(() => files.fileOf(id));
  expect([fs.readFileSync(place, 'utf8'), name]).toEqual(['The limes.', 'words.txt']);
});

test('it is there for whoever asked for it, and for nobody else', async () => {
  const { id } = mine(() => files.begin(1, writing('secret')));
  await ended(id);
  for (const ask of [() => files.get(id), () => files.fileOf(id), () => files.cancel(id)]) {
    expect(() => asAccount(theirs!, ask)).toThrow('This file is no longer available');
  }
  expect(mine(() => files.list())).toHaveLength(1);
  expect(asAccount(theirs!, () => files.list())).toEqual([]);
});

test('stopped, it stops: the work is told, and nothing is left on the disk', async () => {
  let told = false;
  const { id } = mine(() =>
    files.begin(1, ({ signal }) => {
      signal.addEventListener('abort', () => (told = true));
      return new Promise((_resolve, reject) => signal.addEventListener('abort', () => reject(signal.reason as Error)));
    }),
  );
  expect(() => mine(() => files.fileOf(id))).toThrow('not ready');
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(mine(() => files.cancel(id)).state).toBe('cancelled');
  await until(
    async () => fs.existsSync(path.join(folder, 'made', id)),
    (isThere) => !isThere,
  );
  expect([told, mine(() => files.get(id)).state]).toEqual([true, 'cancelled']);
});

test('stopped before it had begun, it does not begin', async () => {
  const work = jest.fn(writing('never'));
  const { id } = mine(() => files.begin(1, work));
  mine(() => files.cancel(id));
  await until(
    async () => fs.existsSync(path.join(folder, 'made', id)),
    (isThere) => !isThere,
  );
  await new Promise((resolve) => setTimeout(resolve, 20));
  expect(work).not.toHaveBeenCalled();
});

test.each([
  ['a sentence for the person', new Problem('not-found', 'This note no longer exists.'), 'This note no longer exists.'],
  ['a full disk', Object.assign(new Error('write'), { code: 'ENOSPC' }), 'The server’s disk is full.'],
  ['anything else', new TypeError('x is not a function'), 'The file could not be exported.'],
])('what goes wrong is said: %s', async (_name, error, sentence) => {
  const errors = jest.spyOn(log, 'error').mockImplementation(() => undefined);
  const { id } = mine(() => files.begin(1, () => Promise.reject(error)));
  const view = await ended(id);
  expect(view).toMatchObject({ state: 'failed', problem: expect.stringContaining(sentence) });
  expect(view.problem).not.toContain('not a function');
  expect(fs.existsSync(path.join(folder, 'made', id))).toBe(false);
  errors.mockRestore();
});

test('of nothing no file is made, and it is said what was missing', async () => {
  const { id } = mine(() =>
    files.begin(1, async ({ view }) => {
      view.missing.push('“Lime” has no text yet, so it was not exported as text.');
      return null;
    }),
  );
  expect(await ended(id)).toMatchObject({
    state: 'failed',
    problem: '“Lime” has no text yet, so it was not exported as text.',
  });
});

test('an account that goes takes its files along, and no others', async () => {
  const { id } = mine(() => files.begin(1, writing('ours')));
  await ended(id);
  const other = asAccount(theirs!, () => files.begin(1, writing('theirs')));
  await until(
    async () => asAccount(theirs!, () => files.get(other.id)),
    (view) => view.state === 'ready',
  );
  await files.forget(ours!);
  expect(mine(() => files.list())).toEqual([]);
  expect(fs.readdirSync(path.join(folder, 'made'))).toEqual([other.id]);
});

test('the oldest go when there are many, and a new server begins with none', async () => {
  const ids: string[] = [];
  for (let i = 0; i < 53; i++) {
    const { id } = mine(() => files.begin(1, writing(String(i))));
    await ended(id);
    ids.push(id);
  }
  expect(mine(() => files.list()).length).toBeLessThanOrEqual(51);
  expect(() => mine(() => files.get(ids[0]!))).toThrow('Export it again');
  expect(mine(() => files.get(ids.at(-1)!)).state).toBe('ready');
  expect(new ExportJobs(path.join(folder, 'made')).list()).toEqual([]);
  expect(fs.readdirSync(path.join(folder, 'made'))).toEqual([]);
});
