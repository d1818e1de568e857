import fs from 'node:fs';
import type { Recording as View } from '@immeld/core/contract/recordings';
import { JobRow } from '../models/job';
import { Recording } from '../models/recording';
import type { RunningServer } from '../start';
import { ControlledPool, askJson, startTestServer, temporaryFolder, until, upload } from '../testing/testServer';

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
  const findOne = JobRow.findOne.bind(JobRow) as (options: object) => Promise<JobRow | null>;
  jest.spyOn(JobRow, 'findOne').mockImplementation(async (options) => {
    const found = await findOne(options as object);
    if (!found && (options as { where: { state: unknown } }).where.state === 'waiting') await slowly();
    return found as never;
  });
  const ids: string[] = [];
  for (let n = 0; n < 3; n++) ids.push(await bringIn(`looked for ${n}`));
  await allReady(ids);
});

test('a recognition that is done at once leaves no recording waiting', async () => {
  const update = Recording.update.bind(Recording) as (...args: unknown[]) => Promise<unknown>;
  jest.spyOn(Recording, 'update').mockImplementation((async (...args: unknown[]) => {
    if ((args[0] as { state?: string }).state === 'waiting') await slowly();
    return update(...args);
  }) as never);
  await allReady(await Promise.all([1, 2, 3, 4].map((n) => bringIn(`quick ${n}`))));
});
