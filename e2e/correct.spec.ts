import type { Page } from '@playwright/test';
import type { Corrected, Version } from '@immeld/core/contract/corrections';
import { normaliseWords } from '@immeld/core/transcript/inverseTextNormalisation';
import { expect, expectAccessible, recordingNamed, test } from './immeld';

const textOf = (p: { words: readonly { text: string }[] }) => p.words.map((w) => w.text).join(' ');
/** Where the sound stands, in seconds. */
async function secondOf(page: Page): Promise<number> {
  const strip = page.getByRole('slider', { name: 'Position in the recording' });
  const [, minutes, seconds] = /^(\d+):(\d\d)/.exec((await strip.getAttribute('aria-valuetext')) ?? '')!;
  return Number(minutes) * 60 + Number(seconds);
}

test('doubtful words are gone through and corrected without the mouse; times, undo and the first text stay', async ({
  page,
  immeld,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  const { id, get } = await recordingNamed(immeld, 'Evening memo.m4a');
  const before = (await get()).passages;
  const doubtful = before.flatMap((p) => p.words).filter((w) => w.confidence < 0.5);
  await page.goto(`${immeld.address}/recordings/${id}`);
  await expect(page.getByRole('button', { name: `${doubtful.length} doubtful word` })).toBeVisible();
  await page.keyboard.press('d');
  const field = page.getByRole('textbox', { name: 'Text of this passage' });
  const selected = () => field.evaluate((f: HTMLTextAreaElement) => f.value.slice(f.selectionStart, f.selectionEnd));
  const bare = (text: string) => text.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '');
  await expect.poll(selected).toBe(bare(doubtful[0]!.text));
  // The sound around it is played, and stops by itself.
  await expect.poll(() => secondOf(page)).toBeGreaterThanOrEqual(Math.floor(doubtful[0]!.startMs / 1000));
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  expect(await secondOf(page)).toBeLessThanOrEqual(Math.ceil(doubtful[0]!.endMs / 1000) + 2);
  // Letters do not take the place of a word that was only gone to; D and Shift+D move on and back.
  const whole = await field.inputValue();
  await page.keyboard.press('x');
  expect(await field.inputValue()).toBe(whole);
  await page.keyboard.press('d');
  await page.keyboard.press('Shift+D');
  await expect.poll(selected).toBe(bare(doubtful[0]!.text));
  await page.keyboard.press('Backspace');
  await page.keyboard.type('planting');
  await page.keyboard.press('Control+ArrowDown');
  // Through all that are left, over the ends of passages, without changing any.
  const shown = before.flatMap((p) => normaliseWords(p.words));
  for (const word of doubtful.slice(1)) {
    // A word of a number or a time stands in its figure.
    const { text } = shown.find((w) => w === word || w.spoken?.includes(word))!;
    await expect.poll(selected).toBe(bare(text));
    await page.keyboard.press('Control+ArrowDown');
  }
  await page.keyboard.press('Escape');
  await expect(field).toHaveCount(0);
  // Who does not see the page is told what was changed.
  await expect(page.getByRole('status', { name: 'Announcements' })).toContainText(/^Replaced .* with planting/);

  const words = async () => (await get()).passages.flatMap((p) => p.words);
  await expect
    .poll(async () => (await words()).some((w) => bare(w.text) === 'planting' && w.confidence === 1))
    .toBe(true);
  const corrected = (await words()).find((w) => bare(w.text) === 'planting' && w.confidence === 1)!;
  expect(corrected.startMs).toBe(doubtful[0]!.startMs);
  const others = (all: readonly { startMs: number }[]) => all.filter((w) => w.startMs !== corrected.startMs);
  expect(others(await words())).toEqual(others(before.flatMap((p) => p.words)));
  await expectAccessible(page);

  await page.getByRole('tab', { name: 'About' }).click();
  await page.getByRole('button', { name: 'Compare' }).click();
  await expect(page.locator('ins', { hasText: 'planting' })).toBeVisible();
  await expect(page.locator('del', { hasText: doubtful[0]!.text })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await get()).passages.map((p) => p.words)).toEqual(before.map((p) => p.words));
  await page.keyboard.press('Control+Shift+z');
  await expect
    .poll(async () => (await words()).some((w) => bare(w.text) === 'planting' && w.confidence === 1))
    .toBe(true);
  await page.getByRole('button', { name: 'Restore this version' }).first().click();
  await expect.poll(async () => (await get()).passages.map(textOf)).toEqual(before.map(textOf));
  expect((await immeld.ask<{ items: Version[] }>(`/recordings/${id}/versions`)).items).toHaveLength(2);
});

test('what was typed is kept when another part is opened and when the page is closed', async ({ page, immeld }) => {
  const { id, get } = await recordingNamed(immeld, 'Lecture infiltration and field capacity.m4a');
  const field = page.getByRole('textbox', { name: 'Text of this passage' });
  const correct = page.getByRole('button', { name: /^Edit the text/ }).first();
  const first = async () => textOf((await get()).passages[0]!);
  await page.goto(`${immeld.address}/recordings/${id}`);
  await correct.click();
  await field.fill('Typed and turned away.');
  await page.getByRole('tab', { name: 'About' }).click();
  await expect.poll(first).toBe('Typed and turned away.');
  await page.reload();
  await correct.click();
  await field.fill('Typed and closed.');
  await page.reload();
  await expect.poll(first).toBe('Typed and closed.');
});

test('Enter parts a passage, Backspace joins it again, and no word is lost', async ({ page, immeld }) => {
  const { id, get } = await recordingNamed(immeld, 'Letter to the council.m4a');
  const before = (await get()).passages;
  await page.goto(`${immeld.address}/recordings/${id}`);
  await page
    .locator('[data-word]')
    .nth(before[0]!.words.length + 2)
    .dblclick();
  const field = page.getByRole('textbox', { name: 'Text of this passage' });
  await expect(field).toBeFocused();
  const opened = await field.inputValue();
  await page.keyboard.press('Home');
  await field.evaluate((f: HTMLTextAreaElement) =>
    f.setSelectionRange(f.value.indexOf(' ') + 1, f.value.indexOf(' ') + 1),
  );
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await get()).passages.length).toBe(before.length + 1);
  await expect(field).toHaveValue(opened.slice(opened.indexOf(' ') + 1));
  await field.evaluate((f: HTMLTextAreaElement) => f.setSelectionRange(0, 0));
  await page.keyboard.press('Backspace');
  await expect.poll(async () => (await get()).passages.map((p) => p.words)).toEqual(before.map((p) => p.words));
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(field).toHaveCount(0);
});

test('a correction waits on the device while the server is away, and two devices see both texts', async ({
  page,
  immeld,
}) => {
  const { id, get } = await recordingNamed(immeld, 'CLIP0007.ogg');
  await page.goto(`${immeld.address}/recordings/${id}`);
  const field = page.getByRole('textbox', { name: 'Text of this passage' });
  const correctFirst = async (text: string) => {
    await page
      .getByRole('button', { name: /^Edit the text/ })
      .first()
      .click();
    await field.fill(text);
    await page.getByRole('button', { name: 'Done' }).click();
  };
  await expect(page.getByRole('button', { name: /^Edit the text/ }).first()).toBeVisible();
  immeld.kill();
  await correctFirst('Walking along the quay, typed without a server.');
  await expect(page.getByText('Saved on this device. Sending to the server.')).toBeVisible();
  await immeld.start();
  await expect
    .poll(async () => textOf((await get()).passages[0]!))
    .toBe('Walking along the quay, typed without a server.');
  await expect(page.getByText('Saved on this device. Sending to the server.')).toHaveCount(0);

  const [first] = (await get()).passages;
  const elsewhere = await fetch(`${immeld.address}/api/recordings/${id}/passages/${first!.id}`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ revision: first!.revision, text: 'Typed on the other device.' }),
  });
  expect(((await elsewhere.json()) as Corrected).passages).toHaveLength(1);
  await correctFirst('Typed on this device.');
  const notice = page.getByRole('alert').filter({ hasText: 'Typed on the other device.' });
  await expect(notice).toContainText('You wrote: Typed on this device.');
  await notice.getByRole('button', { name: 'Use my text' }).click();
  await expect.poll(async () => textOf((await get()).passages[0]!)).toBe('Typed on this device.');
});

test('pauses can be left out, and one comes back to where one stopped', async ({ page, immeld }) => {
  const { id } = await recordingNamed(immeld, 'Evening memo.m4a');
  await page.goto(`${immeld.address}/recordings/${id}`);
  const pauses = page.getByRole('switch', { name: /^Skip pauses and save \d+:\d\d$/ });
  await pauses.click();
  await expect(pauses).toHaveAttribute('aria-checked', 'true');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  const second = () => secondOf(page);
  await expect.poll(second).toBeGreaterThanOrEqual(8);
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  const stopped = await second();
  await page.reload();
  await expect.poll(second).toBeGreaterThanOrEqual(stopped - 1);
  await expect(page.locator('[data-lit=true]')).toHaveCount(1);
  await expect(pauses).toHaveAttribute('aria-checked', 'true');
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('radio', { name: 'Skip back by 30 s' }).click();
  await page.goto(`${immeld.address}/recordings/${id}`);
  await page.getByRole('button', { name: 'Back 30 seconds' }).click();
  await expect.poll(second).toBe(0);
  await expectAccessible(page);
});
