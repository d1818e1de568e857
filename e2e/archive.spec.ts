import fs from 'node:fs';
import type { Page } from '@playwright/test';
import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import { Immeld, demoSound, expect, expectAccessible, test } from './immeld';

/** Chooses a file in the settings, where everything is brought back from. */
async function bringBack(page: Page, file: string): Promise<void> {
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Restore a backup' }).click();
  await (await chooser).setFiles(file);
}

/** All recordings with their words, as the interface gives them to this browser. */
async function everything(page: Page): Promise<Recording[]> {
  const ask = <T>(path: string) =>
    page.evaluate(async (address) => (await (await fetch(address)).json()) as unknown, `/api${path}`) as Promise<T>;
  // Somebody who was not here before has nothing yet.
  const { items = [] } = await ask<{ items?: RecordingCard[] }>('/recordings?place=all&limit=200');
  return Promise.all(items.map(({ id }) => ask<Recording>(`/recordings/${id}`)));
}

test('a laptop falls into a canal: everything is back on another one from one file', async ({
  page,
  immeld,
  browser,
}) => {
  test.setTimeout(240_000);
  // What the demo leaves to be recognised while one watches is there before everything is kept.
  await page.goto(`${immeld.address}/settings`);
  const isReady = async () => (await everything(page)).every((r) => r.state === 'ready');
  await expect.poll(isReady, { timeout: 90_000 }).toBe(true);
  await page.reload();
  await page.getByLabel('Passphrase (optional)').fill('short');
  await expect(page.getByRole('button', { name: 'Create a backup' })).toBeDisabled();
  await page.getByLabel('Passphrase (optional)').fill('die Gans steht am Wehr');
  await expectAccessible(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Create a backup' }).click();
  await expect(page.getByText(/^“Immeld .+\.immeld” \(.+\) is in your downloads\.$/)).toBeVisible();
  const file = immeld.folder + '/everything.immeld';
  await (await download).saveAs(file);
  const before = await everything(page);

  // Another machine, where nobody has been.
  const other = new Immeld(false);
  await other.start();
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const there = await context.newPage();
  await there.goto(`${other.address}/settings`);
  await bringBack(there, file);
  await expect(there.getByRole('alert')).toContainText('This backup is protected');
  await there.getByLabel('Passphrase of this backup').fill('die Gans steht am Ufer');
  await there.getByRole('button', { name: 'Open backup' }).click();
  await expect(there.getByRole('alert')).toContainText('Wrong passphrase');
  await there.getByLabel('Passphrase of this backup').fill('die Gans steht am Wehr');
  await there.getByRole('button', { name: 'Open backup' }).click();
  const sentence = new RegExp(`^Restored: ${before.length} recordings, \\d+ notes? and \\d+ to-dos\\.$`);
  await expect(there.getByText(sentence)).toBeVisible({ timeout: 60_000 });
  await expectAccessible(there);

  const after = await everything(there);
  const byId = (list: Recording[]) => [...list].sort((a, b) => a.id.localeCompare(b.id));
  // Numbers of passages are given anew; all else is as it was.
  const comparable = (list: Recording[]) =>
    byId(list).map((r) => ({ ...r, passages: r.passages.map(({ id: _, ...passage }) => passage) }));
  expect(comparable(after)).toEqual(comparable(before));
  for (const { id } of before) {
    const bytes = async (p: Page) =>
      p.evaluate(async (address) => {
        const answer = await fetch(address);
        if (!answer.ok) throw new Error(`There is no sound: ${answer.status}`);
        const digest = await crypto.subtle.digest('SHA-256', await answer.arrayBuffer());
        return [...new Uint8Array(digest)].join();
      }, `/api/recordings/${id}/sound`);
    expect(await bytes(there)).toBe(await bytes(page));
  }
  await there.getByRole('link', { name: 'Shelves' }).click();
  await there.getByRole('link', { name: /^Quayside limes, \d+ items/ }).click();
  await there.getByRole('link', { name: /^Walk the quay with Bram/ }).click();
  await there.locator('[data-word]').nth(5).click();
  await expect(there.locator('[data-lit=true]')).toHaveCount(1);

  // Once more, and nothing is doubled.
  await there.goto(`${other.address}/settings`);
  await bringBack(there, file);
  await there.getByLabel('Passphrase of this backup').fill('die Gans steht am Wehr');
  await there.getByRole('button', { name: 'Open backup' }).click();
  await expect(there.getByText(/^Nothing was missing\. \d+ were already here/)).toBeVisible({ timeout: 60_000 });
  await bringBack(there, demoSound('quay-walk.ogg'));
  await expect(there.getByRole('alert')).toContainText('This is not a complete Immeld backup');
  expect(await everything(there)).toHaveLength(before.length);
  await context.close();
  other.remove();
});

test('a guest deletes everything for good, on the server and on the device', async ({ browser }) => {
  const immeld = new Immeld(false);
  await immeld.start();
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await page.goto(immeld.address);
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Import audio files' }).first().click();
  await (await chooser).setFiles(demoSound('voice-message.ogg'));
  await expect.poll(async () => (await everything(page)).map((r) => r.state).join(), { timeout: 60_000 }).toBe('ready');
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('button', { name: 'Delete everything', exact: true }).click();
  await expectAccessible(page);
  await page.getByLabel('Type DELETE to confirm').fill('yes');
  await page.getByRole('button', { name: 'Delete everything permanently' }).click();
  await expect(page.getByRole('alert')).toContainText('Type DELETE to delete everything');
  expect(fs.readdirSync(`${immeld.dataFolder}/sound`)).toHaveLength(1);
  await page.getByLabel('Type DELETE to confirm').fill('DELETE');
  await page.getByRole('button', { name: 'Delete everything permanently' }).click();
  await expect(page.getByText(/^Deleted: 1 recording, 0 notes and 1 file\. .+found nothing left/)).toBeVisible();
  expect(fs.readdirSync(`${immeld.dataFolder}/sound`)).toEqual([]);
  await page.goto(`${immeld.address}/tray`);
  await expect(page.getByText('Everything is filed')).toBeVisible();
  expect(await everything(page)).toEqual([]);
  await context.close();
  immeld.remove();
});
