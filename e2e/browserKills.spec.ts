import type { Page } from '@playwright/test';
import type { RecordingCard } from '@immeld/core/contract/recordings';
import { Immeld, expect, test } from './immeld';
import { TIMES, all, note, random } from './kills';
import { Talker } from './talker';

/** What a crash may cost at most. */
const MOST_LOST_MS = 2000;

test(`the browser is killed ${TIMES} times while recording: at most two seconds are lost, nothing is doubled`, async () => {
  test.setTimeout(60_000 + TIMES * 30_000);
  const immeld = new Immeld();
  await immeld.start();
  const talker = await Talker.open(immeld);
  const next = random(7);
  const seen = new Set<string>();
  for (let i = 0; i < TIMES; i++) {
    await talker.page.goto(immeld.address);
    await talker.page.getByRole('button', { name: 'Speak', exact: true }).click();
    const wanted = 500 + next() * 4500;
    await expect.poll(() => talker.elapsedMs(), { intervals: [20] }).toBeGreaterThan(wanted);
    const elapsedMs = (await talker.elapsedMs())!;
    await talker.crash();
    await talker.launch();
    await talker.page.goto(`${immeld.address}/tray`);
    await expect(talker.page.getByRole('button', { name: 'Speak', exact: true })).toBeVisible();
    // What stopped a moment ago may go on; here it does not.
    const stopped = talker.page.getByRole('region', { name: 'Recording that stopped' });
    await expect(talker.page.getByRole('heading', { name: 'Tray' })).toBeVisible();
    if (await waitingOnDevice(talker.page)) await stopped.getByRole('button', { name: 'Finish' }).click();
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
  // Nor does the browser believe after all that, and a start of its own, that much of the device is taken.
  await talker.network.close();
  await talker.launch();
  await talker.page.goto(immeld.address);
  const { usageDetails } = await talker.page.evaluate(
    async () => (await navigator.storage.estimate()) as { usageDetails?: { fileSystem?: number } },
  );
  expect(usageDetails?.fileSystem ?? 0).toBeLessThan(10 * 1024 ** 2);
  await talker.close();
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
