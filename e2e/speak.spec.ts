import { chromium } from '@playwright/test';
import { demoSound, expect, test } from './immeld';
import config from './playwright.config';

test('press Speak and talk: the words arrive, with their to-do', async ({ immeld }) => {
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
    'apad',
    '-t',
    '14',
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
  await page.getByRole('button', { name: 'Speak' }).click();
  const live = page.getByRole('region', { name: 'Recording now' });
  await expect(live.getByText('0:03')).toBeVisible();
  // It stays visible in all places.
  await page.getByRole('link', { name: /^To-dos/ }).click();
  await expect(live).toBeVisible();
  await live.getByRole('button', { name: 'Pause' }).click();
  await expect(live.getByText('paused')).toBeVisible();
  await live.getByRole('button', { name: 'Go on' }).click();
  await expect(live.getByText('0:10')).toBeVisible({ timeout: 20_000 });
  await live.getByRole('button', { name: 'Finish' }).click();
  await page.getByRole('link', { name: /^Tray/ }).click();
  const card = page.getByRole('article').filter({ hasText: /roof/ }).first();
  await expect(card).toBeVisible({ timeout: 60_000 });
  await card.getByRole('link', { name: /^Open/ }).click();
  await page.locator('[data-word]').nth(5).click();
  await expect(page.locator('[data-lit=true]')).toHaveCount(1);
  await browser.close();
});

test('a microphone that is refused is explained, with the way round it', async ({ page, immeld }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));
  });
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak' }).click();
  await expect(page.getByRole('alert')).toContainText('Allow it in the site settings');
});
