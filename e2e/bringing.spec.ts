import fs from 'node:fs';
import path from 'node:path';
import type { Page } from '@playwright/test';
import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import { bringIn, demoSound, expect, expectAccessible, test, tray } from './immeld';
import { Talker } from './talker';

/** A file as the page gets it from the clipboard or another program. */
async function handOver(page: Page, event: 'paste' | 'drop', names: string[], base64: string): Promise<void> {
  await page.evaluate(
    ({ event, names, base64 }) => {
      const transfer = new DataTransfer();
      const content = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      for (const name of names) transfer.items.add(new File([content, name], name));
      const target = document.querySelector('h1, [role=heading]')!;
      if (event === 'paste') {
        target.dispatchEvent(new ClipboardEvent('paste', { clipboardData: transfer, bubbles: true, cancelable: true }));
      } else {
        for (const type of ['dragenter', 'dragover', 'drop']) {
          target.dispatchEvent(new DragEvent(type, { dataTransfer: transfer, bubbles: true, cancelable: true }));
        }
      }
    },
    { event, names, base64 },
  );
}

test('sound can be pasted; what is no sound is named and left out', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/tray`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  const clip = fs
    .readFileSync(immeld.convert(demoSound('voice-message.ogg'), 'clip.wav', '-t', '4'))
    .toString('base64');
  await handOver(page, 'paste', ['pasted.wav', 'notes.txt'], clip);
  await expect(page.getByText('notes.txt is not an audio or video file')).toBeVisible();
  await expect.poll(async () => (await tray(immeld)).some((r) => r.fileName === 'pasted.wav')).toBe(true);
});

test('forty files at once: one bar for all, and every one arrives once', async ({ page, immeld }) => {
  test.setTimeout(240_000);
  await page.goto(`${immeld.address}/tray`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  const clip = fs
    .readFileSync(immeld.convert(demoSound('voice-message.ogg'), 'minute.ogg', '-t', '1', '-af', 'volume=0'))
    .toString('base64');
  const names = Array.from({ length: 40 }, (_, i) => `many-${i}.ogg`);
  await handOver(page, 'drop', names, clip);
  await expect(page.getByRole('progressbar', { name: 'All imports' })).toBeVisible();
  const arrived = async () =>
    (await immeld.ask<{ items: RecordingCard[] }>('/recordings?limit=200')).items.filter((r) =>
      /^many-/.test(r.fileName),
    );
  await expect.poll(async () => (await arrived()).length, { timeout: 200_000 }).toBe(40);
  expect(new Set((await arrived()).map((r) => r.fileName)).size).toBe(40);
});

test('a folder is dropped: the sounds in it and in its folders come in, the rest is named', async ({
  page,
  immeld,
}) => {
  const folder = path.join(immeld.folder, 'Voice notes');
  fs.mkdirSync(path.join(folder, 'March'), { recursive: true });
  fs.copyFileSync(immeld.convert(demoSound('wearable.ogg'), 'a.wav', '-t', '2'), path.join(folder, 'top.wav'));
  fs.copyFileSync(
    immeld.convert(demoSound('wearable.ogg'), 'b.wav', '-ss', '3', '-t', '2'),
    path.join(folder, 'March', 'inner.wav'),
  );
  fs.writeFileSync(path.join(folder, 'March', 'list.txt'), 'stakes');
  await page.goto(`${immeld.address}/tray`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  // As the browser is told of a folder that is dragged in from outside.
  const devtools = await page.context().newCDPSession(page);
  const data = { items: [], files: [folder], dragOperationsMask: 1 };
  for (const type of ['dragEnter', 'dragOver', 'drop'] as const)
    await devtools.send('Input.dispatchDragEvent', { type, x: 200, y: 300, data });
  await expect(page.getByText('list.txt is not an audio or video file')).toBeVisible();
  await expect
    .poll(async () => (await tray(immeld)).map((r) => r.fileName).filter((n) => /^(top|inner)/.test(n)))
    .toHaveLength(2);
});

test('the same sound again is said to be here, with a way to it', async ({ page, immeld }) => {
  const file = immeld.convert(demoSound('wearable.ogg'), 'again.wav', '-t', '3');
  await page.goto(`${immeld.address}/tray`);
  await bringIn(page, file);
  await expect.poll(async () => (await tray(immeld)).some((r) => r.fileName === 'again.wav')).toBe(true);
  await bringIn(page, file);
  const row = page.getByRole('status', { name: 'again.wav' }).filter({ hasText: 'Already imported' });
  await expect(row).toBeVisible();
  await row.getByRole('button', { name: 'Open' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
});

test('of a video only the sound is sent; its picture plays beside the words, here and, if wanted, everywhere', async ({
  page,
  immeld,
}) => {
  const picture = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=15'];
  const video = immeld.convert(
    demoSound('voice-message.ogg'),
    'site visit.webm',
    ...[...picture, '-t', '8', '-c:v', 'libvpx', '-b:v', '900k', '-c:a', 'libopus', '-map', '0:a', '-map', '1:v'],
  );
  await page.goto(`${immeld.address}/tray`);
  await bringIn(page, video);
  const find = async () => (await tray(immeld)).find((r) => r.fileName === 'site visit.webm');
  await expect.poll(async () => (await find())?.state, { timeout: 60_000 }).toBe('ready');
  const { id } = (await find())!;
  const get = () => immeld.ask<Recording>(`/recordings/${id}`);
  const { sizeBytes, hasVideo } = await get();
  expect(hasVideo).toBe(false);
  expect(sizeBytes).toBeLessThan(fs.statSync(video).size * 0.4);

  await page.goto(`${immeld.address}/recordings/${id}`);
  const pane = page.getByLabel('Video', { exact: true });
  await expect(pane).toBeVisible();
  await expect(page.getByText('is only on this device')).toBeVisible();
  const time = () => pane.evaluate((v: HTMLVideoElement) => v.currentTime);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(time).toBeGreaterThan(1.5);
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  const grip = page.getByRole('slider', { name: 'Height of the video' });
  await grip.press('ArrowDown');
  await expect(grip).toHaveAttribute('aria-valuenow', '200');
  await grip.hover();
  const box = (await grip.boundingBox())!;
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 60);
  await page.mouse.up();
  await expect.poll(async () => Number(await grip.getAttribute('aria-valuenow'))).toBeLessThan(150);
  await expectAccessible(page);

  await page.getByRole('button', { name: 'Upload to the server' }).click();
  await expect.poll(async () => (await get()).hasVideo, { timeout: 30_000 }).toBe(true);
  await page.reload();
  await page.getByRole('button', { name: 'Remove from this device' }).click();
  await page.reload();
  await expect(pane).toHaveAttribute('src', /\/video$/);
  await expect.poll(() => pane.evaluate((v: HTMLVideoElement) => v.videoWidth)).toBe(320);
  await page.getByRole('button', { name: 'Hide video' }).click();
  await expect(pane).toHaveCount(0);
});

test('what a phone shares is kept by the service worker and sent', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.goto(immeld.address);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
  const clip = fs.readFileSync(immeld.convert(demoSound('wearable.ogg'), 'shared.wav', '-t', '5')).toString('base64');
  await page.evaluate(async (base64) => {
    const form = document.createElement('form');
    Object.assign(form, { method: 'POST', action: '/shared', enctype: 'multipart/form-data' });
    const field = document.createElement('input');
    Object.assign(field, { type: 'file', name: 'sounds' });
    const transfer = new DataTransfer();
    const content = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
    transfer.items.add(new File([content], 'shared.wav', { type: 'audio/wav' }));
    field.files = transfer.files;
    form.append(field);
    document.body.append(form);
    form.submit();
  }, clip);
  await page.waitForURL(/\/tray/);
  await expect.poll(async () => (await tray(immeld)).some((r) => r.fileName === 'shared.wav')).toBe(true);
  await talker.close();
});

test('a tab without sound, or none chosen, is explained', async ({ page, immeld }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getDisplayMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));
  });
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('radio', { name: 'A tab or the screen' }).click();
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('no tab or screen was chosen');
});

test('a browser that cannot record a tab says so and tells the way round', async ({ page, immeld }) => {
  await page.addInitScript(() => {
    Object.defineProperty(MediaDevices.prototype, 'getDisplayMedia', { value: undefined });
  });
  await page.goto(`${immeld.address}/settings`);
  await expect(page.getByText(/a second device placed nearby/)).toBeVisible();
  await expectAccessible(page);
});

test('a calendar is subscribed to, brought in as a file, and taken away', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/settings`);
  await page.getByLabel('Calendar address (https:// or webcal://)').fill(`${immeld.address}/standins/calendar.ics`);
  await page.getByRole('button', { name: 'Subscribe' }).click();
  const calendar = page.getByRole('article', { name: '127.0.0.1' });
  await expect(calendar).toContainText('stand-in');
  await calendar.getByRole('button', { name: 'Refresh now' }).click();
  await calendar.getByRole('button', { name: 'Remove' }).click();
  await expect(calendar).toHaveCount(0);
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Import a calendar file' }).click();
  await (await chooser).setFiles({ name: 'broken.ics', mimeType: 'text/calendar', buffer: Buffer.from('no calendar') });
  await expect(page.getByRole('alert')).toContainText('not an iCalendar file');
  await expectAccessible(page);
});
