import fs from 'node:fs';
import type { FindResult } from '@immeld/core/contract/find';
import { bringIn, demoSound, expect, expectAccessible, recordingNamed, selectWords, test, tray } from './immeld';
import { pdfWith } from './pdf';

test('a link, a file with its pages, comments and a name stand in the margin, are filtered and taken along', async ({
  page,
  immeld,
}) => {
  const { id, get } = await recordingNamed(immeld, 'Revision soil texture.m4a');
  await page.goto(`${immeld.address}/recordings/${id}`);
  await expect(page.getByRole('article').first().locator('[data-word]').first()).toBeVisible();
  const bar = page.getByRole('toolbar', { name: 'Actions for the selected text' });

  await selectWords(page, 1, 3);
  await bar.getByRole('button', { name: 'Add a link' }).click();
  await bar.getByRole('textbox', { name: 'Web address' }).fill('harrowmere.example/soil');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await get()).slips.map((s) => s.address)).toEqual(['https://harrowmere.example/soil']);

  await selectWords(page, 5, 6);
  const chooser = page.waitForEvent('filechooser');
  await bar.getByRole('button', { name: 'Add a picture or file' }).click();
  const buffer = pdfWith(['Sand, silt and clay', 'The triangle of feldspar']);
  await (await chooser).setFiles({ name: 'Soil texture.pdf', mimeType: 'application/pdf', buffer });
  await expect.poll(async () => (await get()).slips.some((s) => s.file?.name === 'Soil texture.pdf')).toBe(true);
  // What stands in the pages is found, although nobody said it.
  const found = async () => (await immeld.ask<FindResult>('/find?q=feldspar')).results;
  await expect.poll(async () => (await found()).map((r) => r.id)).toEqual([id]);
  expect((await found())[0]!.hits.map((h) => h.kind)).toEqual(['file']);

  await page.getByRole('tab', { name: /^Margin/ }).click();
  const link = page.getByRole('article', { name: /^Link at/ });
  await expect(link.getByRole('link', { name: 'harrowmere.example/soil' })).toHaveAttribute('rel', /noopener/);
  await link.getByRole('button', { name: 'More actions for Link' }).click();
  await link.getByRole('button', { name: 'Comment' }).click();
  await link.getByRole('textbox', { name: 'Comment' }).fill('Only the <b>second</b> part');
  await page.keyboard.press('Enter');
  await expect(link.getByText('Only the <b>second</b> part')).toBeVisible();
  await link.getByRole('button', { name: 'More actions for Link' }).click();
  await link.getByRole('button', { name: 'Assign to someone' }).click();
  await link.getByRole('textbox', { name: 'Assign to' }).fill('Jun');
  await page.keyboard.press('Enter');
  await expect(link.getByText('Link · for Jun')).toBeVisible();

  const file = page.getByRole('article', { name: /^File at/ });
  await file.getByRole('button', { name: 'Show pages' }).click();
  const sheet = file.getByRole('img', { name: 'Soil texture.pdf, page 1 of 2' });
  await expect(sheet).toBeVisible();
  const inked = () =>
    sheet.evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
      return data.filter((v, i) => i % 4 === 0 && v < 100).length;
    });
  await expect.poll(inked).toBeGreaterThan(50);
  await file.getByRole('button', { name: 'Next page' }).click();
  await expect(file.getByRole('img', { name: 'Soil texture.pdf, page 2 of 2' })).toBeVisible();
  const saved = page.waitForEvent('download');
  await file.getByRole('button', { name: 'Save Soil texture.pdf' }).click();
  expect(fs.readFileSync(await (await saved).path()).equals(buffer)).toBe(true);
  await expectAccessible(page);

  await page.getByRole('radio', { name: 'for Jun, 1' }).click();
  await expect(page.getByRole('article')).toHaveCount(1);
  const taken = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export these 1' }).click();
  const text = fs.readFileSync(await (await taken).path(), 'utf8');
  const { slips, passages } = await get();
  const marked = slips.find((s) => s.kind === 'link')!;
  const words = passages
    .flatMap((p) => p.words)
    .filter((w) => w.startMs >= marked.startMs && w.startMs < marked.endMs!);
  expect(text).toContain('**Link**: <https://harrowmere.example/soil> (for Jun)');
  expect(text).toContain(`> ${words.map((w) => w.text).join(' ')}`);
  expect(text).toContain('- Only the \\<b\\>second\\</b\\> part');
});

test('a kind of mark is added and renamed, marks with it by its key, and is offered no more', async ({
  page,
  immeld,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  const { id, get } = await recordingNamed(immeld, 'Letter to the council.m4a');
  await page.goto(`${immeld.address}/settings`);
  await page.getByLabel('New kind of mark').fill('Quote');
  await page.getByRole('button', { name: 'Add mark' }).click();
  await page.getByRole('button', { name: 'Question, key 2' }).click();
  await page.getByLabel('Name of Question').fill('Open point');
  await page.getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByRole('button', { name: 'Open point, key 2' })).toBeVisible();
  await expectAccessible(page);

  await page.goto(`${immeld.address}/recordings/${id}`);
  await expect(page.getByRole('article').first().locator('[data-word]').first()).toBeVisible();
  for (const [key, from, to] of [
    ['5', 0, 2],
    ['2', 4, 6],
  ] as const) {
    const before = (await get()).slips.length;
    await selectWords(page, from, to);
    await page.keyboard.press(key);
    await expect.poll(async () => (await get()).slips.length).toBe(before + 1);
  }
  await expect(page.getByRole('article', { name: /^Quote at/ })).toBeVisible();
  await expect(page.getByRole('article', { name: /^Open point at/ })).toBeVisible();
  // A thread leads from the words to each.
  await expect(page.locator('[data-beside]')).not.toHaveCount(0);
  await expect.poll(() => page.locator('svg path[stroke-dasharray="1 4"]').count()).toBeGreaterThanOrEqual(2);
  // The same as a list, by kind.
  await page.getByRole('tab', { name: 'List' }).click();
  await page.getByRole('radio', { name: 'Quote, 1' }).click();
  const taken = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export these 1' }).click();
  const text = fs.readFileSync(await (await taken).path(), 'utf8');
  expect(text).toContain('**Quote**');
  expect(text).not.toContain('Open point');

  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('button', { name: 'Quote, key 5' }).click();
  await page.getByRole('button', { name: 'Remove Quote' }).click();
  await expect(page.getByText('Quote removed. Marks you already made stay.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Quote, key 5' })).toHaveCount(0);
  await page.goto(`${immeld.address}/recordings/${id}?part=margin`);
  await expect(page.getByRole('article', { name: /^Quote at/ })).toBeVisible();
});

test('what is written beside a recording without words is there on a wide screen, too', async ({ page, immeld }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  const silence = immeld.convert(demoSound('wearable.ogg'), 'hum.wav', '-af', 'volume=0', '-t', '3');
  await page.goto(`${immeld.address}/tray`);
  await bringIn(page, silence);
  await expect.poll(async () => (await tray(immeld)).some((r) => r.fileName === 'hum.wav')).toBe(true);
  const { id, get } = await recordingNamed(immeld, 'hum.wav');
  await expect.poll(async () => (await get()).state, { timeout: 60_000 }).toBe('ready');
  const slip = { id: crypto.randomUUID(), kind: 'note', startMs: 1000, text: 'The pump hums again' };
  const answer = await page.request.post(`${immeld.address}/api/recordings/${id}/slips`, { data: { slips: [slip] } });
  expect(answer.ok()).toBe(true);
  await page.goto(`${immeld.address}/recordings/${id}`);
  await expect(page.getByText('No text', { exact: true })).toBeVisible();
  await expect(page.getByRole('article', { name: /at 0:01/ })).toContainText('The pump hums again');
});

test('two hundred slips on a wide screen stand one under the other, none over another', async ({ page, immeld }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  const { id, get } = await recordingNamed(immeld, 'Quay walk.ogg');
  // The demo leaves this one to be recognised while one watches.
  await expect.poll(async () => (await get()).state, { timeout: 90_000 }).toBe('ready');
  const words = (await get()).passages.flatMap((p) => p.words);
  const slips = Array.from({ length: 200 }, (_, i) => ({
    ...{ id: crypto.randomUUID(), kind: 'note', startMs: words[Math.floor((i * words.length) / 200)]!.startMs },
    text: `Slip ${i}. ${'It goes on. '.repeat(i % 5)}`,
  }));
  const answer = await page.request.post(`${immeld.address}/api/recordings/${id}/slips`, { data: { slips } });
  expect(answer.ok()).toBe(true);
  await page.goto(`${immeld.address}/recordings/${id}`);
  await expect(page.getByText('Slip 0.')).toBeVisible();
  const overlaps = () =>
    page.evaluate(() => {
      const boxes = [...document.querySelectorAll('[data-beside]')].map((e) => e.getBoundingClientRect());
      return boxes.filter((b, i) => i > 0 && b.top < boxes[i - 1]!.bottom - 1).length;
    });
  await expect.poll(() => page.locator('[data-beside]').count()).toBeGreaterThan(20);
  await expect.poll(overlaps).toBe(0);
  await page.mouse.move(700, 600);
  for (let i = 0; i < 6; i++) await page.mouse.wheel(0, 3000);
  await expect.poll(() => page.locator('[data-beside]').count()).toBeGreaterThan(20);
  await expect.poll(overlaps).toBe(0);
});

test('a page to read and print holds what is chosen, and nothing of the app', async ({ page, immeld }) => {
  const { id } = await recordingNamed(immeld, 'Appointment with Bram.m4a');
  await page.goto(`${immeld.address}/recordings/${id}?part=about`);
  await page.getByRole('link', { name: 'Print view' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Walk the quay with Bram');
  await expect(page.getByText('Good morning, Bram.', { exact: false })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('switch', { name: 'Words' }).click();
  await expect(page.getByText('Good morning, Bram.', { exact: false })).toHaveCount(0);
  await page.getByRole('switch', { name: 'Words' }).click();
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  // A4 is 210 by 297 mm: 595 by 842 points (ISO 216).
  expect(pdf).toMatch(/\/MediaBox\s*\[\s*0 0 59[45](\.\d+)? 84[12](\.\d+)?\s*\]/);
  expect((pdf.match(/\/Type\s*\/Page\b/g) ?? []).length).toBeGreaterThanOrEqual(1);
});

test('what is dictated is done: signs, paragraphs, and back to what was spoken', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/tray`);
  await bringIn(page, immeld.convert(demoSound('voice-message.ogg'), 'dictated.wav', '-t', '6'));
  const find = async () =>
    (
      await immeld.ask<{ items: { id: string; fileName: string; state: string }[] }>('/recordings?place=tray')
    ).items.find((r) => r.fileName === 'dictated.wav');
  await expect.poll(async () => (await find())?.state, { timeout: 60_000 }).toBe('ready');
  const { id } = (await find())!;
  await page.goto(`${immeld.address}/recordings/${id}?part=about`);
  const dictation = page.getByRole('switch', { name: 'This is a dictation' });
  await dictation.click();
  await expect(dictation).toBeChecked();
  await expect(page.getByText('Spoken commands are now carried out.')).toBeVisible();
  await expect(page.getByText('Before spoken commands were carried out')).toBeVisible();
  await page.getByText('Undo').click();
  await expect(dictation).not.toBeChecked();
});
