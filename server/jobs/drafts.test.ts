import fs from 'node:fs';
import type { Version } from '@immeld/core/contract/corrections';
import type { Job } from '@immeld/core/contract/jobs';
import type { Recording as View } from '@immeld/core/contract/recordings';
import { type Passage, passageText } from '@immeld/core/transcript/manuscript';
import { randomUUID } from 'node:crypto';
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
import type { WorkerResult } from './workerMessages';

const dataFolder = temporaryFolder();
const pool = new ControlledPool();
let server: RunningServer;
/** Ends the recognition that waits. */
let end = (_result: WorkerResult) => undefined as void;
beforeAll(async () => {
  server = await startTestServer(dataFolder, pool);
});
beforeEach(() => {
  pool.answer = () => new Promise((resolve) => (end = resolve));
});
afterAll(async () => {
  await server.close();
  fs.rmSync(dataFolder, { recursive: true });
});

const wordsOf = (text: string, fromMs = 500) =>
  text
    .split(' ')
    .map((word, i) => ({ text: word, startMs: fromMs + i * 400, endMs: fromMs + i * 400 + 300, confidence: 0.7 }));
const passageOf = (text: string, fromMs: number): Passage => {
  const words = wordsOf(text, fromMs);
  return { startMs: fromMs, endMs: words.at(-1)!.endMs, speaker: null, startsParagraph: true, words };
};
const textOf = ({ passages }: View) => passages.map(passageText).join(' ');
const recordingBy = async (id: string) => (await askJson<View>(server, 'GET', `/recordings/${id}`)).body;
const versionsOf = async (id: string) =>
  (await askJson<{ items: Version[] }>(server, 'GET', `/recordings/${id}/versions`)).body.items.map((v) => v.kind);
const ready = (id: string) =>
  until(
    () => recordingBy(id),
    (r) => r.state === 'ready',
  );
const jobs = async () => (await askJson<{ items: Job[] }>(server, 'GET', '/jobs')).body.items;

async function spoken(content: string): Promise<{ id: string; captureId: string }> {
  const captureId = randomUUID();
  const { recordingId } = await upload(server.address, Buffer.from(`RIFF ${content}`), 'memo.wav', {
    ...{ captureId, source: 'speak', durationMs: '8000' },
  });
  await until(
    async () => pool.tasks.length,
    () => pool.tasks.some((t) => t.soundFile.includes(recordingId)),
  );
  return { id: recordingId, captureId };
}
const send = (captureId: string, words: object[]) =>
  askJson<{ isTaken: boolean }>(server, 'POST', `/captures/${captureId}/words`, { words });

describe('the words of the device', () => {
  it('are the text until the recording is transcribed, and a version afterwards', async () => {
    const { id, captureId } = await spoken('live');
    expect((await send(captureId, wordsOf('I need to call Brown.'))).body).toEqual({ isTaken: true });
    expect((await send(captureId, wordsOf('I need to call Brown.'))).body).toEqual({ isTaken: true });
    await send(captureId, wordsOf('The limes are thirsty.', 5000));
    const before = await recordingBy(id);
    expect([before.draft, textOf(before)]).toEqual(['device', 'I need to call Brown. The limes are thirsty.']);
    const found = await askJson<{ results: { id: string }[] }>(server, 'GET', '/find?q=Brown');
    expect(found.body.results.map((i) => i.id)).toContain(id);
    end(SPOKEN);
    const after = await ready(id);
    expect([after.draft, textOf(after)]).toEqual([null, 'I need to call Bram. The limes are thirsty.']);
    expect(await versionsOf(id)).toEqual(['device']);
  });

  it('that a person corrected stay when the rest is replaced', async () => {
    const { id, captureId } = await spoken('corrected');
    await send(captureId, [...wordsOf('I need to call Brown.'), ...wordsOf('The lines are thirsty.', 5000)]);
    const [, second] = (await recordingBy(id)).passages;
    await askJson(server, 'PATCH', `/recordings/${id}/passages/${second!.id}`, {
      revision: second!.revision,
      text: 'The LIMES are thirsty.',
    });
    end(SPOKEN);
    expect(textOf(await ready(id))).toBe('I need to call Bram. The LIMES are thirsty.');
    expect((await versionsOf(id)).sort()).toEqual(['device', 'recognised']);
  });

  it('that were corrected on the device before they were sent stay, too', async () => {
    const { id, captureId } = await spoken('typed');
    const typed = wordsOf('The limes are THIRSTY.', 5000).map((w, i) => (i === 3 ? { ...w, isTyped: true } : w));
    await send(captureId, [...wordsOf('I need to call Brown.'), ...typed]);
    end(SPOKEN);
    expect(textOf(await ready(id))).toBe('I need to call Bram. The limes are THIRSTY.');
  });

  it('come too late for what is transcribed, and belong to nobody where nothing has arrived', async () => {
    const { id, captureId } = await spoken('late');
    end(SPOKEN);
    await ready(id);
    expect((await send(captureId, wordsOf('Too late.'))).body).toEqual({ isTaken: false });
    expect(textOf(await recordingBy(id))).toBe('I need to call Bram. The limes are thirsty.');
    expect((await send(randomUUID(), wordsOf('Nobody.'))).status).toBe(404);
  });
});

/** How much of the strip is not flat, 0 to 1. */
const heardShare = ({ peaks }: View): number => peaks.filter((p) => p > 0).length / peaks.length;

describe('a long recording', () => {
  it('can be read while it is transcribed', async () => {
    const { id } = await spoken('long');
    const { jobId } = pool.tasks.at(-1)!;
    const say = (text: string, processedMs: number) =>
      pool.progress.get(jobId)!({
        ...{ processedMs, durationMs: 100_000, latestWords: text },
        draft: { passages: [passageOf(text, processedMs - 5000)], peaks: [50, 60] },
      });
    say('The first piece.', 20_000);
    say('The second one.', 40_000);
    const known = await until(
      () => recordingBy(id),
      // The length and the strip come a moment after the words.
      (r) => r.passages.length === 2 && r.durationMs === 100_000 && heardShare(r) > 0.3,
    );
    expect([known.draft, textOf(known), known.state]).toEqual([
      ...['server', 'The first piece. The second one.', 'recognising'],
    ]);
    // Of what is not yet heard the strip is flat.
    expect(heardShare(known)).toBeCloseTo(0.4);
    expect((await jobs()).find((j) => j.id === jobId)).toMatchObject({ passages: 2, percent: 40 });
    end(SPOKEN);
    expect(textOf(await ready(id))).toBe('I need to call Bram. The limes are thirsty.');
    expect(await versionsOf(id)).toEqual([]);
  });
});

describe('the queue', () => {
  const long = (content: string) =>
    upload(server.address, Buffer.from(`RIFF ${content}`), 'lecture.wav', { durationMs: `${3 * 3600_000}` });
  const begun = async (recordingId: string) => {
    await until(
      async () => pool.tasks.map((t) => t.soundFile),
      (files) => files.some((f) => f.includes(recordingId)),
    );
    return (await jobs()).find((j) => j.recordingId === recordingId)!;
  };

  it('lets a memo come before two lectures that run, and goes on with them afterwards', async () => {
    const answers = new Map<string, (result: WorkerResult) => void>();
    pool.answer = (task) => new Promise((resolve) => answers.set(task.jobId, resolve));
    const lectures: string[] = [];
    for (const name of ['one', 'two']) lectures.push((await begun((await long(name)).recordingId)).id);
    const { recordingId: memo } = await upload(server.address, Buffer.from('RIFF short'), 'memo.wav', {
      durationMs: '30000',
    });
    const { id: memoJob } = await begun(memo);
    expect(pool.held).toHaveLength(1);
    const [held] = pool.held;
    expect(lectures).toContain(held);
    expect((await jobs()).find((j) => j.id === held)!.state).toBe('waiting');
    answers.get(memoJob)!(SPOKEN);
    await ready(memo);
    await until(
      async () => pool.wentOn,
      (all) => all.includes(held!),
    );
    for (const id of lectures) answers.get(id)!(SPOKEN);
    await until(jobs, (all) => all.length === 0);
  });

  it('holds a few, and lets the others begin anew', async () => {
    const answers = new Map<string, (result: WorkerResult) => void>();
    pool.answer = (task) => new Promise((resolve) => answers.set(task.jobId, resolve));
    const before = pool.held.length;
    const ids: string[] = [];
    for (let i = 0; i < 5; i++) {
      const { id } = await begun((await long(`paused ${i}`)).recordingId);
      ids.push(id);
      await askJson<Job>(server, 'POST', `/jobs/${id}/pause`);
    }
    expect(pool.held.slice(before)).toEqual(ids.slice(0, 4));
    const last = ids[4]!;
    const tasksOf = (id: string) => pool.tasks.filter((t) => t.jobId === id).length;
    expect((await jobs()).find((j) => j.id === last)!.state).toBe('paused');
    await askJson<Job>(server, 'POST', `/jobs/${last}/resume`);
    await until(
      async () => tasksOf(last),
      (count) => count === 2,
    );
    for (const id of ids) {
      answers.get(id)!(SPOKEN);
      await until(jobs, (all) => all.every((j) => j.id !== id));
    }
  });

  it('pauses, resumes and brings to the front', async () => {
    const answers = new Map<string, (result: WorkerResult) => void>();
    pool.answer = (task) => new Promise((resolve) => answers.set(task.jobId, resolve));
    const [one, two] = [
      await begun((await long('first')).recordingId),
      await begun((await long('second')).recordingId),
    ];
    const { recordingId } = await long('third');
    const third = (await jobs()).find((j) => j.recordingId === recordingId)!;
    expect(third.state).toBe('waiting');
    const ask = async (job: Job, what: string) => (await askJson<Job>(server, 'POST', `/jobs/${job.id}/${what}`)).body;
    expect((await ask(one, 'pause')).state).toBe('paused');
    expect(pool.held).toContain(one.id);
    await begun(recordingId);
    expect((await ask(one, 'resume')).state).toBe('waiting');
    expect((await askJson<{ code: string }>(server, 'POST', `/jobs/${one.id}/resume`)).status).toBe(409);
    await ask(one, 'front');
    await until(
      async () => pool.wentOn,
      (all) => all.includes(one.id),
    );
    for (const job of [one, two, third]) answers.get(job.id)!(SPOKEN);
    await until(jobs, (all) => all.length === 0);
    expect((await askJson<{ code: string }>(server, 'POST', `/jobs/${one.id}/pause`)).status).toBe(409);
  });
});
