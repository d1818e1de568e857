import fs from 'node:fs';
import type { Recording as View } from '@immeld/core/contract/recordings';
import type { SharedSettings } from '@immeld/core/contract/settings';
import type { RunningServer } from '../start';
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
const pool = new ControlledPool();
let server: RunningServer;
beforeAll(async () => {
  server = await startTestServer(dataFolder, pool);
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const change = async (body: Partial<SharedSettings>) =>
  (await askJson<SharedSettings>(server, 'PATCH', '/settings', body)).body;
const older = async () =>
  (await askJson<{ count: number; soundMs: number; isWorking: boolean }>(server, 'GET', '/transcripts/older')).body;
const bringIn = async (words: string): Promise<string> => {
  const { recordingId } = await upload(server.address, Buffer.from(`RIFF ${words}`), 'memo.wav');
  await until(
    async () => (await askJson<View>(server, 'GET', `/recordings/${recordingId}`)).body.state,
    (state) => state === 'ready',
  );
  return recordingId;
};

test('what the quick model wrote is counted only where the better one is chosen', async () => {
  await change({ quality: 'quick' });
  await bringIn('one');
  await bringIn('two');
  expect(pool.tasks.map((t) => t.quality)).toEqual(['quick', 'quick']);
  expect(await older()).toEqual({ count: 0, soundMs: 0, isWorking: false });
  expect((await change({ quality: 'usual' })).quality).toBe('usual');
  expect(await older()).toEqual({ count: 2, soundMs: 2 * SPOKEN.durationMs, isWorking: false });
});

test('older recordings are transcribed again one at a time, what is new comes first, and then it is over', async () => {
  const begun = pool.tasks.length;
  let letGo = (): void => undefined;
  const held = new Promise<void>((resolve) => (letGo = resolve));
  pool.answer = async () => {
    await held;
    return { ...SPOKEN, model: 'english-base-1' };
  };
  await change({ improvesOlder: true });
  await until(
    async () => pool.tasks.length,
    (n) => n === begun + 1,
  );
  expect((await older()).isWorking).toBe(true);
  const { recordingId } = await upload(server.address, Buffer.from('RIFF three'), 'new.wav');
  await until(
    async () => pool.tasks.length,
    (n) => n === begun + 2,
  );
  expect(pool.tasks.at(-1)!.jobId).not.toBe(pool.tasks.at(-2)!.jobId);
  letGo();
  await until(older, ({ count, isWorking }) => count === 0 && !isWorking);
  // The two older ones and the new one, none of them twice.
  expect(pool.tasks).toHaveLength(begun + 3);
  expect((await askJson<View>(server, 'GET', `/recordings/${recordingId}`)).body.model).toBe('english-base-1');
});

test('a quality that does not exist is refused', async () => {
  const { status } = await askJson(server, 'PATCH', '/settings', { quality: 'perfect' });
  expect(status).toBe(400);
});
