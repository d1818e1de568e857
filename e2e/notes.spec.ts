import fs from 'node:fs';
import path from 'node:path';
import { USUAL_CHOICES } from '@immeld/core/contract/exports';
import type { Note } from '@immeld/core/contract/notes';
import type { Page } from '@playwright/test';
import { expect, expectAccessible, recordingNamed, root, test } from './immeld';

const kept = (page: Page) => page.getByRole('status').filter({ hasText: /^saved$/ });

test('a note has headings that fold, a table, colours and a picture; it goes out as Markdown and comes in again', async ({
  page,
  immeld,
}) => {
  await page.goto(`${immeld.address}/shelves`);
  await page.getByRole('button', { name: 'New note' }).click();
  await page.getByLabel('Title of the note').fill('Soils');
  const text = page.getByRole('textbox', { name: 'Note', exact: true });
  await text.click();
  await page.keyboard.type('## Sand');
  await page.keyboard.press('Enter');
  await page.keyboard.type('It holds little water.');
  await page.keyboard.press('Shift+Home');
  await page.getByRole('button', { name: 'Colour' }).click();
  await page.getByRole('radio', { name: 'Question' }).click();
  await expect(text.locator('mark')).toHaveText('It holds little water.');
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Table', exact: true }).click();
  await page.keyboard.type('Soil');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Holds');
  await page.getByRole('button', { name: 'Add row' }).click();
  await expect(text.getByRole('row')).toHaveCount(4);
  await text.getByText('It holds little water.').click();
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Picture' }).click();
  await (await chooser).setFiles(path.join(root, 'docs', 'screenshots', 'day.png'));
  await expect(text.getByRole('img', { name: 'day.png' })).toBeVisible();
  await expect.poll(() => text.locator('img').evaluate((i: HTMLImageElement) => i.naturalWidth)).toBeGreaterThan(100);
  await expect(kept(page)).toBeVisible();
  await expectAccessible(page);

  await page.getByRole('button', { name: 'Collapse Sand' }).click();
  await expect(text.getByText('It holds little water.')).toBeHidden();
  await expect(kept(page)).toBeVisible();
  await page.reload();
  await expect(text.getByText('It holds little water.')).toBeHidden();
  await page.getByRole('button', { name: 'Expand Sand' }).click();
  await expect(text.getByText('It holds little water.')).toBeVisible();

  await page.getByRole('button', { name: 'About', exact: true }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export as Markdown' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('Soils.md');
  const markdown = fs.readFileSync(await file.path(), 'utf8');
  expect(markdown).toMatch(/^# Soils\n\n## Sand\n\nIt holds little water\.\n/);
  expect(markdown).toMatch(/\| Soil +\| Holds +\|/);
  expect(markdown).toMatch(/!\[day\.png\]\(data:image\/png;base64,/);
  const bringIn = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Import Markdown' }).click();
  await (
    await bringIn
  ).setFiles({
    ...{ name: 'more.md', mimeType: 'text/markdown' },
    buffer: Buffer.from('## Clay\n\n- holds **much**\n- [ ] measure it'),
  });
  await expect(page.getByText('“more.md” was added at the end of the note.')).toBeVisible();
  await page.getByRole('button', { name: 'Text' }).click();
  await expect(text.getByRole('heading', { name: 'Clay' })).toBeVisible();
  await expect(text.getByRole('checkbox')).toBeVisible();
});

test('an earlier text of a note is read and taken back', async ({ page, immeld }) => {
  const doc = (words: string) => ({
    body: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }] },
  });
  const { id } = await immeld.ask<Note>('/notes', 'POST', { title: 'Twice', ...doc('As it was first.') });
  await immeld.ask(`/notes/${id}`, 'PATCH', doc('As it is now, alas.'));
  await page.goto(`${immeld.address}/notes/${id}`);
  const text = page.getByRole('textbox', { name: 'Note', exact: true });
  await expect(text).toHaveText('As it is now, alas.');
  await page.getByRole('button', { name: 'About', exact: true }).click();
  await page.getByRole('button', { name: /^Until .* · 4 words$/ }).click();
  await expect(page.getByRole('document', { name: 'Earlier version' })).toHaveText('As it was first.');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Restore this version' }).click();
  await expect(text).toHaveText('As it was first.');
  await page.getByRole('button', { name: 'About', exact: true }).click();
  await expect(page.getByRole('button', { name: /· 5 words$/ })).toBeVisible();
});

test.describe('with a service worker', () => {
  test.use({ serviceWorkers: 'allow' });

  test('with no network a note is begun, read again and sent by itself, and what was seen before is there', async ({
    page,
    immeld,
  }) => {
    await page.goto(`${immeld.address}/todos`);
    await expect(page.getByRole('checkbox').first()).toBeVisible();
    await page.goto(`${immeld.address}/shelves/all`);
    await expect(page.getByRole('link', { name: /^Note: / }).first()).toBeVisible();
    await page.evaluate(() => navigator.serviceWorker.ready);
    await page.context().setOffline(true);
    await page.getByRole('button', { name: 'New note' }).click();
    await page.getByLabel('Title of the note').fill('Under the bridge');
    const text = page.getByRole('textbox', { name: 'Note', exact: true });
    await text.click();
    await page.keyboard.type('No network here.');
    await expect(page.getByText('saved on this device; sent when the server is back')).toBeVisible();
    await page.reload();
    await expect(text).toHaveText('No network here.');
    await expect(page.getByLabel('Title of the note')).toHaveValue('Under the bridge');
    await page.goto(`${immeld.address}/todos`);
    await expect(page.getByText(/You see the last version this device loaded/)).toBeVisible();
    await expect(page.getByRole('checkbox').first()).toBeVisible();
    await page.goto(`${immeld.address}/shelves/all`);
    await expect(page.getByRole('link', { name: /^Note: Under the bridge/ })).toBeVisible();
    const there = async () =>
      (await immeld.ask<{ items: Note[] }>('/notes')).items.filter((n) => n.title === 'Under the bridge');
    expect(await there()).toEqual([]);
    await page.context().setOffline(false);
    await expect.poll(async () => (await there()).map((n) => n.firstWords)).toEqual(['No network here.']);
    await expect(page.getByText(/You see the last version this device loaded/)).toHaveCount(0, { timeout: 15_000 });
    // Written on afterwards, with another title first.
    await page.getByRole('link', { name: /^Note: Under the bridge/ }).click();
    await page.getByLabel('Title of the note').fill('Over the bridge');
    await expect(kept(page)).toBeVisible();
    await text.click();
    await page.keyboard.press('Control+End');
    await page.keyboard.type(' Now there is.');
    await expect(kept(page)).toBeVisible();
    const [note] = (await immeld.ask<{ items: Note[] }>('/notes')).items.filter((n) => n.title === 'Over the bridge');
    expect(note!.firstWords).toBe('No network here. Now there is.');
  });
});

for (const [name, viewport] of [
  ['phone', { width: 390, height: 844 }],
  ['wide', { width: 1280, height: 800 }],
] as const) {
  test(`${name}: a note works out what is written in it, draws a curve, and takes both along`, async ({
    page,
    immeld,
  }) => {
    await page.setViewportSize(viewport);
    const { id } = await immeld.ask<Note>('/notes', 'POST', { title: 'Spending' });
    await page.goto(`${immeld.address}/notes/${id}`);
    const note = page.getByRole('textbox', { name: 'Note', exact: true });
    await note.click();
    await page.keyboard.type('12 * 4.5 =');
    await expect(note.getByRole('note', { name: 'Result: 54' })).toBeVisible();
    await page.keyboard.press('Enter');
    for (const line of ['rent = 840', 'rent * 12 =', 'Bread 3.20', 'Rope 12', '---']) {
      await page.keyboard.type(line);
      await page.keyboard.press('Enter');
    }
    await expect(note.getByRole('note', { name: 'Result: 10,080' })).toBeVisible();
    await expect(note.getByRole('note', { name: 'Total: 15.20' })).toBeVisible();
    await page.keyboard.type('1/0 =');
    await expect(note.getByText('Nothing can be divided by 0.')).toBeVisible();
    await page.keyboard.press('Enter');
    await page.keyboard.type('y = x^2 - 4');
    await expect(page.getByRole('img', { name: /0 at x = −2 and x = 2; lowest at x = 0 \(−4\)/ })).toBeVisible();
    await expectAccessible(page);
    await expect(kept(page)).toBeVisible();
    const body = JSON.stringify((await immeld.ask<Note>(`/notes/${id}`)).body);
    expect(body).toContain('12 * 4.5 =');
    // What is worked out is no part of what was written.
    expect(body).not.toContain('10,080');
    const { text } = await immeld.ask<{ text: string }>('/exports/preview', 'POST', {
      ...{ item: { kind: 'note', id }, format: 'txt', choices: USUAL_CHOICES.txt },
    });
    for (const part of ['12 * 4.5 = 54', '10,080', 'Total: 15.20', 'x = −2 and x = 2']) expect(text).toContain(part);
  });
}

test('words and slips are lifted into a note and lead back to their second', async ({ page, immeld }) => {
  const { id } = await recordingNamed(immeld, 'Lecture infiltration and field capacity.m4a');
  await page.goto(`${immeld.address}/recordings/${id}`);
  await expect(page.locator('[data-from]').first()).toBeVisible();
  await page.evaluate(() => {
    const words = [...document.querySelectorAll('[data-from]')].slice(3, 8);
    const range = document.createRange();
    range.setStart(words[0]!.firstChild!, 0);
    range.setEnd(words.at(-1)!.firstChild!, words.at(-1)!.textContent!.length);
    getSelection()!.removeAllRanges();
    getSelection()!.addRange(range);
  });
  const said = await page.evaluate(() => getSelection()!.toString());
  await page.getByRole('button', { name: 'Add to a note' }).click();
  const panel = page.getByRole('dialog', { name: 'Add to a note' });
  await expectAccessible(page);
  await panel.getByRole('button', { name: 'New note' }).click();
  await expect(page.getByText(/^Added to “From/)).toBeVisible();
  await page.getByRole('button', { name: 'Open', exact: true }).click();
  const text = page.getByRole('textbox', { name: 'Note', exact: true });
  await expect(text.locator('blockquote')).toContainText(said.split(/\s+/).slice(0, 3).join(' '));
  await text.getByRole('link', { name: /^\d+:\d\d$/ }).click();
  await expect(page).toHaveURL(new RegExp(`/recordings/${id}\\?at=\\d+`));
});

test('a note is proofread and made more formal, piece by piece', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/shelves`);
  await page.getByRole('button', { name: 'New note' }).click();
  const text = page.getByRole('textbox', { name: 'Note', exact: true });
  await text.click();
  await page.keyboard.type("We we need a apple. It's late. Sand holds little. Clay holds much.");
  await page.getByRole('button', { name: 'Revise' }).click();
  await page.getByRole('radio', { name: 'proofread' }).click();
  await expect(page.getByText('2 suggestions')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('article').first().getByRole('button', { name: 'Drop' }).click();
  await page.getByRole('button', { name: 'Accept', exact: true }).click();
  await page.getByRole('radio', { name: 'more formal' }).click();
  await page.getByRole('button', { name: 'Accept all' }).click();
  await page.getByRole('radio', { name: 'bullets' }).click();
  await page.getByRole('button', { name: 'Accept', exact: true }).click();
  await page.getByRole('button', { name: 'Text' }).click();
  await expect(text.getByRole('listitem')).toHaveText([
    'We we need an apple.',
    'It is late.',
    'Sand holds little.',
    'Clay holds much.',
  ]);
});

test('a check box that is written in a note is a to-do, ticked from either side', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/shelves`);
  await page.getByRole('button', { name: 'New note' }).click();
  const text = page.getByRole('textbox', { name: 'Note', exact: true });
  await text.click();
  await page.getByRole('button', { name: 'Checklist' }).click();
  await page.keyboard.type('Order forty ties');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Buy gloves');
  await expect(kept(page)).toBeVisible();
  await text.getByRole('checkbox').first().check();
  await expect(kept(page)).toBeVisible();
  const address = page.url();
  await page.goto(`${immeld.address}/todos`);
  const gloves = page.getByRole('checkbox', { name: 'Buy gloves, done' });
  await expect(gloves).toBeVisible();
  await expect(page.getByRole('checkbox', { name: 'Order forty ties, done' })).toHaveCount(0);
  await gloves.click();
  await expect(gloves).toHaveCount(0);
  await page.goto(address);
  await expect(text.getByRole('checkbox').nth(1)).toBeChecked();
});
