import { createHash, randomBytes } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type { Page } from '@playwright/test';
import type { RecordingCard } from '@immeld/core/contract/recordings';
import { Immeld, bringIn, expect, test } from './immeld';
import { Talker } from './talker';

/** How often each is killed; the bench does it more often. */
const TIMES = Number(process.env['IMMELD_KILLS'] ?? 20);
/** What a crash may cost at most. */
const MOST_LOST_MS = 2000;
const results = process.env['IMMELD_KILL_RESULTS'];
const note = (line: object) => results && fs.appendFileSync(results, `${JSON.stringify(line)}\n`);

/** Numbers from 0 to 1 that are the same in every run (mulberry32, public domain). */
function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const all = (immeld: Immeld) =>
  immeld
    .ask<{ total: number; items: RecordingCard[] }>('/recordings?limit=200')
    .catch(() => ({ total: -1, items: [] }));

test(`the browser is killed ${TIMES} times while recording: at most two seconds are lost, nothing is doubled`, async () => {
  test.setTimeout(60_000 + TIMES * 30_000);
  const immeld = new Immeld();
  await immeld.start();
  const talker = await Talker.open(immeld);
  const next = random(7);
  const seen = new Set<string>();
  for (let i = 0; i < TIMES; i++) {
    await talker.page.goto(immeld.address);
    await talker.page.getByRole('button', { name: 'Speak' }).click();
    const wanted = 500 + next() * 4500;
    await expect.poll(() => talker.elapsedMs(), { intervals: [20] }).toBeGreaterThan(wanted);
    const elapsedMs = (await talker.elapsedMs())!;
    await talker.crash();
    await talker.launch();
    await talker.page.goto(`${immeld.address}/tray`);
    await expect(talker.page.getByRole('button', { name: 'Speak' })).toBeVisible();
    await expect.poll(() => waitingOnDevice(talker.page), { timeout: 30_000 }).toBe(0);
    // What was cut off within the first moments may have had nothing on the disk yet.
    let kept: RecordingCard | undefined;
    await expect
      .poll(
        async () => {
          kept = (await all(immeld)).items.find((r) => !seen.has(r.id));
          return kept?.state ?? 'ready';
        },
        { timeout: 30_000 },
      )
      .toBe('ready');
    if (kept) expect(kept.isRecovered).toBe(true);
    if (kept) seen.add(kept.id);
    const lostMs = elapsedMs - (kept?.durationMs ?? 0);
    note({ kind: 'browser', elapsedMs, lostMs });
    expect(lostMs).toBeLessThanOrEqual(MOST_LOST_MS);
  }
  expect((await all(immeld)).total).toBe(seen.size);
  await talker.close();
  immeld.remove();
});

test(`the server is killed ${TIMES} times while it is sent something: all arrives, byte for byte, once`, async ({
  page,
}) => {
  test.setTimeout(60_000 + TIMES * 30_000);
  const immeld = new Immeld();
  await immeld.start();
  const next = random(11);
  const sent = new Set<string>();
  await page.goto(`${immeld.address}/tray`);
  for (let i = 0; i < TIMES; i++) {
    const file = path.join(immeld.folder, `large-${i}.wav`);
    const content = randomBytes(5 * 1024 ** 2 + Math.floor(next() * 1e6));
    fs.writeFileSync(file, content);
    sent.add(createHash('sha256').update(content).digest('hex'));
    await bringIn(page, file);
    // Killed somewhere on the way: once the first part of it lies on the server's disk.
    await expect
      .poll(async () => arrivedBytes(immeld) > 0 || (await all(immeld)).total === sent.size, { intervals: [5] })
      .toBe(true);
    await page.waitForTimeout(next() * 120);
    immeld.kill();
    note({ kind: 'server', arrivedBytes: arrivedBytes(immeld), of: content.length });
    await immeld.start();
    await expect.poll(async () => (await all(immeld)).total, { timeout: 60_000 }).toBe(sent.size);
    fs.rmSync(file);
  }
  const kept = fs
    .readdirSync(path.join(immeld.dataFolder, 'sound'))
    .filter((name) => name.endsWith('.wav'))
    .map((name) => fs.readFileSync(path.join(immeld.dataFolder, 'sound', name)))
    .map((content) => createHash('sha256').update(content).digest('hex'));
  expect(kept.sort()).toEqual([...sent].sort());
  immeld.remove();
});

/** How many recordings on the device the server has not confirmed yet. */
const waitingOnDevice = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>((resolve, reject) => {
        const opening = indexedDB.open('immeld');
        opening.onerror = () => reject(new Error('The device’s storage does not open.'));
        opening.onsuccess = () => {
          const database = opening.result;
          const asked = database.transaction('captures').objectStore('captures').getAll();
          asked.onsuccess = () => {
            database.close();
            resolve((asked.result as { state: string }[]).filter((c) => c.state !== 'sent').length);
          };
        };
      }),
  );

/** How much of an upload that is not finished lies on the server's disk. */
function arrivedBytes(immeld: Immeld): number {
  const folder = path.join(immeld.dataFolder, 'uploads');
  const open = fs.readdirSync(folder).filter((name) => !name.endsWith('.json'));
  return open.reduce((sum, name) => sum + fs.statSync(path.join(folder, name)).size, 0);
}
