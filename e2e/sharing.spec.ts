import type { ShareLink } from '@immeld/core/contract/shareLinks';
import { expect, expectAccessible, recordingNamed, test } from './immeld';

const DIALOGUE = 'Appointment with Bram.m4a';

test('a link is made, opened by somebody without an account, followed by ear, and taken back while it plays', async ({
  page,
  immeld,
  browser,
}) => {
  const { id } = await recordingNamed(immeld, DIALOGUE);
  await page.goto(`${immeld.address}/recordings/${id}`);
  await page.getByRole('tab', { name: 'About' }).click();
  await page.getByRole('button', { name: 'Share by link' }).click();
  await page.getByRole('switch', { name: 'Audio' }).click();
  await page.getByRole('switch', { name: 'Write-ups and to-dos' }).click();
  // Nobody has accepted anything of it: it goes along where that is wanted, and says so.
  await page.getByRole('switch', { name: 'Include suggestions' }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Create link' }).click();
  const row = page.getByRole('article', { name: 'Walk the quay with Bram' });
  await expect(row).toContainText('text, audio, write-ups and suggestions · not opened yet');
  await row.getByRole('button', { name: 'Show QR code' }).click();
  const qr = row.getByRole('img', { name: /QR code/ });
  await expect.poll(() => qr.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBeGreaterThan(20);
  await expectAccessible(page);
  const address = (await row.getByText(/\/s\/[\w-]{22}$/).textContent())!;

  const elsewhere = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const visitor = await elsewhere.newPage();
  const complaints: string[] = [];
  visitor.on('console', (m) => m.type() === 'error' && complaints.push(m.text()));
  await visitor.goto(address);
  await expect(visitor.getByRole('heading', { level: 1 })).toHaveText('Walk the quay with Bram');
  await expect(visitor.getByRole('heading', { name: 'Summary (suggested)' })).toBeVisible();
  await expectAccessible(visitor);
  // A word that is pressed plays, and the words light up as they are said.
  await visitor.locator('[data-ms]').nth(20).click();
  const time = () => visitor.locator('audio').evaluate((a: HTMLAudioElement) => a.currentTime);
  const at = Number(await visitor.locator('[data-ms]').nth(20).getAttribute('data-ms')) / 1000;
  await expect.poll(time).toBeGreaterThan(at + 0.5);
  await expect(visitor.locator('.lit')).toHaveCount(1);
  expect(complaints).toEqual([]);

  await row.getByRole('button', { name: 'Turn off' }).click();
  await expect(row).toContainText('turned off');
  await expect(visitor.getByRole('alert')).toHaveText('This link was turned off.');
  await expect(visitor.locator('audio')).toHaveCount(0);
  await visitor.reload();
  await expect(visitor.getByRole('heading', { level: 1 })).toHaveText('This link is not available');
  await elsewhere.close();
});

test('a link with a password reads without scripts, and all links stand in a list', async ({
  page,
  immeld,
  browser,
}) => {
  const { id } = await recordingNamed(immeld, DIALOGUE);
  await page.goto(`${immeld.address}/links?item=r${id}`);
  await page.getByLabel(/^Password/).fill('silver lime');
  await page.getByLabel('Maximum openings').fill('1');
  await page.getByRole('button', { name: 'Create link' }).click();
  await expect(page.getByText('password protected · not opened yet of 1')).toBeVisible();
  const response = await fetch(`${immeld.address}/api/share-links`);
  const [newest] = ((await response.json()) as { items: ShareLink[] }).items;

  const elsewhere = await browser.newContext({ javaScriptEnabled: false });
  const visitor = await elsewhere.newPage();
  await visitor.goto(`${immeld.address}${newest!.path}`);
  const password = visitor.getByLabel('Ask the person who sent you the link.');
  await password.fill('golden lime');
  await visitor.getByRole('button', { name: 'Open' }).click();
  await expect(visitor.getByRole('alert')).toHaveText('Wrong password.');
  await password.fill('silver lime');
  await visitor.keyboard.press('Enter');
  await expect(visitor.getByText('Silver lime, it stands the wind').first()).toBeVisible();
  await elsewhere.close();

  await page.goto(`${immeld.address}/shelves`);
  await page.getByRole('button', { name: 'Share links' }).click();
  await expect(page.getByText(/opened 1 of 1, last today/)).toBeVisible();
});
