import fs from 'node:fs';
import type { TopicMap } from '@immeld/core/contract/templates';
import { type Page } from '@playwright/test';
import { expect, expectAccessible, recordingNamed, test } from './immeld';

const LECTURE = 'Lecture infiltration and field capacity.m4a';
const saved = async (page: Page, label: string): Promise<{ name: string; bytes: Buffer }> => {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: label }).click();
  const file = await download;
  return { name: file.suggestedFilename(), bytes: fs.readFileSync(await file.path()) };
};

test('the topics of the lecture are a map: moved, folded, played by touch and by keys, read as a list, taken along', async ({
  page,
  immeld,
}) => {
  const { id } = await recordingNamed(immeld, LECTURE);
  const map = (await (await fetch(`${immeld.address}/api/recordings/${id}/map`)).json()) as TopicMap;
  expect(map.parts.length).toBeGreaterThan(4);
  // The dialog of the browser cannot be seen here: what would be printed is kept instead.
  await page.addInitScript(() => {
    window.print = () => localStorage.setItem('printed', document.documentElement.outerHTML);
  });
  await page.goto(`${immeld.address}/recordings/${id}?part=write-ups`);
  await page.getByRole('button', { name: 'Topic map' }).click();
  const tree = page.getByRole('tree', { name: `Map of ${map.title}` });
  const topics = tree.getByRole('treeitem');
  // On a phone only the parts are shown at first.
  await expect(topics).toHaveCount(map.parts.length);
  await expectAccessible(page);

  const moved = () => page.locator('[data-moved]').getAttribute('transform');
  const scale = async () => Number(/scale\(([\d.]+)/.exec((await moved())!)![1]);
  const before = await scale();
  await page.getByRole('button', { name: 'Zoom in' }).click();
  await expect.poll(scale).toBeGreaterThan(before * 1.2);
  const place = await moved();
  const box = (await page.locator('svg:has([data-moved])').boundingBox())!;
  await page.mouse.move(box.x + 40, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(box.x + 90, box.y + 160, { steps: 4 });
  await page.mouse.up();
  await expect.poll(moved).not.toBe(place);
  await page.getByRole('button', { name: 'Fit to screen' }).click();
  await expect.poll(scale).toBeLessThanOrEqual(before);

  // By keys alone: to the second part and back to the first, out with its points, to one of them, and its sound.
  await tree.focus();
  for (const key of ['ArrowDown', 'ArrowUp', 'ArrowRight']) await page.keyboard.press(key);
  await expect(topics).toHaveCount(map.parts.length + map.parts[0]!.points.length);
  await page.keyboard.press('ArrowRight');
  const point = tree.getByRole('treeitem', { selected: true });
  await expect(point).toHaveAccessibleName(
    new RegExp(`Play ${clock(Math.min(...map.parts[0]!.points.map((p) => p.startMs)))}$`),
  );
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^Playing from /)).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Expand all' }).click();
  const everything = map.parts.reduce((sum, p) => sum + 1 + p.points.length, 0);
  await expect(topics).toHaveCount(everything);

  // A term that comes back can be lit alone, by touch and by key.
  const [term] = map.terms;
  const thread = page.getByRole('checkbox', { name: `${term!.text}, said ${term!.saidMs.length} times` });
  await thread.click();
  await expect(thread).toBeChecked();
  await thread.press('Enter');
  await expect(thread).not.toBeChecked();

  await page.getByRole('button', { name: 'Save or print' }).click();
  await page.getByRole('button', { name: 'Print on A3' }).click();
  await expect.poll(() => page.evaluate(() => localStorage.getItem('printed'))).toContain('size: A3 landscape');

  const svg = await saved(page, 'Save as SVG');
  expect(svg.name).toMatch(/\.svg$/);
  const drawn = await page.evaluate((text) => {
    const file = new DOMParser().parseFromString(text, 'image/svg+xml');
    return {
      root: file.documentElement.nodeName,
      words: [...file.querySelectorAll('text')].map((t) => t.textContent).join(' '),
      faces: file.querySelector('style')!.textContent!.match(/url\("data:/g)?.length ?? 0,
    };
  }, svg.bytes.toString('utf8'));
  expect(drawn.root).toBe('svg');
  expect(drawn.faces).toBeGreaterThanOrEqual(2);
  for (const { title } of map.parts) expect(drawn.words).toContain(title!.split(' ')[0]!);
  const png = await saved(page, 'Save as PNG');
  expect(png.name).toMatch(/\.png$/);
  // The signature and the size in its header (ISO/IEC 15948).
  expect(png.bytes.subarray(1, 4).toString('latin1')).toBe('PNG');
  // Two points for each px of the map.
  expect(png.bytes.readUInt32BE(16)).toBe(box.width * 2);

  await page.getByRole('tab', { name: 'List' }).click();
  const list = page.getByRole('list', { name: `Topics of ${map.title}` });
  await expect(list.getByRole('button')).toHaveCount(everything);
  await expectAccessible(page);
  await list.getByRole('button').nth(1).click();
  await expect(page.getByText(/^Playing from /)).toBeVisible();
});

const clock = (ms: number): string => {
  const seconds = Math.floor(ms / 1000);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
};
