import fs from 'node:fs';
import { type Page, chromium } from '@playwright/test';
import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import { type Immeld, bringIn, demoSound, expect, expectAccessible, test } from './immeld';
import config from './playwright.config';
import { Talker, wordsHeard } from './talker';

const tray = (immeld: Immeld) =>
  immeld.ask<{ items: RecordingCard[] }>('/recordings?place=tray&limit=200').then((r) => r.items);

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
  await expect(page.getByText('notes.txt is neither sound nor video')).toBeVisible();
  await expect.poll(async () => (await tray(immeld)).some((r) => r.fileName === 'pasted.wav')).toBe(true);
});

test('a hundred files at once: one bar for all, and every one arrives once', async ({ page, immeld }) => {
  test.setTimeout(240_000);
  await page.goto(`${immeld.address}/tray`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  const clip = fs
    .readFileSync(immeld.convert(demoSound('voice-message.ogg'), 'minute.ogg', '-t', '1'))
    .toString('base64');
  const names = Array.from({ length: 100 }, (_, i) => `many-${i}.ogg`);
  await handOver(page, 'drop', names, clip);
  await expect(page.getByRole('progressbar', { name: 'All files together' })).toBeVisible();
  const arrived = async () =>
    (await immeld.ask<{ items: RecordingCard[] }>('/recordings?limit=200')).items.filter((r) =>
      /^many-/.test(r.fileName),
    );
  await expect.poll(async () => (await arrived()).length, { timeout: 200_000 }).toBe(100);
  expect(new Set((await arrived()).map((r) => r.fileName)).size).toBe(100);
});

test('the same sound again is said to be here, with a way to it', async ({ page, immeld }) => {
  const file = immeld.convert(demoSound('wearable.ogg'), 'again.wav', '-t', '3');
  await page.goto(`${immeld.address}/tray`);
  await bringIn(page, file);
  await expect.poll(async () => (await tray(immeld)).some((r) => r.fileName === 'again.wav')).toBe(true);
  await bringIn(page, file);
  const row = page.getByRole('status', { name: 'again.wav' }).filter({ hasText: 'already here since' });
  await expect(row).toBeVisible();
  await row.getByRole('button', { name: 'Open it' }).click();
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
  const pane = page.getByLabel('Picture of the video');
  await expect(pane).toBeVisible();
  await expect(page.getByText('is on this device only')).toBeVisible();
  const time = () => pane.evaluate((v: HTMLVideoElement) => v.currentTime);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(time).toBeGreaterThan(1.5);
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  const grip = page.getByRole('slider', { name: 'Height of the picture' });
  await grip.press('ArrowDown');
  await expect(grip).toHaveAttribute('aria-valuenow', '200');
  await grip.hover();
  const box = (await grip.boundingBox())!;
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 60);
  await page.mouse.up();
  await expect.poll(async () => Number(await grip.getAttribute('aria-valuenow'))).toBeLessThan(150);
  await expectAccessible(page);

  await page.getByRole('button', { name: 'Keep it on the server too' }).click();
  await expect.poll(async () => (await get()).hasVideo, { timeout: 30_000 }).toBe(true);
  await page.reload();
  await page.getByRole('button', { name: 'Remove it from this device' }).click();
  await page.reload();
  await expect(pane).toHaveAttribute('src', /\/video$/);
  await expect.poll(() => pane.evaluate((v: HTMLVideoElement) => v.videoWidth)).toBe(320);
  await page.getByRole('button', { name: 'Hide the picture' }).click();
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

test('the quick page records at once, as small as a card, and files to the tray', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.setViewportSize({ width: 320, height: 240 });
  const before = (await tray(immeld)).length;
  await page.goto(`${immeld.address}/quick`);
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(1500);
  await expectAccessible(page);
  const finish = page.getByRole('button', { name: 'Finish' });
  expect((await finish.boundingBox())!.y + (await finish.boundingBox())!.height).toBeLessThanOrEqual(240);
  await finish.click();
  await expect(page.getByText('It is in the tray.')).toBeVisible();
  expect((await tray(immeld)).length).toBe(before + 1);
  await talker.close();
});

test('the sound of a tab is recorded, alone and mixed with the microphone', async ({ immeld }) => {
  const options = config.use!.launchOptions!;
  const browser = await chromium.launch({
    ...options,
    ignoreDefaultArgs: ['--mute-audio'],
    args: [...options.args!, '--auto-accept-this-tab-capture'],
  });
  const page = await browser.newPage();
  await page.addInitScript(() => {
    const open = navigator.mediaDevices.getDisplayMedia.bind(navigator.mediaDevices);
    // A person would choose the tab; the test's browser takes the one that it is in.
    navigator.mediaDevices.getDisplayMedia = (wanted) =>
      open({ ...wanted, preferCurrentTab: true } as DisplayMediaStreamOptions);
    const tone = (hertz: number, where: (audio: AudioContext) => AudioNode) => {
      const audio = new AudioContext();
      const oscillator = audio.createOscillator();
      oscillator.frequency.value = hertz;
      const node = where(audio);
      oscillator.connect(node);
      oscillator.start();
      return node;
    };
    window.addEventListener('pointerdown', () => tone(440, (audio) => audio.destination), {
      capture: true,
      once: true,
    });
    // The fake microphone of this browser would put itself in the place of the tab: this one is a tone, too.
    navigator.mediaDevices.getUserMedia = async () =>
      (tone(1200, (audio) => audio.createMediaStreamDestination()) as MediaStreamAudioDestinationNode).stream;
  });
  for (const choice of ['A tab or the screen', 'Both, mixed']) {
    await page.goto(`${immeld.address}/settings`);
    await page.getByRole('radio', { name: choice }).click();
    if (choice.startsWith('Both')) {
      await page.getByRole('button', { name: 'Level of the microphone: lower' }).click();
      await expect(page.getByText('90 %')).toBeVisible();
    }
    const before = (await tray(immeld)).length;
    await page.getByRole('button', { name: 'Speak' }).click();
    const elapsed = () =>
      page.evaluate(() => Number(document.querySelector<HTMLElement>('[data-elapsed]')?.dataset['elapsed'] ?? 0));
    await expect.poll(elapsed).toBeGreaterThan(2500);
    if (choice.startsWith('Both')) {
      // The levels can be moved while it is recorded.
      await page.getByRole('button', { name: 'Level of the tab or screen: higher' }).click();
      await expect(page.getByText('110 %')).toBeVisible();
    }
    await page.getByRole('button', { name: 'Finish' }).click();
    await expect.poll(async () => (await tray(immeld)).length).toBe(before + 1);
    const [newest] = await tray(immeld);
    const get = () => immeld.ask<Recording>(`/recordings/${newest!.id}`);
    await expect.poll(async () => (await get()).state, { timeout: 60_000 }).toBe('ready');
    // The tone of the page is in it, not silence.
    expect(Math.max(...(await get()).peaks)).toBeGreaterThan(20);
  }
  await browser.close();
});

test('a tab without sound, or none chosen, is explained', async ({ page, immeld }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getDisplayMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));
  });
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('radio', { name: 'A tab or the screen' }).click();
  await page.getByRole('button', { name: 'Speak' }).click();
  await expect(page.getByRole('alert')).toContainText('No tab or screen was chosen');
});

test('a browser that cannot record a tab says so and tells the way round', async ({ page, immeld }) => {
  await page.addInitScript(() => {
    Object.defineProperty(MediaDevices.prototype, 'getDisplayMedia', { value: undefined });
  });
  await page.goto(`${immeld.address}/settings`);
  await expect(page.getByText(/lay it beside the loudspeaker/)).toBeVisible();
  await expectAccessible(page);
});

test('an appointment is recorded from its card, with title, people and place', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.goto(immeld.address);
  const card = page.getByRole('article', { name: 'Appointment: Planting day, planning' });
  await expect(card).toContainText('14:00 to 14:45 · School orchard');
  await card.getByRole('button', { name: 'Record it' }).click();
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(1500);
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByRole('heading', { name: 'Tray' })).toBeVisible();
  await expect.poll(async () => (await tray(immeld))[0]!.appointment?.title).toBe('Planting day, planning');
  const [newest] = await tray(immeld);
  await page.goto(`${immeld.address}/recordings/${newest!.id}?part=about`);
  await expect(page.getByText(/School orchard · Jun Fairweather, Bram Vantongeren/)).toBeVisible();
  await page.getByRole('button', { name: 'Not this one' }).click();
  await expect(page.getByText('It belongs to none.')).toBeVisible();
  await page.getByRole('button', { name: 'Choose another' }).click();
  await page.getByRole('button', { name: /^Lamp cables/ }).click();
  await expect(page.getByText(/Town hall, room 3/)).toBeVisible();
  await talker.close();
});

test('a calendar is subscribed to, brought in as a file, and taken away', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/settings`);
  await page
    .getByLabel('Address of a calendar (https:// or webcal://)')
    .fill(`${immeld.address}/standins/calendar.ics`);
  await page.getByRole('button', { name: 'Subscribe' }).click();
  const calendar = page.getByRole('article', { name: '127.0.0.1' });
  await expect(calendar).toContainText('stand-in');
  await calendar.getByRole('button', { name: 'Fetch it now' }).click();
  await calendar.getByRole('button', { name: 'Take it away' }).click();
  await expect(calendar).toHaveCount(0);
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Bring in a calendar file' }).click();
  await (await chooser).setFiles({ name: 'broken.ics', mimeType: 'text/calendar', buffer: Buffer.from('no calendar') });
  await expect(page.getByRole('alert')).toContainText('not an iCalendar file');
  await expectAccessible(page);
});

test('what is said between the two phrases stands in the margin', async ({ immeld }) => {
  await fetch(`${immeld.address}/api/settings`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ asideOpening: 'the curb is', asideClosing: 'I can push' }),
  });
  const talker = await Talker.open(immeld);
  const { page } = talker;
  const before = (await tray(immeld)).length;
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak' }).click();
  // "I can push the probe" is over after 23 seconds.
  await expect.poll(() => talker.elapsedMs(), { timeout: 60_000 }).toBeGreaterThan(26_000);
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect.poll(async () => (await tray(immeld)).length).toBe(before + 1);
  await expect.poll(async () => (await tray(immeld))[0]!.state, { timeout: 60_000 }).toBe('ready');
  const [newest] = await tray(immeld);
  const recording = await immeld.ask<Recording>(`/recordings/${newest!.id}`);
  const asides = recording.slips.filter((s) => s.kind === 'aside');
  expect(asides).toHaveLength(1);
  const { text } = asides[0]!;
  // How single words are heard varies; what stands in the margin is what was said after the phrase, and only there.
  expect(wordsHeard(text)).toBeGreaterThanOrEqual(3);
  expect(text).toMatch(/cracked|two|2|rubble|mostly/);
  const beginning = text.split(' ').slice(0, 4).join(' ');
  expect(recording.passages.flatMap((p) => p.words.map((w) => w.text)).join(' ')).not.toContain(beginning);
  await page.goto(`${immeld.address}/recordings/${recording.id}?part=margin`);
  await expect(page.getByRole('article', { name: /^Aside at/ })).toContainText(beginning);
  await talker.close();
});

test('one more thing is added to a recording: one text, one strip, a seam with its date', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/tray`);
  await bringIn(page, immeld.convert(demoSound('voice-message.ogg'), 'begun.wav', '-t', '6'));
  const find = async () => (await tray(immeld)).find((r) => r.fileName === 'begun.wav');
  await expect.poll(async () => (await find())?.state, { timeout: 60_000 }).toBe('ready');
  const { id, durationMs } = (await find())!;
  await page.goto(`${immeld.address}/recordings/${id}`);
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await (await chooser).setFiles(immeld.convert(demoSound('wearable.ogg'), 'later.wav', '-ss', '18', '-t', '8'));
  const get = () => immeld.ask<Recording>(`/recordings/${id}`);
  await expect.poll(async () => (await get()).slips.length, { timeout: 60_000 }).toBe(1);
  const joined = await get();
  expect(joined.slips[0]).toMatchObject({ kind: 'seam' });
  expect(Math.abs(joined.slips[0]!.startMs - durationMs!)).toBeLessThan(50);
  expect(Math.abs(joined.durationMs! - durationMs! - 8000)).toBeLessThan(300);
  const words = joined.passages.flatMap((p) => p.words);
  expect(words.some((w) => /reception/i.test(w.text) && w.startMs < durationMs!)).toBe(true);
  expect(words.some((w) => /roof/i.test(w.text) && w.startMs > durationMs!)).toBe(true);
  await page.goto(`${immeld.address}/recordings/${id}?part=margin`);
  await expect(page.getByRole('article', { name: /^Seam at/ })).toContainText('later.wav');
  // What is played is both in one.
  const length = await page.evaluate(
    (address) =>
      new Promise<number>((resolve) => {
        const sound = new Audio(address);
        sound.addEventListener('loadedmetadata', () => resolve(sound.duration));
      }),
    `/api/recordings/${id}/sound`,
  );
  expect(Math.abs(length * 1000 - joined.durationMs!)).toBeLessThan(300);
});
