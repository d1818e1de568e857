import fs from 'node:fs';
import path from 'node:path';
import JSZip from 'jszip';
import mammoth from 'mammoth';
import { expect, expectAccessible, recordingNamed, test } from './immeld';

test('a recording goes along as a Word document, chosen, looked at beforehand and read by another program', async ({
  page,
  immeld,
}) => {
  const { id } = await recordingNamed(immeld, 'Appointment with Bram.m4a');
  await page.goto(`${immeld.address}/recordings/${id}`);
  await page.getByRole('tab', { name: 'About' }).click();
  await page.getByRole('button', { name: 'Choose what to export' }).click();
  await expect(page.getByRole('heading', { name: 'Export', level: 1 })).toBeVisible();
  await page.getByRole('switch', { name: 'Plain text' }).click();
  await page.getByRole('switch', { name: 'Word document' }).click();
  await page.getByRole('switch', { name: 'Times', exact: true }).click();
  // Not with the preview open: axe does not get into a frame without scripts.
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Show preview' }).click();
  const preview = page.frameLocator('iframe[title=Preview]');
  await expect(preview.getByRole('heading', { level: 1 })).toHaveText('Walk the quay with Bram');
  await expect(preview.locator('p .lead').first()).toHaveText(/^0:\d\d .+: $/);
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.getByRole('button', { name: 'Copy with formatting' }).click();
  await expect(page.getByText('Copied.')).toBeVisible();
  const copied = await page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    return [await (await item!.getType('text/html')).text(), await (await item!.getType('text/plain')).text()];
  });
  expect(copied[0]).toMatch(/<h1[^>]*>Walk the quay with Bram<\/h1>/);
  expect(copied[1]).toMatch(/^Walk the quay with Bram\n/);
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export file' }).click();
  const file = await (await saved).path();
  expect((await saved).suggestedFilename()).toMatch(/^\d{4}-\d\d-\d\d Walk the quay with Bram\.docx$/);
  await expect(page.getByText('is in your downloads')).toBeVisible();
  const { value } = await mammoth.extractRawText({ path: file });
  expect(value).toMatch(/0:\d\d Bram: /);
  expect(value).toContain('sand');

  // The choices are there next time.
  await page.reload();
  await expect(page.getByRole('switch', { name: 'Word document' })).toHaveAttribute('aria-checked', 'true');
  await expect(page.getByRole('switch', { name: 'Times', exact: true })).toHaveAttribute('aria-checked', 'true');
});

test('several recordings go along at once, in three formats and with their sound, under names by a pattern', async ({
  page,
  immeld,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${immeld.address}/shelves`);
  await page
    .getByRole('link', { name: /^Quayside limes/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Select' }).click();
  await page.getByRole('button', { name: 'Select all' }).click();
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await expect(page.getByText('2 recordings and 1 note')).toBeVisible();
  for (const format of ['Plain text', 'Subtitles for the web (WebVTT)', 'Table with times (TSV)', 'Word document']) {
    const choice = page.getByRole('switch', { name: format });
    const isWanted = format !== 'Word document';
    if ((await choice.getAttribute('aria-checked')) !== String(isWanted)) await choice.click();
  }
  await page.getByRole('radio', { name: 'original' }).click();
  await page.getByLabel('Name pattern').fill('{number} {folder} {oops}');
  await page.getByRole('button', { name: 'Export files' }).click();
  await expect(page.getByRole('alert')).toContainText('Inside { and } you can use');
  await page.getByLabel('Name pattern').fill('{number} {folder}');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export files' }).click();
  const zip = await JSZip.loadAsync(fs.readFileSync(await (await saved).path()));
  const names = Object.keys(zip.files).sort();
  // The note that lies there goes along in the format that is for notes too.
  expect(names.filter((n) => !/\.(ogg|m4a)$/.test(n))).toEqual([
    ...['1', '2'].flatMap((n) => ['tsv', 'txt', 'vtt'].map((e) => `${n} Quayside limes.${e}`)),
    '3 Quayside limes.txt',
  ]);
  const sound = names.filter((n) => /\.(ogg|m4a)$/.test(n));
  expect(sound).toHaveLength(2);
  const kept = fs
    .readdirSync(path.join(immeld.dataFolder, 'sound'))
    .map((n) => fs.statSync(path.join(immeld.dataFolder, 'sound', n)).size);
  for (const name of sound) expect(kept).toContain((await zip.file(name)!.async('uint8array')).length);

  // By mail: in the demo the stand-in takes it, says so, and shows what arrived.
  await page.getByRole('button', { name: 'Send by email' }).click();
  await expect(page.getByText('This is the demo’s stand-in')).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('To (separate several addresses with commas)').fill('bram');
  await page.getByLabel('Subject').fill('Two walks along the quay');
  await page.getByLabel('Message').fill('Dear Bram, with the sound.');
  await page.getByRole('button', { name: 'Send email' }).click();
  await expect(page.getByRole('alert')).toContainText('“bram” is not a valid email address.');
  await page
    .getByLabel('To (separate several addresses with commas)')
    .fill('bram@harrowmere.example, jun@harrowmere.example');
  await page.getByRole('button', { name: 'Send email' }).click();
  const mailbox = page.getByRole('region', { name: 'Stand-in mailbox' });
  const mail = mailbox.getByRole('article', { name: 'Two walks along the quay' });
  await expect(mail).toContainText('To bram@harrowmere.example, jun@harrowmere.example');
  await expect(mail).toContainText('Dear Bram, with the sound.');
  await expect(mail).toContainText('.zip');
});

test('a note goes along as a PDF by keyboard alone', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/shelves`);
  await page.getByRole('button', { name: 'New note' }).click();
  await page.getByLabel('Title of the note').fill('To hand in');
  await page.getByRole('textbox', { name: 'Note', exact: true }).click();
  await page.keyboard.type('Sand holds little, clay holds much.');
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'About' }).click();
  await page.getByRole('button', { name: 'Export', exact: true }).focus();
  await page.keyboard.press('Enter');
  const pdf = page.getByRole('switch', { name: 'PDF' });
  await pdf.focus();
  await page.keyboard.press('Space');
  await expect(pdf).toHaveAttribute('aria-checked', 'true');
  for (const format of ['Plain text', 'Word document', 'Subtitles for the web (WebVTT)', 'Table with times (TSV)']) {
    const choice = page.getByRole('switch', { name: format });
    if ((await choice.getAttribute('aria-checked')) === 'true') {
      await choice.focus();
      await page.keyboard.press('Space');
    }
  }
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export file' }).focus();
  await page.keyboard.press('Enter');
  expect((await saved).suggestedFilename()).toMatch(/\.pdf$/);
  expect(
    fs
      .readFileSync(await (await saved).path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
});
