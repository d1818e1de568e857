import type { Page } from '@playwright/test';
import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import { pdfWith } from './pdf';
import { expect, expectAccessible, test } from './immeld';
import { Talker, wordsHeard } from './talker';

const list = (immeld: { ask: <T>(address: string) => Promise<T> }) =>
  immeld.ask<{ items: RecordingCard[] }>('/recordings?place=tray').then((r) => r.items);

test('a recorder that gives nothing costs nothing: what the sound thread wrote down is the recording', async ({
  immeld,
}) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.addInitScript(() => {
    const add = Object.getOwnPropertyDescriptor(MediaRecorder.prototype, 'ondataavailable')!;
    Object.defineProperty(MediaRecorder.prototype, 'ondataavailable', {
      set(this: MediaRecorder, listener: (event: BlobEvent) => void) {
        const empty = (event: BlobEvent) => listener(new BlobEvent('dataavailable', { ...event, data: new Blob() }));
        add.set!.call(this, empty);
      },
    });
  });
  const before = (await list(immeld)).length;
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect(page.getByText('No audio has arrived')).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect.poll(async () => (await list(immeld)).length, { timeout: 60_000 }).toBe(before + 1);
  await expect.poll(async () => (await list(immeld))[0]!.state, { timeout: 60_000 }).toBe('ready');
  const recording = await immeld.ask<Recording>(`/recordings/${(await list(immeld))[0]!.id}`);
  expect(recording.durationMs).toBeGreaterThan(4500);
  expect(wordsHeard(recording.passages.flatMap((p) => p.words.map((w) => w.text)).join(' '))).toBeGreaterThan(2);
  await talker.close();
});

test('words appear while one speaks, with marks, slips and a picture at their second', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  const before = (await list(immeld)).length;
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  const words = page.getByRole('log', { name: 'Words so far' });
  await expect
    .poll(async () => wordsHeard((await words.textContent()) ?? ''), { timeout: 60_000 })
    .toBeGreaterThanOrEqual(5);
  await page.getByRole('button', { name: 'Mark: Question' }).click();
  await page.getByLabel('Write a slip').fill('Who owns the crane');
  await page.getByRole('button', { name: 'Make a to-do' }).click();
  await page.getByLabel('Write a slip').fill('Along the water');
  await page.getByRole('button', { name: 'Start a new part' }).click();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Picture' }).click();
  await (await chooser).setFiles(`${__dirname}/../app/public/icon.png`);
  // The first slide is shown at once, the next one by its key.
  const deck = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Show slides' }).click();
  const slides = pdfWith(['Planting pits', 'Depth of the cable']);
  await (await deck).setFiles({ name: 'quay.pdf', mimeType: 'application/pdf', buffer: slides });
  await expect(words).toContainText('Planting pits');
  await page.keyboard.press('n');
  await expect(words).toContainText('Depth of the cable');
  await page.getByRole('button', { name: 'Note consent' }).click();
  await page.getByRole('button', { name: 'Everyone agreed out loud' }).click();
  // A mark that was set in haste gets another meaning, and words, at once.
  await page.getByRole('button', { name: /^Question at/ }).click();
  await page.getByRole('button', { name: 'Change to: Check later' }).click();
  await page.getByRole('textbox', { name: 'Words' }).fill('depth of the cable');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Pause' }).click();
  await page.getByRole('button', { name: 'Resume' }).click();
  await expect(words).toContainText('Paused briefly');
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByRole('heading', { name: 'Tray' })).toBeVisible();

  await expect.poll(async () => (await list(immeld)).length, { timeout: 60_000 }).toBe(before + 1);
  await expect.poll(async () => (await list(immeld))[0]!.state, { timeout: 60_000 }).toBe('ready');
  const [newest] = await list(immeld);
  const recording = await immeld.ask<Recording>(`/recordings/${newest!.id}`);
  const said = recording.passages.flatMap((p) => p.words.map((w) => w.text)).join(' ');
  expect(wordsHeard(said)).toBeGreaterThanOrEqual(5);
  await expect(page.getByRole('article').filter({ hasText: recording.title! }).first()).toBeVisible();
  expect(recording.slips.map((s) => s.kind).sort()).toEqual([
    'consent',
    'heading',
    'mark',
    'mark',
    'picture',
    'seam',
    'slide',
    'slide',
  ]);
  expect(recording.slips.find((s) => s.mark === 'check-later')!.text).toBe('depth of the cable');
  expect(recording.todos.find((t) => t.text === 'Who owns the crane')).toMatchObject({ state: 'ink' });
  for (const { startMs } of recording.slips) expect(startMs).toBeLessThanOrEqual(recording.durationMs!);

  // In the margin they stand at their place, and are changed afterwards.
  await page.goto(`${immeld.address}/recordings/${recording.id}?part=margin`);
  await expect(page.getByRole('img', { name: 'icon.png' })).toBeVisible();
  const mark = page.getByRole('article', { name: /^Check later at/ });
  await mark.getByRole('button', { name: 'Edit' }).click();
  await mark.getByRole('textbox', { name: 'Words' }).fill('depth of the lamp cable');
  await mark.getByRole('textbox', { name: 'Words' }).press('Enter');
  await expect(mark.getByText('depth of the lamp cable')).toBeVisible();
  await mark.getByRole('button', { name: 'More actions for Check later' }).click();
  await mark.getByRole('button', { name: 'Remove' }).click();
  await expect(mark).toHaveCount(0);
  await page.getByText('Undo').click();
  await expect(mark).toHaveCount(1);
  await talker.close();
});

test('with no network the app opens, records, shows the words, and everything arrives later', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('button', { name: 'Download' }).click();
  await expect(page.getByRole('button', { name: 'Remove from this device' })).toBeVisible({ timeout: 60_000 });
  await page.evaluate(() => navigator.serviceWorker.ready);
  await expect
    .poll(() => page.evaluate(async () => (await caches.keys()).length), { timeout: 60_000 })
    .toBeGreaterThanOrEqual(2);
  await page.reload();
  const before = (await list(immeld)).length;
  immeld.kill();

  await page.goto(immeld.address);
  // The recogniser is loaded before anybody speaks.
  await expect.poll(() => page.workers().some((w) => w.url().endsWith('/liveWorker.js'))).toBe(true);
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect
    .poll(async () => wordsHeard((await page.getByRole('log').textContent()) ?? ''), { timeout: 60_000 })
    .toBeGreaterThanOrEqual(5);
  await page.getByRole('button', { name: 'Mark: Key point' }).click();
  await page.getByRole('button', { name: 'Finish' }).click();
  const row = page.getByRole('status', { name: /^Recording / });
  await expect(row).toContainText(/saved on this device/i);
  // The very words that were on the screen are read on, corrected and found, without a network.
  await row.getByRole('link', { name: /^Read / }).click();
  await expect(page.getByText('words from this device')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Edit or mark' }).first().click();
  const typed = page.getByRole('textbox', { name: /^Words at/ });
  await typed.fill(`Quokka ${await typed.inputValue()}`);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('button', { name: /Quokka/ })).toBeVisible();
  await page.goto(`${immeld.address}/find?q=quokka`);
  await expect(page.getByRole('list', { name: 'Found on this device' })).toContainText('Quokka');
  await page.goto(`${immeld.address}/tray`);
  await row.getByRole('button', { name: 'Play' }).click();
  await expect.poll(() => row.locator('audio').evaluate((a: HTMLAudioElement) => a.currentTime)).toBeGreaterThan(0.5);

  // The page is closed, the network stays away, the page is opened again: it is still there.
  await page.reload();
  await expect(row).toContainText(/saved on this device/i);
  await immeld.start();
  await expect(row).toHaveCount(0, { timeout: 60_000 });
  await expect.poll(async () => (await list(immeld)).length).toBe(before + 1);
  await expect.poll(async () => (await list(immeld))[0]!.state, { timeout: 60_000 }).toBe('ready');
  const [newest] = await list(immeld);
  const arrived = await immeld.ask<Recording>(`/recordings/${newest!.id}`);
  expect(arrived.slips).toMatchObject([{ mark: 'key-point' }]);
  // What was typed on the device stays when the server has transcribed the rest.
  expect(arrived.passages.flatMap((p) => p.words.map((w) => w.text))).toContain('Quokka');
  await talker.close();
});

test('what is thrown away while recording is not sent, and can be had back', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(2000);
  const before = (await list(immeld)).length;
  const sent: string[] = [];
  page.on('request', (request) => request.url().includes('/api/uploads') && sent.push(request.url()));
  await page.getByRole('button', { name: 'Throw away' }).click();
  await expect(page.getByText('Recording thrown away. Nothing was sent.')).toBeVisible();
  // Also after the bar with the way back is gone, and the page was opened anew.
  await page.goto(`${immeld.address}/tray`);
  await page.getByRole('button', { name: 'Recently thrown away · 1' }).click();
  expect(sent).toEqual([]);
  expect((await list(immeld)).length).toBe(before);
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect.poll(async () => (await list(immeld)).length).toBe(before + 1);
  await expect(page.getByRole('button', { name: /^Recently thrown away/ })).toHaveCount(0);
  await talker.close();
});

test.describe('what keeps it from recording', () => {
  const speakAfter = async (page: Page, address: string, prepare: () => void) => {
    await page.addInitScript(prepare);
    await page.goto(address);
    await page.getByRole('button', { name: 'Speak', exact: true }).click();
  };

  test('the microphone is refused', async ({ page, immeld }) => {
    await speakAfter(page, immeld.address, () => {
      navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));
    });
    await expect(page.getByRole('alert')).toContainText('Allow it in the site settings');
  });

  test('there is no microphone', async ({ page, immeld }) => {
    await speakAfter(page, immeld.address, () => {
      navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotFoundError'));
    });
    await expect(page.getByRole('alert')).toContainText('Connect one, or import an audio file');
  });

  test('the page is not secure', async ({ page, immeld }) => {
    await speakAfter(page, immeld.address, () => {
      Object.defineProperty(window, 'isSecureContext', { value: false });
      Object.defineProperty(navigator, 'mediaDevices', { value: undefined });
    });
    await expect(page.getByRole('alert')).toContainText('Open Immeld at an https:// address or on localhost');
  });
});

test('a browser that keeps nothing still records, says so, and sends', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.addInitScript(() => {
    indexedDB.open = () => {
      throw new DOMException('no', 'SecurityError');
    };
  });
  const before = (await list(immeld)).length;
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect(page.getByText(/Keep this page open until the recording is sent/)).toBeVisible();
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(2000);
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect.poll(async () => (await list(immeld)).length).toBe(before + 1);
  await talker.close();
});

test('a device with little room warns, and one with none ends the recording cleanly', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.addInitScript(() => {
    const free = sessionStorage.getItem('free') ?? String(30 * 1024 ** 2);
    navigator.storage.estimate = async () => ({ quota: 1024 ** 3, usage: 1024 ** 3 - Number(free) });
  });
  const before = (await list(immeld)).length;
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect(page.getByText(/about \d+ more minutes/)).toBeVisible();
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect.poll(async () => (await list(immeld)).length).toBe(before + 1);
  await page.evaluate(() => sessionStorage.setItem('free', '1000000'));
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('device is full, so the recording has ended');
  await expect.poll(async () => (await list(immeld)).length).toBe(before + 2);
  await talker.close();
});

test('a microphone that is muted is noticed; one that is unplugged and plugged in again goes on', async ({
  immeld,
}) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.addInitScript(() => {
    const open = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
    navigator.mediaDevices.getUserMedia = async (wanted) => {
      const stream = await open(wanted);
      Object.assign(window, { track: stream.getAudioTracks()[0] });
      return stream;
    };
  });
  const before = (await list(immeld)).length;
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(1500);
  const tell = (event: string) =>
    page.evaluate(
      (type) => (window as unknown as { track: MediaStreamTrack }).track.dispatchEvent(new Event(type)),
      event,
    );
  await tell('mute');
  await page.waitForTimeout(700);
  await tell('unmute');
  await expect(page.getByRole('log')).toContainText('the system muted the microphone');
  const saidBefore = (await talker.elapsedMs()) ?? 0;
  await tell('ended');
  // A moment later there is a microphone again: it goes on in the same recording.
  await expect(page.getByText(/The microphone was disconnected at 0:\d\d/)).toBeVisible();
  await expect(page.getByText(/The microphone was disconnected/)).toHaveCount(0);
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(1500);
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect.poll(async () => (await list(immeld)).length).toBe(before + 1);
  const [newest] = await list(immeld);
  const whole = () => immeld.ask<Recording>(`/recordings/${newest!.id}`);
  await expect.poll(async () => (await whole()).slips.map((s) => s.kind)).toEqual(['gap', 'seam']);
  expect((await whole()).durationMs).toBeGreaterThan(saidBefore + 1000);
  await talker.close();
});

test('keys alone: start, mark, pause, go on, finish', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(immeld.address);
  await expect(page.getByRole('button', { name: 'Speak', exact: true })).toBeVisible();
  await page.keyboard.press('Shift+Space');
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(1000);
  await page.keyboard.press('2');
  await expect(page.getByRole('button', { name: /^Question at/ })).toBeVisible();
  await page.keyboard.press('Shift+Space');
  await expect(page.getByRole('button', { name: 'Resume' })).toBeVisible();
  await page.keyboard.press('Shift+Space');
  await expectAccessible(page);
  await page.keyboard.press('Shift+Enter');
  await expect(page.getByRole('heading', { name: 'Tray' })).toBeVisible();
  await talker.close();
});

test('a page that the browser has put to sleep goes on recording', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(1500);
  const before = (await talker.elapsedMs())!;
  const browser = await talker.network.newCDPSession(page);
  await browser.send('Page.setWebLifecycleState', { state: 'frozen' });
  await new Promise((resolve) => setTimeout(resolve, 6000));
  await browser.send('Page.setWebLifecycleState', { state: 'active' });
  // A busy machine plays the fake microphone more slowly than the clock goes: most of the six seconds is enough.
  await expect.poll(() => talker.elapsedMs(), { timeout: 3000 }).toBeGreaterThan(before + 4000);
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByRole('heading', { name: 'Tray' })).toBeVisible();
  await talker.close();
});

test('a page that was busy for seconds gets its sound late, and says of no gap that is not there', async ({
  immeld,
}) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.goto(immeld.address);
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(1500);
  const before = (await talker.elapsedMs())!;
  const begun = Date.now();
  await page.evaluate(() => {
    const until = performance.now() + 5000;
    while (performance.now() < until);
  });
  // A gap would be said after the second in which sound that is late may come.
  await expect.poll(() => talker.elapsedMs(), { timeout: 30_000 }).toBeGreaterThan(before + 6500);
  // A busy machine plays the fake microphone more slowly than the clock goes: that is what may be said to be missing.
  const missingMs = Date.now() - begun - ((await talker.elapsedMs())! - before);
  const said = /(\d+) s were not heard/.exec((await page.getByRole('log').textContent())!)?.[1] ?? 0;
  expect(Number(said)).toBeLessThanOrEqual(Math.round(missingMs / 1000) + 1);
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByRole('heading', { name: 'Tray' })).toBeVisible();
  await talker.close();
});

test('what was recorded without a network is sent by the service worker when no page is open', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.goto(immeld.address);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.reload();
  const before = (await list(immeld)).length;
  immeld.kill();
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(2500);
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByRole('status', { name: /^Recording / })).toContainText(/saved on this device/i);
  const blank = await talker.network.newPage();
  await page.close();
  await immeld.start();
  // The browser sends this event when the device is on a network again; here the test does.
  const browser = await talker.network.newCDPSession(blank);
  const registration = new Promise<string>((resolve) =>
    browser.on('ServiceWorker.workerRegistrationUpdated', ({ registrations }) => {
      if (registrations[0]) resolve(registrations[0].registrationId);
    }),
  );
  await browser.send('ServiceWorker.enable');
  await browser.send('ServiceWorker.dispatchSyncEvent', {
    ...{ origin: immeld.address, registrationId: await registration, tag: 'immeld-outbox', lastChance: false },
  });
  await expect.poll(async () => (await list(immeld)).length).toBe(before + 1);
  await talker.close();
});

test('a recording that is cut off by a reload goes on in the same recording', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.goto(immeld.address);
  const before = (await list(immeld)).length;
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(2500);
  // The browser asks first.
  const asked: string[] = [];
  page.on('dialog', (dialog) => {
    asked.push(dialog.type());
    void dialog.accept();
  });
  await page.reload();
  expect(asked).toEqual(['beforeunload']);
  const stopped = page.getByRole('region', { name: 'Recording that stopped' });
  await expect(stopped).toContainText(/Your recording stopped at 0:\d\d and is saved\./);
  await expectAccessible(page);
  expect((await list(immeld)).length).toBe(before);
  await stopped.getByRole('button', { name: 'Continue' }).click();
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(2500);
  await page.getByRole('button', { name: 'Mark: Key point' }).click();
  // Another tab shows it, and finishes it.
  const other = await talker.network.newPage();
  await other.goto(`${immeld.address}/todos`);
  const bar = other.getByRole('region', { name: 'Recording in another tab' });
  await expect(bar).toContainText(/Recording in another tab · 0:\d\d/);
  await bar.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByRole('heading', { name: 'Tray' })).toBeVisible();
  // The first sound alone may be ready before the second has arrived.
  const whole = async () => immeld.ask<Recording>(`/recordings/${(await list(immeld))[0]!.id}`);
  await expect
    .poll(async () => (await whole()).slips.map((s) => s.kind), { timeout: 60_000 })
    .toEqual(expect.arrayContaining(['seam', 'mark']));
  await expect.poll(async () => (await list(immeld))[0]!.state, { timeout: 60_000 }).toBe('ready');
  expect((await list(immeld)).length).toBe(before + 1);
  const { slips, durationMs } = await whole();
  expect(durationMs).toBeGreaterThan(4500);
  const [seam, mark] = [slips.find((s) => s.kind === 'seam'), slips.find((s) => s.kind === 'mark')];
  expect(seam!.startMs).toBeGreaterThan(2000);
  expect(mark!.startMs).toBeGreaterThan(seam!.startMs);
  await talker.close();
});
