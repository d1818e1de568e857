import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import type { Shelves } from '@immeld/core/contract/shelves';
import { expect, expectAccessible, Immeld, recordingNamed, root, test } from './immeld';

const WAITING = 10;

/** A house in which sixty recordings are filed and ten wait. */
async function houseWithFullTray(): Promise<Immeld> {
  const immeld = new Immeld();
  fs.mkdirSync(immeld.dataFolder, { recursive: true });
  const tsx = path.join(root, 'node_modules', 'tsx', 'dist', 'cli.mjs');
  execFileSync(process.execPath, [tsx, path.join(__dirname, 'seedTray.ts'), immeld.dataFolder, String(WAITING)]);
  await immeld.start();
  return immeld;
}
const tray = async (immeld: Immeld) =>
  (await immeld.ask<{ items: RecordingCard[]; total: number }>('/recordings?place=tray&limit=200')).total;

test('a full tray is filed by keyboard, and all of it can go back', async ({ page }) => {
  const immeld = await houseWithFullTray();
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${immeld.address}/tray`);
  await expect(page.getByText(`${WAITING} to file`)).toBeVisible();
  const suggested = (await immeld.ask<{ items: RecordingCard[] }>('/recordings?place=tray&limit=200')).items.filter(
    (r) => r.suggestion.folderId,
  );
  // Nearly every one has a shelf proposed, learnt from the sixty.
  expect(suggested.length).toBeGreaterThanOrEqual(WAITING - 3);
  await page.keyboard.press('ArrowDown');
  const card = page.locator('[role=article][aria-current=true]');
  await expect(card).toHaveCount(1);
  const title = await card.getAttribute('aria-label');
  await page.keyboard.press('t');
  await expect(card).not.toHaveAttribute('aria-label', title!);
  for (let left = WAITING - 1; left >= 0; left--) {
    await page.keyboard.press('Enter');
    await expect(page.getByText(left ? `${left} to file` : 'Everything is filed')).toBeVisible();
  }
  await expect(page.getByText('Everything is filed')).toBeVisible();
  expect(await tray(immeld)).toBe(0);
  const { folders } = await immeld.ask<Shelves>('/shelves');
  expect(folders.reduce((n, f) => n + f.itemCount, 0)).toBeGreaterThanOrEqual(60 + WAITING - 3);

  await page.goto(`${immeld.address}/history`);
  for (let i = 0; i < WAITING; i++) {
    await page
      .getByRole('button', { name: /^Undo: .* is filed/ })
      .first()
      .click();
    await expect(page.getByText('Undone', { exact: true })).toHaveCount(i + 1);
  }
  expect(await tray(immeld)).toBe(WAITING);
  immeld.remove();
});

test('a full tray is filed by thumb: one part by part, some together, the rest at once', async ({ browser }) => {
  const immeld = await houseWithFullTray();
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  await page.goto(`${immeld.address}/tray`);
  const first = page.getByRole('article').first();
  const name = (await first.getAttribute('aria-label'))!;
  const tag = first.getByRole('checkbox', { name: /^Tag / }).first();
  const tagName = (await tag.getAttribute('aria-label'))!.slice(4);
  await tag.tap();
  await expect(tag).toHaveAttribute('aria-checked', 'false');
  await first.getByRole('button', { name: 'Other folder' }).tap();
  await first.getByRole('radio', { name: 'Home' }).tap();
  await expect(page.getByText(`“${name}” is filed.`)).toBeVisible();
  const { items } = await immeld.ask<{ items: RecordingCard[] }>('/recordings?place=shelves&limit=200');
  const filed = items.find((r) => r.title === name && r.folderId !== null && !r.tags.includes(tagName))!;
  const { folders } = await immeld.ask<Shelves>('/shelves');
  expect(folders.find((f) => f.id === filed.folderId)!.name).toBe('Home');

  await page.getByRole('button', { name: 'Select' }).tap();
  const boxes = page.getByRole('checkbox', { name: /^Select (?!all)/ });
  for (let i = 0; i < 3; i++) await boxes.nth(i).tap();
  const bar = page.getByRole('toolbar', { name: 'Actions for selected items' });
  await expect(bar.getByText('3 selected')).toBeVisible();
  await bar.getByRole('button', { name: 'Move to', exact: true }).tap();
  await bar.getByRole('radio', { name: 'Diary' }).tap();
  await expect(page.getByText('3 recordings are in Diary.')).toBeVisible();
  await expect(page.getByText(`${WAITING - 4} to file`)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).tap();
  await expect(page.getByText(`${WAITING - 1} to file`)).toBeVisible();
  await page.getByRole('button', { name: 'File all as suggested' }).tap();
  await expect(page.getByText('Everything is filed')).toBeVisible();
  expect(await tray(immeld)).toBe(0);
  await context.close();
  immeld.remove();
});

test('shelves are put in order by dragging, one into another, and a shelf is arranged', async ({ page, immeld }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${immeld.address}/shelves`);
  const line = (name: string) => page.getByRole('link', { name: new RegExp(`^${name}, \\d+ items?`) });
  const drag = async (from: string, to: string) => {
    const [a, b] = [(await line(from).boundingBox())!, (await line(to).boundingBox())!];
    await page.mouse.move(a.x + 60, a.y + a.height / 2);
    await page.mouse.down();
    await page.mouse.move(a.x + 60, a.y + a.height / 2 + 20, { steps: 4 });
    await page.mouse.move(b.x + 60, b.y + b.height / 2, { steps: 8 });
    await page.mouse.up();
  };
  await drag('School orchard', 'Quayside limes');
  await expect(page.getByText('“School orchard” was moved.')).toBeVisible();
  const shelves = async () => (await immeld.ask<Shelves>('/shelves')).folders;
  const find = async (name: string) => (await shelves()).find((f) => f.name === name)!;
  expect((await find('School orchard')).parentId).toBe((await find('Quayside limes')).id);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await find('School orchard')).parentId).toBeNull();

  await line('Soil course').click();
  await page.getByRole('button', { name: 'Edit' }).click();
  await page.getByRole('button', { name: 'Move up', exact: true }).click();
  await expect(page.getByText('“Soil course” was moved.')).toBeVisible();
  await page.getByRole('button', { name: 'Sort and group' }).click();
  await page.getByRole('radio', { name: 'title' }).click();
  const rows = page.getByRole('link', { name: /^(Infiltration|Revision)/ });
  await expect(rows.first()).toHaveAttribute('aria-label', /^Infiltration/);
  await page.getByRole('radio', { name: 'month' }).click();
  await expect(page.getByRole('heading', { level: 2 }).first()).toHaveText(/\w+ \d{4}/);
});

test('tags are joined, people get other names, recordings go to the archive', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/shelves`);
  await page.getByRole('link', { name: /^revision, / }).click();
  await page.getByRole('button', { name: 'Edit' }).click();
  await page.getByRole('button', { name: 'Rename or merge' }).click();
  await page.getByLabel('Name', { exact: true }).fill('lecture');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('The tags revision and lecture are merged.')).toBeVisible();
  await page.goto(`${immeld.address}/shelves`);
  await expect(page.getByRole('link', { name: 'lecture, 2' })).toBeVisible();

  await page.getByRole('link', { name: /^Bram Vantongeren, / }).click();
  await expect(page.getByRole('link', { name: /^Walk the quay with Bram/ })).toBeVisible();
  await page.getByRole('button', { name: 'Edit' }).click();
  await page.getByRole('button', { name: 'Edit other names' }).click();
  await page.getByLabel('Other names, separated by commas').fill('the arborist, the tree man');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Also called the arborist, the tree man')).toBeVisible();

  const { id, get } = await recordingNamed(immeld, 'Letter to the council.m4a');
  await page.goto(`${immeld.address}/recordings/${id}?part=about`);
  await page.getByRole('button', { name: 'Archive', exact: true }).click();
  await expect.poll(async () => (await get()).isArchived).toBe(true);
  await page.goto(`${immeld.address}/shelves/archive`);
  await page.getByRole('button', { name: 'Select' }).click();
  await page.getByRole('checkbox', { name: /^Letter to the council/ }).click();
  await page.getByRole('button', { name: 'Unarchive' }).click();
  await expect.poll(async () => (await get()).isArchived).toBe(false);
});

test('a note is written, led to by [[ and known on both sides', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/shelves`);
  await page.getByRole('button', { name: 'New note' }).click();
  await page.getByLabel('Title of the note').fill('What water does');
  const text = page.getByRole('textbox', { name: 'Note', exact: true });
  await text.click();
  await page.keyboard.type('From the lecture: [[infil');
  await expect(page.getByRole('option', { name: 'Infiltration and field capacity, recording' })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.keyboard.type('is worth hearing again.');
  await expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible();
  await expectAccessible(page);
  const lecture = await recordingNamed(immeld, 'Lecture infiltration and field capacity.m4a');
  const renamed = await fetch(`${immeld.address}/api/recordings/${lecture.id}`, {
    ...{ method: 'PATCH', headers: { 'Content-Type': 'application/json' } },
    body: JSON.stringify({ title: 'Water in the soil' }),
  });
  expect(((await renamed.json()) as Recording).title).toBe('Water in the soil');
  await page.reload();
  await expect(text).toContainText('From the lecture: Water in the soil is worth hearing again.');
  await text.getByRole('link', { name: 'Water in the soil' }).click();
  await expect(page.getByRole('heading', { name: 'Water in the soil' })).toBeVisible();
  await page.getByRole('tab', { name: 'About' }).click();
  await page
    .getByRole('region', { name: 'Notes that link here' })
    .getByRole('link', { name: /^What water does/ })
    .click();
  await expect(page.getByLabel('Title of the note')).toHaveValue('What water does');
});

test('what is written of a note while the server is away is sent when it is back', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/shelves`);
  await page.getByRole('button', { name: 'New note' }).click();
  const text = page.getByRole('textbox', { name: 'Note', exact: true });
  await text.click();
  await page.keyboard.type('Before. ');
  const state = page.getByRole('status').filter({ hasText: /^saved/ });
  await expect(state).toHaveText('saved');
  await page.route('**/api/**', (route) => route.abort());
  await page.keyboard.type('Behind the tunnel.');
  await expect(state).toHaveText(/saved on this device/);
  await page.unroute('**/api/**');
  await expect(state).toHaveText('saved');
  await page.reload();
  await expect(text).toHaveText('Before. Behind the tunnel.');
});

test('quick words collect in the note of the day, any day is reached, the weeks are counted', async ({
  page,
  immeld,
}) => {
  await page.goto(immeld.address);
  await page.getByLabel('Quick note for this day').fill('The tide is out');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^\d\d:\d\d The tide is out$/)).toBeVisible();
  await page.getByRole('button', { name: 'Open the note for this day' }).click();
  await expect(page.getByRole('textbox', { name: 'Note', exact: true })).toContainText('The tide is out');
  await page.goto(immeld.address);
  await page.getByLabel('Go to a day').fill('2024-02-29');
  await expect(page.getByRole('heading', { name: 'Thursday 29 February' })).toBeVisible();
  await page.getByRole('button', { name: 'Weekly overview' }).click();
  await expect(page.getByRole('img', { name: /^Minutes recorded: / })).toBeVisible();
  await expect(page.getByRole('table').getByRole('row')).toHaveCount(13);
  await expectAccessible(page);
});
