import fs from 'node:fs';
import { passageText } from '@immeld/core/transcript/manuscript';
import { expect, expectAccessible, recordingNamed, selectWords, test } from './immeld';

test('words are replaced everywhere, each place shown before, one left out, and all taken back', async ({
  page,
  immeld,
}) => {
  const memo = await recordingNamed(immeld, 'Evening memo.m4a');
  const letter = await recordingNamed(immeld, 'Letter to the council.m4a');
  const texts = async () => [await memo.get(), await letter.get()].map((r) => r.passages.map(passageText).join(' '));
  // What is still being recognised would add places while one looks.
  await expect
    .poll(async () => (await immeld.ask<{ items: unknown[] }>('/jobs')).items.length, { timeout: 60_000 })
    .toBe(0);
  const before = await texts();
  expect(before.every((t) => /\bkey\b/.test(t))).toBe(true);
  await page.goto(`${immeld.address}/recordings/${memo.id}`);
  await page.getByRole('button', { name: 'Replace words' }).click();
  await page.getByLabel('Find', { exact: true }).fill('key');
  await page.getByLabel('Replace with').fill('quay');
  const here = page.getByRole('checkbox', { name: /key.*quay/ });
  await expect(here).toHaveCount(1);
  await page.getByRole('radio', { name: 'Everywhere' }).click();
  const replace = page.getByRole('button', { name: /^Replace \d+ places$/ });
  const offered = async () => Number(/\d+/.exec((await replace.getAttribute('aria-label'))!)![0]);
  await expect.poll(offered).toBeGreaterThan(3);
  const count = await offered();
  await expectAccessible(page);
  await page.getByRole('checkbox', { name: /walked the key/ }).click();
  await page.getByRole('button', { name: `Replace ${count - 1} places` }).click();
  await expect(page.getByText(`${count - 1} places replaced.`)).toBeVisible();
  const [kept, written] = await texts();
  expect(kept).toBe(before[0]);
  expect(written).not.toMatch(/\bkey\b/);
  await page.getByText('Undo').click();
  await expect.poll(texts).toEqual(before);
});

test('the sound is cleaned while it plays, in the browser itself, and taken along cleaned', async ({
  page,
  immeld,
}) => {
  const { id } = await recordingNamed(immeld, 'Voice message Petra Sund.ogg');
  await page.goto(`${immeld.address}/recordings/${id}`);
  await page.getByRole('button', { name: 'Clean up audio' }).click();
  await page.getByRole('radio', { name: 'Reduce noise: strong' }).click();
  await page.getByRole('radio', { name: 'Even volume: a little' }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  const strip = page.getByRole('slider', { name: 'Position in the recording' });
  await expect.poll(() => strip.getAttribute('aria-valuetext')).not.toMatch(/^0:00/);
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Pause', exact: true }).click();

  // The same part that stands in the way of the sound, heard from outside: steady noise goes down.
  const left = await page.evaluate(async () => {
    const rate = 48_000;
    const context = new OfflineAudioContext(1, rate * 5, rate);
    await context.audioWorklet.addModule('/workers/cleanProcessor.js');
    const noise = context.createBuffer(1, rate * 5, rate);
    const samples = noise.getChannelData(0);
    for (let i = 0; i < samples.length; i++) samples[i] = (Math.random() * 2 - 1) * 0.02;
    const source = new AudioBufferSourceNode(context, { buffer: noise });
    const node = new AudioWorkletNode(context, 'immeld-clean');
    node.port.postMessage({ clicks: 0, lowCut: 0, highCut: 0, noise: 1, loudness: 0 });
    source.connect(node).connect(context.destination);
    source.start();
    await new Promise((resolve) => setTimeout(resolve, 200));
    const heard = (await context.startRendering()).getChannelData(0);
    const power = (a: Float32Array) => a.subarray(rate * 3).reduce((sum, v) => sum + v * v, 0);
    return 10 * Math.log10(power(heard) / power(samples));
  });
  expect(left).toBeLessThan(-12);
  expect(left).toBeGreaterThan(-60);

  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export the cleaned-up audio' }).click();
  const file = await saved;
  expect(file.suggestedFilename()).toMatch(/, cleaned up\.m4a$/);
  // An MP4 file begins with its ftyp box (ISO/IEC 14496-12).
  expect(
    fs
      .readFileSync(await file.path())
      .subarray(4, 8)
      .toString('latin1'),
  ).toBe('ftyp');
  // It is remembered on this device.
  await page.reload();
  await expect(page.getByRole('button', { name: 'Clean up audio, on' })).toBeVisible();
});

test('all keys are shown, paragraphs begin by another rule, and the strip comes closer', async ({ page, immeld }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  const { id, get } = await recordingNamed(immeld, 'Lecture infiltration and field capacity.m4a');
  await page.goto(`${immeld.address}/recordings/${id}`);
  await expect(page.getByRole('article').first().locator('[data-word]').first()).toBeVisible();
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keyboard shortcuts' });
  await expect(keys).toContainText('Next doubtful word');
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(keys).toHaveCount(0);

  const begins = async () => (await get()).passages.filter((p) => p.startsParagraph).length;
  const usual = await begins();
  await page.getByRole('tab', { name: 'About' }).click();
  await page.getByRole('radio', { name: 'Divide again: one' }).click();
  await expect(page.getByText('1 paragraph.')).toBeVisible();
  expect(await begins()).toBe(1);
  await page.getByText('Undo').click();
  await expect.poll(begins).toBe(usual);
  await page.getByRole('radio', { name: 'Divide again: many' }).click();
  await expect.poll(begins).toBeGreaterThan(usual);

  const strip = page.getByRole('slider', { name: 'Position in the recording' });
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Zoom in' }).click();
  const { durationMs } = await get();
  const box = (await strip.boundingBox())!;
  await page.mouse.click(box.x + box.width * 0.5, box.y + box.height / 2);
  const seconds = async () => {
    const [, minutes, rest] = /^(\d+):(\d\d)/.exec((await strip.getAttribute('aria-valuetext'))!)!;
    return Number(minutes) * 60 + Number(rest);
  };
  // Eight times closer, the middle of what is shown is a sixteenth of the whole.
  await expect.poll(seconds).toBeGreaterThan((durationMs! / 1000 / 16) * 0.9);
  expect(await seconds()).toBeLessThan((durationMs! / 1000 / 16) * 1.1);
});

test('single passages of an earlier version are taken over, and selected words given to somebody', async ({
  page,
  immeld,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  const { id, get } = await recordingNamed(immeld, 'Evening memo.m4a');
  const before = (await get()).passages;
  await page.goto(`${immeld.address}/recordings/${id}`);
  for (const at of [0, 1]) {
    const passage = (await get()).passages[at]!;
    const answer = await page.request.patch(`${immeld.address}/api/recordings/${id}/passages/${passage.id}`, {
      data: { revision: passage.revision, text: `Changed ${at}. ${passageText(passage)}` },
    });
    expect(answer.ok()).toBe(true);
  }
  await page.goto(`${immeld.address}/recordings/${id}?part=about`);
  await page.getByRole('button', { name: 'Compare' }).click();
  await page.getByRole('button', { name: 'Compare side by side' }).click();
  await expect(page.getByRole('button', { name: 'Use this passage' })).toHaveCount(2);
  await page.getByRole('button', { name: 'Use this passage' }).first().click();
  await expect.poll(async () => passageText((await get()).passages[0]!)).toBe(passageText(before[0]!));
  expect(passageText((await get()).passages[1]!)).toContain('Changed 1.');

  await selectWords(page, 1, 3);
  const bar = page.getByRole('toolbar', { name: 'Actions for the selected text' });
  await bar.getByRole('button', { name: 'Assign speaker' }).click();
  await bar.getByRole('textbox', { name: 'Name' }).fill('Jun <b>Fairweather</b>');
  await page.keyboard.press('Enter');
  const theirs = async () => (await get()).passages.filter((p) => p.speaker === 'Jun <b>Fairweather</b>');
  await expect.poll(async () => (await theirs()).map((p) => p.words.length)).toEqual([3]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await theirs()).length).toBe(0);
});

test('the story: the lecture is heard fast, corrected, named, marked, lifted and illustrated without loss', async ({
  page,
  immeld,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  const { id, get } = await recordingNamed(immeld, 'Lecture infiltration and field capacity.m4a');
  await page.goto(`${immeld.address}/recordings/${id}`);
  const first = page.getByRole('article').first();
  await expect(first.locator('[data-word]').first()).toBeVisible();

  // At 1.6 with pauses left out; the lit word is the one that is heard.
  for (let rate = ''; rate !== '1.6';) {
    await page.getByRole('button', { name: /^Speed / }).click();
    rate = /^Speed ([\d.]+),/.exec(
      (await page.getByRole('button', { name: /^Speed / }).getAttribute('aria-label'))!,
    )![1]!;
  }
  await page.getByRole('switch', { name: /^Skip pauses and save \d+:\d\d/ }).click();
  await page.locator('body').press('Space');
  await expect(page.locator('[data-lit=true]')).toHaveCount(1);
  const lit = await page.locator('[data-lit=true]').textContent();
  await expect.poll(() => page.locator('[data-lit=true]').textContent()).not.toBe(lit);

  // Eleven doubtful words, by keys alone.
  const words = async () => (await get()).passages.flatMap((p) => p.words);
  await page.keyboard.press('d');
  const field = page.getByRole('textbox', { name: 'Text of this passage' });
  await expect(field).toBeVisible();
  const typed = (await words()).filter((w) => w.isTyped).length;
  for (let i = 0; i < 11; i++) {
    const offered = page.getByRole('button', { name: /^Put .+ here$/ });
    const selected = await field.evaluate((f: HTMLTextAreaElement) => f.value.slice(f.selectionStart, f.selectionEnd));
    expect(selected).not.toBe('');
    if (i === 0 && (await offered.count())) {
      const word = /^Put (.+) here$/.exec((await offered.first().getAttribute('aria-label'))!)![1]!;
      await page.keyboard.press('Alt+1');
      await expect(field).toHaveValue(new RegExp(word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')));
    } else {
      await page.keyboard.press('Backspace');
      await page.keyboard.type(`word${i}`);
    }
    await page.keyboard.press('Control+ArrowDown');
    await expect(field).toBeVisible();
  }
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await words()).filter((w) => w.isTyped).length).toBeGreaterThanOrEqual(typed + 10);

  // Three sentences are marked by key, one is lifted to a to-do, a picture lies beside a passage.
  const inks = async () => (await get()).todos.filter((t) => t.state === 'ink').length;
  const inksBefore = await inks();
  await page.evaluate(() => document.querySelector('[data-word]')!.closest('[role=article]')!.scrollIntoView());
  for (const [key, from, to] of [
    ['1', 0, 1],
    ['2', 3, 5],
    ['3', 7, 9],
  ] as const) {
    const marks = (await get()).slips.length;
    await selectWords(page, from, to);
    await page.keyboard.press(key);
    await expect.poll(async () => (await get()).slips.length).toBe(marks + 1);
  }
  await selectWords(page, 3, 9);
  await page.keyboard.press('l');
  await expect.poll(inks).toBe(inksBefore + 1);
  await selectWords(page, 2, 4);
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Add a picture or file' }).click();
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  await (await chooser).setFiles({ name: 'profile.png', mimeType: 'image/png', buffer: png });
  await expect.poll(async () => (await get()).slips.filter((s) => s.kind === 'picture' && s.hasPicture).length).toBe(1);
  await expectAccessible(page);

  // Tomorrow, everything is where it was.
  const kept = await get();
  await page.reload();
  await expect(first.locator('[data-word]').first()).toBeVisible();
  await expect(page.getByRole('tab', { name: /^Margin · \d+/ })).toBeVisible();
  expect((await get()).passages).toEqual(kept.passages);
  expect((await get()).slips).toEqual(kept.slips);
  await expect(page.getByRole('img', { name: 'profile.png' })).toBeVisible();
});
