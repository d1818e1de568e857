import { type ChildProcess, spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import type { Job } from '@immeld/core/contract/jobs';
import type { Recording } from '@immeld/core/contract/recordings';
import { temporaryFolder, until, upload } from '../testing/testServer';

const root = path.resolve(__dirname, '..', '..');
const sound = (id: string) => fs.readFileSync(path.join(root, 'demo', 'sound', id));
const dataFolder = temporaryFolder();
const PORT = 41_000 + (process.pid % 2000);
const address = `http://127.0.0.1:${PORT}`;
let server: ChildProcess;

/** The built server as a program of its own, with its real worker threads. */
async function start(): Promise<void> {
  server = spawn(process.execPath, [path.join(root, 'server', 'dist', 'main.cjs')], {
    env: { ...process.env, IMMELD_DATA: dataFolder, PORT: String(PORT), IMMELD_DEMO: '1' },
    stdio: 'ignore',
  });
  await until(
    () =>
      fetch(`${address}/api/status`).then(
        (r) => r.ok,
        () => false,
      ),
    Boolean,
  );
}

const jobs = async () => ((await (await fetch(`${address}/api/jobs`)).json()) as { items: Job[] }).items;
const recording = async (id: string) => (await (await fetch(`${address}/api/recordings/${id}`)).json()) as Recording;

afterAll(() => {
  server.kill('SIGKILL');
  fs.rmSync(dataFolder, { recursive: true });
});

it('a recognition goes on where it was after kill -9 of the server, and reports real progress', async () => {
  await start();
  const { recordingId } = await upload(address, sound('arborist.m4a'), 'arborist.m4a');
  const running = await until(jobs, (all) => (all[0]?.percent ?? 0) > 5 && all[0]!.latestWords !== '');
  expect(running[0]!.percent).toBeLessThan(100);
  expect(running[0]!.percent).toBeGreaterThan(0);
  server.kill('SIGKILL');
  await until(
    () =>
      fetch(`${address}/api/status`).then(
        () => true,
        () => false,
      ),
    (isUp) => !isUp,
  );
  // A word that nobody said, in a piece that is done: where it is read again, nothing was recognised twice.
  const pieces = path.join(dataFolder, 'pieces');
  const file = path.join(pieces, fs.readdirSync(pieces)[0]!);
  const [made, first, ...others] = fs.readFileSync(file, 'utf8').split('\n');
  fs.writeFileSync(file, [made, first!.replace(/"text":"[^"]+"/, '"text":"Quillwort"'), ...others].join('\n'));
  await start();
  const ready = await until(
    () => recording(recordingId),
    (r) => r.state === 'ready',
  );
  expect(
    ready.passages
      .flatMap((p) => p.words)
      .map((w) => w.text)
      .join(' '),
  ).toMatch(/quillwort.*silver/is);
  await until(
    async () => fs.readdirSync(pieces),
    (left) => left.length === 0,
  );
  expect(await jobs()).toEqual([]);
});

it('two real recognitions run at once, a third is cancelled and tried again', async () => {
  const ids: string[] = [];
  for (const id of ['lecture.m4a', 'letter.m4a', 'diary.m4a'])
    ids.push((await upload(address, sound(id), id)).recordingId);
  const all = await until(jobs, (now) => now.filter((j) => j.percent !== null && j.state === 'running').length === 2);
  // There are two workers, so the third waits.
  expect(all.map((j) => j.state).sort()).toEqual(['running', 'running', 'waiting']);
  const lecture = all.find((j) => j.recordingId === ids[0])!;
  await fetch(`${address}/api/jobs/${lecture.id}/cancel`, { method: 'POST' });
  await until(
    () => recording(ids[1]!),
    (r) => r.state === 'ready',
  );
  await until(
    () => recording(ids[2]!),
    (r) => r.state === 'ready',
  );
  expect(await recording(ids[0]!)).toMatchObject({ state: 'cancelled', hasSound: true });
  const again = await until(
    () => fetch(`${address}/api/jobs/${lecture.id}/retry`, { method: 'POST' }),
    (r) => r.ok,
  );
  expect(((await again.json()) as Job).state).toMatch(/waiting|running/);
});
