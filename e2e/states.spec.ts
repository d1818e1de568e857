import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { Immeld, expect, root, test } from './immeld';

test('an empty house says what will be where, and what to do', async ({ page }) => {
  const immeld = new Immeld();
  await immeld.start();
  await page.goto(immeld.address);
  await expect(page.getByText('Nothing said yet today')).toBeVisible();
  for (const [path_, text] of [
    ['/tray', 'Everything is filed'],
    ['/shelves', 'No folders yet'],
    ['/todos', 'Nothing to do'],
    ['/find', 'Find what was said'],
    ['/shelves/bin', 'The bin is empty'],
    ['/recordings/00000000-0000-4000-8000-000000000000', 'There is no such recording here'],
  ] as const) {
    await page.goto(immeld.address + path_);
    await expect(page.getByText(text)).toBeVisible();
  }
  immeld.remove();
});

test('500 recordings: only what is seen is drawn, and the last is reached', async ({ page }) => {
  const immeld = new Immeld();
  fs.mkdirSync(immeld.dataFolder, { recursive: true });
  execFileSync(process.execPath, [
    path.join(root, 'node_modules', 'tsx', 'dist', 'cli.mjs'),
    path.join(__dirname, 'seedMany.ts'),
    immeld.dataFolder,
    '500',
  ]);
  await immeld.start();
  await page.goto(`${immeld.address}/shelves/all`);
  const rows = page.getByRole('link', { name: /^Memo \d+/ });
  await expect(rows.first()).toBeVisible();
  expect(await rows.count()).toBeLessThan(120);
  const seen = new Set<string>();
  const list = page.locator('div').filter({ has: rows.first() }).last();
  await list.hover();
  for (let i = 0; i < 250 && seen.size < 500; i++) {
    for (const label of await rows.evaluateAll((all) =>
      all.map((e) => /^Memo \d+/.exec(e.getAttribute('aria-label') ?? '')![0]),
    ))
      seen.add(label);
    await page.mouse.wheel(0, 1500);
    await page.waitForTimeout(120);
  }
  expect(seen.size).toBe(500);
  immeld.remove();
});

test('when the server is gone it is said, and it comes back by itself', async ({ page }) => {
  const immeld = new Immeld();
  await immeld.start();
  await page.goto(`${immeld.address}/tray`);
  await expect(page.getByText('Everything is filed')).toBeVisible();
  immeld.kill();
  await expect(page.getByText(/No answer from Immeld’s server/)).toBeVisible();
  await immeld.start();
  await expect(page.getByText(/No answer from Immeld’s server/)).toHaveCount(0);
  immeld.remove();
});
