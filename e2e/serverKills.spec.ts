import { createHash, randomBytes } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { Immeld, bringIn, expect, test } from './immeld';
import { TIMES, all, note, random } from './kills';

test(`the server is killed ${TIMES} times while it is sent something: all arrives, byte for byte, once`, async ({
  page,
}) => {
  test.setTimeout(60_000 + TIMES * 30_000);
  const immeld = new Immeld();
  await immeld.start();
  const next = random(11);
  const sent = new Set<string>();
  await page.goto(`${immeld.address}/tray`);
  for (let i = 0; i < TIMES; i++) {
    const file = path.join(immeld.folder, `large-${i}.wav`);
    const content = randomBytes(5 * 1024 ** 2 + Math.floor(next() * 1e6));
    fs.writeFileSync(file, content);
    sent.add(createHash('sha256').update(content).digest('hex'));
    await bringIn(page, file);
    // Killed somewhere on the way: once the first part of it lies on the server's disk.
    await expect
      .poll(async () => arrivedBytes(immeld) > 0 || (await all(immeld)).total === sent.size, { intervals: [5] })
      .toBe(true);
    await page.waitForTimeout(next() * 120);
    immeld.kill();
    note({ kind: 'server', arrivedBytes: arrivedBytes(immeld), of: content.length });
    await immeld.start();
    // The page would try again by itself after a while; a network that comes back wakes it at once.
    await page.evaluate(() => window.dispatchEvent(new Event('online')));
    await expect.poll(async () => (await all(immeld)).total, { timeout: 60_000 }).toBe(sent.size);
    fs.rmSync(file);
  }
  const kept = fs
    .readdirSync(path.join(immeld.dataFolder, 'sound'))
    // Bytes by chance are no sound, whatever they are called.
    .filter((name) => name.endsWith('.bin'))
    .map((name) => fs.readFileSync(path.join(immeld.dataFolder, 'sound', name)))
    .map((content) => createHash('sha256').update(content).digest('hex'));
  expect(kept.sort()).toEqual([...sent].sort());
  immeld.remove();
});

/** How much of an upload that is not finished lies on the server's disk. */
function arrivedBytes(immeld: Immeld): number {
  const folder = path.join(immeld.dataFolder, 'uploads');
  const open = fs.readdirSync(folder).filter((name) => !name.endsWith('.json'));
  return open.reduce((sum, name) => sum + fs.statSync(path.join(folder, name)).size, 0);
}
