import { chromium } from '@playwright/test';
import type { Recording } from '@immeld/core/contract/recordings';
import { bringIn, demoSound, expect, expectAccessible, expectLargeTargets, test, tray } from './immeld';
import config from './playwright.config';
import { Talker, wordsHeard } from './talker';

test('the quick page records at once, as small as a card, and files to the tray', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.setViewportSize({ width: 320, height: 240 });
  const before = (await tray(immeld)).length;
  await page.goto(`${immeld.address}/quick`);
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(1500);
  await expectAccessible(page);
  await expectLargeTargets(page);
  await page.getByRole('button', { name: 'Mark: Key point' }).click();
  await expect(page.getByRole('log', { name: 'Words so far' })).toContainText(/\w+ \w+/, { timeout: 30_000 });
  await expect(page.getByRole('button', { name: 'Throw away' })).toBeInViewport();
  const finish = page.getByRole('button', { name: 'Finish' });
  expect((await finish.boundingBox())!.y + (await finish.boundingBox())!.height).toBeLessThanOrEqual(240);
  await finish.click();
  await expect(page.getByText('Saved to the tray.')).toBeVisible();
  expect((await tray(immeld)).length).toBe(before + 1);
  const [newest] = await tray(immeld);
  const { slips } = await immeld.ask<Recording>(`/recordings/${newest!.id}`);
  expect(slips.map(({ kind, mark }) => [kind, mark])).toEqual([['mark', 'key-point']]);
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
  for (const choice of ['A tab or the screen', 'Both together']) {
    await page.goto(`${immeld.address}/settings`);
    await page.getByRole('radio', { name: choice }).click();
    if (choice.startsWith('Both')) {
      await page.getByRole('button', { name: 'Microphone level: lower' }).click();
      await expect(page.getByText('90%')).toBeVisible();
    }
    const before = (await tray(immeld)).length;
    await page.getByRole('button', { name: 'Speak', exact: true }).click();
    const elapsed = () =>
      page.evaluate(() => Number(document.querySelector<HTMLElement>('[data-elapsed]')?.dataset['elapsed'] ?? 0));
    await expect.poll(elapsed).toBeGreaterThan(2500);
    if (choice.startsWith('Both')) {
      // The levels can be moved while it is recorded.
      await page.getByRole('button', { name: 'Tab or screen level: higher' }).click();
      await expect(page.getByText('110%')).toBeVisible();
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

test('an appointment is recorded from its card, with title, people and place', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.goto(immeld.address);
  const card = page.getByRole('article', { name: 'Appointment: Planting day, planning' });
  await expect(card).toContainText('14:00 to 14:45 · School orchard');
  await card.getByRole('button', { name: 'Record' }).click();
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(1500);
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect(page.getByRole('heading', { name: 'Tray' })).toBeVisible();
  await expect.poll(async () => (await tray(immeld))[0]!.appointment?.title).toBe('Planting day, planning');
  const [newest] = await tray(immeld);
  await page.goto(`${immeld.address}/recordings/${newest!.id}?part=about`);
  await expect(page.getByText(/School orchard · Jun Fairweather, Bram Vantongeren/)).toBeVisible();
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText('Not part of an appointment.')).toBeVisible();
  await page.getByRole('button', { name: 'Choose another appointment' }).click();
  await page.getByRole('button', { name: /^Lamp cables/ }).click();
  await expect(page.getByText(/Town hall, room 3/)).toBeVisible();
  await talker.close();
});

test('who was told stands with the recording, and a spoken notice is heard in it', async ({ immeld }) => {
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('switch', { name: /^Ask about consent/ }).click();
  await page.goto(immeld.address);
  await page
    .getByRole('article', { name: 'Appointment: Planting day, planning' })
    .getByRole('button', { name: 'Record' })
    .click();
  await expect(page.getByText('Is anyone with you? Tell them you are recording.')).toBeVisible();
  await expect(page.getByLabel('Who was told (optional)')).toHaveValue('Jun Fairweather, Bram Vantongeren');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Everyone agreed out loud' }).click();
  await expect(page.getByText('Is anyone with you? Tell them you are recording.')).toHaveCount(0);
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect.poll(async () => (await tray(immeld))[0]!.appointment?.title).toBe('Planting day, planning');
  await page.goto(`${immeld.address}/recordings/${(await tray(immeld))[0]!.id}?part=about`);
  await expect(
    page.getByText(/^Jun Fairweather, Bram Vantongeren: everyone agreed out loud, at \d+:\d\d/),
  ).toBeVisible();

  // Nothing but the notice is to be heard: a tab and a microphone that are silent.
  await page.addInitScript(() => {
    const silence = async () => new AudioContext().createMediaStreamDestination().stream;
    navigator.mediaDevices.getUserMedia = silence;
    navigator.mediaDevices.getDisplayMedia = silence;
  });
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('radio', { name: 'Both together' }).click();
  const before = (await tray(immeld)).length;
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
  await page.getByRole('button', { name: 'Play a spoken notice' }).click();
  const began = (await talker.elapsedMs())!;
  await expect.poll(() => talker.elapsedMs()).toBeGreaterThan(began + 6000);
  await page.getByRole('button', { name: 'Finish' }).click();
  await expect.poll(async () => (await tray(immeld)).length).toBe(before + 1);
  const get = async () => immeld.ask<Recording>(`/recordings/${(await tray(immeld))[0]!.id}`);
  await expect.poll(async () => (await get()).state, { timeout: 60_000 }).toBe('ready');
  const { passages, slips } = await get();
  expect(passages.flatMap((p) => p.words.map((w) => w.text)).join(' ')).toMatch(/conversation is being recorded/i);
  expect(slips.map((s) => [s.kind, s.text])).toContainEqual(['consent', 'The spoken notice was played']);
  await talker.close();
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
  await page.getByRole('button', { name: 'Speak', exact: true }).click();
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
  await page.getByRole('button', { name: 'Import a file' }).click();
  await (await chooser).setFiles(immeld.convert(demoSound('wearable.ogg'), 'later.wav', '-ss', '18', '-t', '8'));
  const get = () => immeld.ask<Recording>(`/recordings/${id}`);
  await expect.poll(async () => (await get()).slips.length, { timeout: 60_000 }).toBe(1);
  const joined = await get();
  expect(joined.slips[0]).toMatchObject({ kind: 'seam' });
  expect(Math.abs(joined.slips[0]!.startMs - durationMs!)).toBeLessThan(50);
  expect(Math.abs(joined.durationMs! - durationMs! - 8000)).toBeLessThan(300);
  // The same once more is not added twice, and the page says so.
  const again = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Import a file' }).click();
  await (await again).setFiles(immeld.convert(demoSound('wearable.ogg'), 'later.wav', '-ss', '18', '-t', '8'));
  await expect(page.getByText(/^Already imported:/)).toBeVisible();
  expect((await get()).durationMs).toBe(joined.durationMs);
  const words = joined.passages.flatMap((p) => p.words);
  expect(words.some((w) => /reception/i.test(w.text) && w.startMs < durationMs!)).toBe(true);
  expect(words.some((w) => /roof/i.test(w.text) && w.startMs > durationMs!)).toBe(true);
  await page.goto(`${immeld.address}/recordings/${id}?part=margin`);
  await expect(page.getByRole('article', { name: /^Break at/ })).toContainText('later.wav');
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
