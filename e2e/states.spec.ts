import os from 'node:os';
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { chromium } from '@playwright/test';
import { Immeld, expect, expectAccessible, recordingNamed, root, selectWords, test } from './immeld';

test('an empty house says what will be where, and what to do', async ({ page }) => {
  const immeld = new Immeld();
  await immeld.start();
  await page.goto(immeld.address);
  await expect(page.getByText('Nothing recorded yet today')).toBeVisible();
  for (const [path_, text] of [
    ['/tray', 'Everything is filed'],
    ['/shelves', 'No folders yet'],
    ['/todos', 'No open to-dos'],
    ['/find', 'Find what was said'],
    ['/shelves/bin', 'The bin is empty'],
    ['/recordings/00000000-0000-4000-8000-000000000000', 'This recording no longer exists'],
  ] as const) {
    await page.goto(immeld.address + path_);
    await expect(page.getByText(text)).toBeVisible();
  }
  immeld.remove();
});

test('500 recordings: only what is seen is drawn, and the last is reached', async ({ page }) => {
  const immeld = new Immeld();
  fs.mkdirSync(immeld.dataFolder, { recursive: true });
  execFileSync(process.execPath, [
    path.join(root, 'node_modules', 'tsx', 'dist', 'cli.mjs'),
    path.join(__dirname, 'seedMany.ts'),
    immeld.dataFolder,
    '500',
  ]);
  await immeld.start();
  await page.goto(`${immeld.address}/shelves/all`);
  const rows = page.getByRole('link', { name: /^Memo \d+/ });
  await expect(rows.first()).toBeVisible();
  expect(await rows.count()).toBeLessThan(120);
  const seen = new Set<string>();
  const list = page.locator('div').filter({ has: rows.first() }).last();
  await list.hover();
  for (let i = 0; i < 250 && seen.size < 500; i++) {
    for (const label of await rows.evaluateAll((all) =>
      all.map((e) => /^Memo \d+/.exec(e.getAttribute('aria-label') ?? '')![0]),
    ))
      seen.add(label);
    await page.mouse.wheel(0, 1500);
    await page.waitForTimeout(120);
  }
  expect(seen.size).toBe(500);
  immeld.remove();
});

test('when the server is gone it is said, and it comes back by itself', async ({ page }) => {
  const immeld = new Immeld();
  await immeld.start();
  await page.goto(`${immeld.address}/tray`);
  await expect(page.getByText('Everything is filed')).toBeVisible();
  immeld.kill();
  await expect(page.getByText(/Immeld’s server cannot be reached/)).toBeVisible();
  await immeld.start();
  await expect(page.getByText(/Immeld’s server cannot be reached/)).toHaveCount(0);
  immeld.remove();
});

test('by the address of a computer in the own network: marks, comments and copying work, and the microphone says why not', async ({
  immeld,
  launchOptions,
}) => {
  // The server answers by its machine's own name; by a name that a stranger chose it does not.
  const name = `${os.hostname()}.local`.toLowerCase();
  const address = immeld.address.replace('127.0.0.1', name);
  const args = [...launchOptions.args!, `--host-resolver-rules=MAP ${name} 127.0.0.1`];
  const browser = await chromium.launch({ ...launchOptions, args });
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  const { id, get } = await recordingNamed(immeld, 'Letter to the council.m4a');
  await page.goto(`${address}/recordings/${id}`);
  await expect(page.getByRole('article').first()).toContainText('Letter to the council');
  expect(await page.evaluate(() => window.isSecureContext)).toBe(false);
  const bar = page.getByRole('toolbar', { name: 'Actions for the selected text' });
  const marks = async () => (await get()).slips.filter((s) => s.mark === 'question').length;
  const before = await marks();
  await selectWords(page, 3, 5);
  await bar.getByRole('button', { name: 'Mark: Question' }).click();
  await expect.poll(marks).toBe(before + 1);

  const words = (await get()).passages.flatMap((p) => p.words.map((w) => w.text));
  await selectWords(page, 6, 8);
  await bar.getByRole('button', { name: 'Copy' }).click();
  await expect(page.getByText('Text copied.')).toBeVisible();
  await page.goto(`${address}/todos`);
  const entry = page.getByRole('textbox', { name: 'Add a to-do' });
  await entry.focus();
  await page.keyboard.press('Control+V');
  await expect(entry).toHaveValue(words.slice(6, 9).join(' '));
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('Open Immeld at an https:// address or on localhost');
  await browser.close();
});

test('a sound file that is missing on the disk is said to be, and its words are still there', async ({
  page,
  immeld,
}) => {
  const { id, get } = await recordingNamed(immeld, 'Letter to the council.m4a');
  const { bytes } = await (async () => {
    const answer = await page.request.get(`${immeld.address}/api/recordings/${id}/sound`);
    return { bytes: (await answer.body()).length };
  })();
  const folder = path.join(immeld.dataFolder, 'sound');
  const file = fs.readdirSync(folder).find((f) => fs.statSync(path.join(folder, f)).size === bytes)!;
  fs.renameSync(path.join(folder, file), path.join(immeld.folder, file));
  await page.goto(`${immeld.address}/recordings/${id}`);
  await expect(page.getByText(/audio file is missing from the server’s disk/)).toBeVisible();
  await expect(page.getByText(/members of the council/)).toBeVisible();
  expect((await get()).passages.length).toBeGreaterThan(0);
  fs.renameSync(path.join(immeld.folder, file), path.join(folder, file));
});

test('on the first visit the pack is offered with its size, and an answer is remembered', async ({ page, immeld }) => {
  await page.goto(immeld.address);
  const offer = page.getByRole('region', { name: 'Live words' });
  await expect(offer.getByRole('button', { name: /^Download, [\d.]+ MB$/ })).toBeVisible();
  await expectAccessible(page);
  await offer.getByRole('button', { name: 'Not now' }).click();
  await expect(offer).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Speak', exact: true })).toBeVisible();
  await page.waitForTimeout(1000);
  await expect(offer).toHaveCount(0);
});

test('the pack of words for this device says how large it is, is fetched with progress, kept, and removed', async ({
  page,
  immeld,
}) => {
  await page.goto(`${immeld.address}/settings`);
  await expect(page.getByText(/[\d.]+ MB on this device, [\d.]+ MB to download · licence/)).toBeVisible();
  const devtools = await page.context().newCDPSession(page);
  const line = { offline: false, latency: 5, downloadThroughput: 12e6, uploadThroughput: 12e6 };
  await devtools.send('Network.emulateNetworkConditions', line);
  await page.getByRole('button', { name: 'Download', exact: true }).click();
  await expect(page.getByText(/^\d+% downloaded$/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Remove from this device' })).toBeVisible({ timeout: 60_000 });
  const kept = () => page.evaluate(async () => (await (await caches.open('immeld-packs-1')).keys()).length);
  expect(await kept()).toBeGreaterThanOrEqual(6);
  await page.reload();
  await page.getByRole('button', { name: 'Remove from this device' }).click();
  await expect(page.getByRole('button', { name: 'Download', exact: true })).toBeVisible();
  // What the server offers stays known; its files are gone.
  await expect.poll(kept).toBe(1);
});

test('a moment that is opened by its address plays and stands before one’s eyes', async ({ page, immeld }) => {
  const { id } = await recordingNamed(immeld, 'Appointment with Bram.m4a');
  await page.goto(`${immeld.address}/recordings/${id}?at=76000`);
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await expect(page.getByRole('article', { name: 'Bram, 1:06' })).toBeInViewport();
});
