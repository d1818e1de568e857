import fs from 'node:fs';
import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import { bringIn, demoSound, expect, test } from './immeld';

test('from a sound file to a filed recording with notes, to-dos and a text to take along', async ({ page, immeld }) => {
  await page.goto(immeld.address);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page.getByText('recordings,').first()).toBeVisible();

  await page.getByRole('link', { name: /^Tray/ }).click();
  const copy = immeld.convert(demoSound('lecture.m4a'), 'Evening lecture.mp3', '-t', '130');
  await bringIn(page, copy);

  // Real progress, with the words as they come.
  const card = page.getByRole('article', { name: 'Evening lecture.mp3' });
  await expect(card.getByText(/\d+% transcribed/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('article', { name: 'Infiltration and field capacity' })).toBeVisible({ timeout: 90_000 });
  await page.getByRole('link', { name: 'Open Infiltration and field capacity' }).first().click();

  // A press on a word plays from it, and the word is lit.
  const word = page.getByText('gravity', { exact: false }).first();
  await expect(page.getByRole('article').first()).toContainText('infiltration');
  await expect(word).toBeVisible();
  const target = page.locator('[data-word]').nth(20);
  await target.click();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await expect(page.locator('[data-lit=true]')).toHaveCount(1);
  const litFirst = await page.locator('[data-lit=true]').textContent();
  await expect.poll(() => page.locator('[data-lit=true]').textContent()).not.toBe(litFirst);
  await page.getByRole('button', { name: /^Speed 1,/ }).click();
  await expect(page.getByRole('button', { name: /^Speed 1.2,/ })).toBeVisible();
  await page.getByRole('button', { name: 'Pause' }).click();

  // A short summary of real sentences, in the length that is asked for.
  await page.getByRole('tab', { name: 'Write-ups' }).click();
  await expect(page.getByRole('heading', { name: 'Summary' })).toBeVisible();
  await page.getByRole('radio', { name: '2 sentences' }).click();
  await expect(page.getByRole('button', { name: /Play \d+:\d\d$/ })).toHaveCount(2);
  await page.getByRole('button', { name: 'Accept' }).click();
  await expect(page.getByText('Summary accepted.')).toBeVisible();

  // Title, folder and tag are accepted one by one, then it is filed.
  await page.getByRole('tab', { name: 'About' }).click();
  await page.getByRole('button', { name: 'Accept title' }).click();
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Infiltration and field capacity');
  await page.getByRole('button', { name: 'Accept folder' }).click();
  await expect(page.getByRole('radio', { name: 'Soil course', checked: true })).toBeVisible();
  await page.getByRole('button', { name: 'Accept tags' }).click();
  await expect(page.getByRole('button', { name: 'Remove tag lecture' })).toBeVisible();
  await page.getByRole('button', { name: 'File', exact: true }).click();
  await expect(page.getByRole('button', { name: 'File', exact: true })).toHaveCount(0);

  // The text goes along as a file.
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Plain text' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('Infiltration and field capacity.txt');
  expect(fs.readFileSync(await file.path(), 'utf8')).toMatch(/^Good evening\. Today we talk about infiltration/);

  // It stands on its shelf, and its words are found.
  await page.goto(`${immeld.address}/shelves`);
  await page.getByRole('link', { name: /^Soil course, \d+ items?/ }).click();
  await expect(page.getByRole('link', { name: /^Infiltration and field capacity, today/ })).toBeVisible();
  await page.getByRole('searchbox').fill('thirsty pores');
  await expect(page.getByRole('article', { name: 'Infiltration and field capacity' }).first()).toBeVisible();
});

test('a sound that begins and ends in the middle of a sentence has its marks and capitals nevertheless', async ({
  page,
  immeld,
}) => {
  await page.goto(`${immeld.address}/tray`);
  await bringIn(page, immeld.convert(demoSound('diary.m4a'), 'Two sentences.wav', '-ss', '15.7', '-t', '9.7'));
  const heard = async () => {
    const { items } = await immeld.ask<{ items: RecordingCard[] }>('/recordings?place=tray');
    const card = items.find((r) => r.fileName === 'Two sentences.wav');
    if (card?.state !== 'ready') return '';
    const { passages } = await immeld.ask<Recording>(`/recordings/${card.id}`);
    return passages.flatMap((p) => p.words.map((w) => w.text)).join(' ');
  };
  await expect.poll(heard, { timeout: 60_000 }).toMatch(/gives the most back\. I should put that on the wall/);
});

test('what is proposed in the tray is filed with one press, its to-dos are on the list, and all can be undone', async ({
  page,
  immeld,
}) => {
  await page.goto(`${immeld.address}/tray`);
  const card = page.getByRole('article').filter({ hasText: 'Quick thought on the way to the bus' });
  await expect(card).toBeVisible();
  await expect(card.getByText('School orchard').first()).toBeVisible();
  const sacks = card.getByRole('checkbox', { name: /sacks under the roof/ });
  await expect(sacks).toBeChecked();
  await card.getByRole('checkbox', { name: /head teacher/ }).click();
  await card.getByRole('button', { name: 'File', exact: true }).click();
  await expect(page.getByText('is filed.')).toBeVisible();
  await expect(card).toHaveCount(0);
  const todos = async () =>
    (await immeld.ask<{ items: { text: string }[] }>('/todos')).items.map((t) => t.text).join(' / ');
  expect(await todos()).toMatch(/sacks under the roof/);
  expect(await todos()).not.toMatch(/head teacher/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(card).toBeVisible();
  await expect.poll(todos).not.toMatch(/sacks under the roof/);
});

test('a to-do is ticked, changed, and leads back to its sound', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/todos`);
  const row = page.getByRole('checkbox', { name: /exercise on water/ });
  await row.click();
  await expect(page.getByText('Done.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: /^Edit Hand in the exercise/ }).click();
  await page.getByLabel('Due').fill('soon');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert')).toContainText('2026-05-12');
  await page.getByLabel('Due').fill('2027-01-05');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('by 5 Jan 2027')).toBeVisible();
  await page
    .getByRole('link', { name: /^Play where/ })
    .first()
    .click();
  await expect(page).toHaveURL(/recordings\/.+at=\d+/);
  await expect(page.getByRole('group', { name: 'Player' })).toBeVisible();
});

test('bad files get a clear sentence, the rest goes on, the same file is not stored twice', async ({
  page,
  immeld,
}) => {
  await page.goto(`${immeld.address}/tray`);
  const text = Buffer.from('This is only text. '.repeat(100));
  await bringIn(page, { name: 'renamed.mp3', mimeType: 'audio/mpeg', buffer: text });
  const broken = page.getByRole('article', { name: 'renamed.mp3' });
  await expect(broken.getByRole('alert')).toContainText('could not be read as audio');
  await bringIn(page, { name: 'nothing.wav', mimeType: 'audio/wav', buffer: Buffer.alloc(0) });
  await expect(page.getByRole('article', { name: 'nothing.wav' }).getByRole('alert')).toContainText(
    'This file is empty',
  );
  // It has arrived, so nothing is said of not having been sent.
  await expect(page.getByText(/^Not sent/)).toHaveCount(0);
  await bringIn(page, demoSound('diary.m4a'));
  await expect(page.getByText(/Already imported: .*not stored twice/)).toBeVisible();
  await broken.getByRole('button', { name: 'Move to bin' }).click();
  await expect(broken).toHaveCount(0);
});

test('odd sounds all arrive, each with what can be said of it, and the server goes on', async ({ page, immeld }) => {
  const sine = (name: string, ...more: string[]) => immeld.convert(demoSound('wearable.ogg'), name, ...more);
  const whole = fs.readFileSync(demoSound('diary.m4a'));
  const truncated = `${immeld.folder}/truncated.m4a`;
  fs.writeFileSync(truncated, whole.subarray(0, whole.length / 2));
  const long = `${'a name that does not end '.repeat(8)}🌳.wav`;
  const files = [
    truncated,
    sine('click.wav', '-t', '0.2'),
    sine('silence.wav', '-af', 'volume=0,apad', '-t', '180'),
    sine('picture.mp4', '-f', 'lavfi', '-i', 'color=c=black:s=64x64:d=1', '-map', '1:v', '-t', '1'),
    sine(long, '-t', '2'),
  ];
  await page.goto(`${immeld.address}/tray`);
  await bringIn(page, files);
  type Brought = { fileName: string; state: string; problem: string | null };
  const brought = async () =>
    (await immeld.ask<{ items: Brought[] }>('/recordings?limit=200')).items.filter((r) =>
      /^(truncated|click|silence|picture|a name)/.test(r.fileName),
    );
  await expect.poll(async () => (await brought()).length, { timeout: 60_000 }).toBe(5);
  await expect
    .poll(async () => (await brought()).every((r) => r.state === 'ready' || r.state === 'failed'), { timeout: 60_000 })
    .toBe(true);
  const all = new Map((await brought()).map((r) => [r.fileName, r]));
  expect(all.get('picture.mp4')!.problem).toContain('no audio track');
  expect(all.get('click.wav')!.state).toBe('ready');
  expect(all.get('silence.wav')!.state).toBe('ready');
  expect([...all.keys()].some((name) => name.endsWith('🌳.wav'))).toBe(true);
  const broken = all.get('truncated.m4a')!;
  expect(broken.state).toBe('ready');
  expect(broken.problem).toMatch(/^This file is cut off: \d:\d\d of \d:\d\d could be read/);
  await expect(page.getByText(broken.problem!)).toBeVisible();
  expect((await immeld.ask<{ isReady: boolean }>('/status')).isReady).toBe(true);
});

test('files can be dropped anywhere', async ({ page, immeld }) => {
  await page.goto(immeld.address);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  const bytes = fs
    .readFileSync(immeld.convert(demoSound('voice-message.ogg'), 'dropped.wav', '-t', '6'))
    .toString('base64');
  const data = await page.evaluateHandle((base64) => {
    const transfer = new DataTransfer();
    const content = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
    transfer.items.add(new File([content], 'dropped.wav', { type: 'audio/wav' }));
    return transfer;
  }, bytes);
  for (const type of ['dragenter', 'dragover', 'drop'])
    await page.dispatchEvent('h1, [role=heading]', type, { dataTransfer: data });
  await page.getByRole('link', { name: /^Tray/ }).click();
  await expect(
    page
      .getByRole('article')
      .filter({ hasText: /reception/ })
      .first(),
  ).toBeVisible({ timeout: 60_000 });
});
