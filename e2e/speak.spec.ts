import fs from 'node:fs';
import { chromium } from '@playwright/test';
import type { Todo } from '@immeld/core/contract/todos';
import { demoSound, expect, expectAccessible, recordingNamed, test } from './immeld';
import config from './playwright.config';
import { Talker } from './talker';

test('press Speak and talk: the words arrive, are filed with their to-do and taken along', async ({ immeld }) => {
  const voice = immeld.convert(
    demoSound('wearable.ogg'),
    'voice.wav',
    '-ss',
    '18.2',
    '-ar',
    '48000',
    '-ac',
    '1',
    '-af',
    // Time to pause and go on before the first word, however slow the machine is.
    'adelay=8000,apad',
    '-t',
    '40',
  );
  const options = config.use!.launchOptions!;
  const browser = await chromium.launch({
    ...options,
    args: [
      ...options.args!,
      '--use-fake-device-for-media-stream',
      '--use-fake-ui-for-media-stream',
      `--use-file-for-fake-audio-capture=${voice}%noloop`,
    ],
  });
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  const live = page.getByRole('region', { name: 'Recording' });
  const elapsed = async () => Number(/0:(\d\d)/.exec((await live.textContent()) ?? '')?.[1] ?? 0);
  await expect.poll(elapsed).toBeGreaterThanOrEqual(2);
  // It stays visible in all places.
  await page.getByRole('link', { name: /^To-dos/ }).click();
  await expect(live).toBeVisible();
  await live.getByRole('button', { name: 'Pause' }).click();
  await expect(live.getByText('Paused')).toBeVisible();
  await live.getByRole('button', { name: 'Resume' }).click();
  await expect.poll(elapsed, { timeout: 60_000 }).toBeGreaterThanOrEqual(19);
  await live.getByRole('button', { name: 'Finish' }).click();
  await page.getByRole('link', { name: /^Tray/ }).click();
  const card = page.getByRole('article').filter({ hasText: /roof/ }).first();
  await expect(card).toBeVisible({ timeout: 60_000 });
  await card.getByRole('link', { name: /^Open/ }).click();
  await page.locator('[data-word]').nth(5).click();
  await expect(page.locator('[data-lit=true]')).toHaveCount(1);
  await page.getByRole('tab', { name: 'About' }).click();
  await page.getByRole('button', { name: 'Accept title' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Subtitles for the web (WebVTT)' }).click();
  expect(fs.readFileSync(await (await download).path(), 'utf8')).toMatch(
    /^WEBVTT\n\n1\n00:00:\d\d\.\d{3} --> [\s\S]*roof/,
  );
  // Nothing of it is left in the journal of the device: it is complete elsewhere.
  const journals = () =>
    page.evaluate(async () => {
      const root = await navigator.storage.getDirectory();
      const names: string[] = [];
      for await (const name of (await root.getDirectoryHandle('journal')).keys()) names.push(name);
      return names;
    });
  await expect.poll(journals).toEqual([]);
  await page.getByRole('link', { name: 'Back' }).click();
  await card.getByRole('button', { name: 'File', exact: true }).click();
  await expect(page.getByText('is filed.')).toBeVisible();
  await page.getByRole('link', { name: /^To-dos/ }).click();
  await expect(page.getByRole('checkbox', { name: /under the roof/ })).toBeVisible();
  await page.goto(immeld.address);
  await expect(page.getByRole('link', { name: /, \d+:\d\d · \d+ s$/ })).toBeVisible();
  await browser.close();
});

test('a to-do is said: it stands in the line with its day before it is added', async ({ immeld }) => {
  // “I need to move the sacks under the roof tonight”, after a moment for the microphone to open, then silence.
  const cut = ['-af', 'atrim=23.55:26.4,asetpts=PTS-STARTPTS,adelay=3000,apad', '-t', '40'];
  const talker = await Talker.open(immeld, { sound: 'wearable.ogg', cut });
  const { page } = talker;
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('button', { name: 'Download' }).click();
  await expect(page.getByRole('button', { name: 'Remove from this device' })).toBeVisible();
  await page.goto(`${immeld.address}/todos`);
  await page.getByRole('button', { name: 'Speak a to-do' }).click();
  await expectAccessible(page);
  const line = page.getByLabel('Add a to-do');
  await expect(line).toHaveValue(/under the roof tonight$/i, { timeout: 60_000 });
  // It stops by itself when nothing more is said.
  await expect(page.getByRole('button', { name: 'Speak a to-do' })).toBeVisible();
  await expect(page.getByText('Will be added with: today')).toBeVisible();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(line).toHaveValue('');
  const said = async () =>
    (await immeld.ask<{ items: Todo[] }>('/todos')).items.find((t) => /under the roof$/.test(t.text));
  await expect.poll(async () => (await said())?.due).toBe(new Date().toLocaleDateString('sv'));
  await talker.close();
});

test('a recording can be begun from the page of another', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  const { id } = await recordingNamed(immeld, 'Evening memo.m4a');
  await page.goto(`${immeld.address}/recordings/${id}`);
  await page.getByRole('group', { name: 'Player' }).getByRole('button', { name: 'Speak' }).click();
  await expect(page).toHaveURL(/\/now$/);
  await expect(page.getByRole('region', { name: 'Recording' })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('region', { name: 'Recording' })).toBeVisible();
  await expect(page.getByRole('group', { name: 'Player' }).getByRole('button', { name: 'Speak' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Throw away' }).click();
  await talker.close();
});

test('a microphone that is refused is explained, with the way round it', async ({ page, immeld }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));
  });
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('Allow it in the site settings');
});
