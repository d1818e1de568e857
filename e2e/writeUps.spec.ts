import fs from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Note } from '@immeld/core/contract/notes';
import type { Todo } from '@immeld/core/contract/todos';
import { expect, expectAccessible, heardForReal, recordingNamed, test } from './immeld';

test('the appointment becomes minutes, then a note whose check box is the to-do, and back', async ({
  page,
  immeld,
}) => {
  const id = await heardForReal(immeld, 'Appointment with Bram.m4a');
  await page.goto(`${immeld.address}/recordings/${id}?part=write-ups`);
  await page.getByRole('button', { name: 'Make a write-up' }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: /^Minutes\./ }).click();
  const sheet = page.getByRole('article', { name: 'Minutes' });
  for (const heading of ['Decisions', 'My to-dos', 'Other people’s to-dos', 'Next steps']) {
    await expect(sheet.getByRole('heading', { name: heading })).toBeVisible();
  }
  await expect(sheet.getByRole('button', { name: /decided on silver-lime/ }).first()).toBeVisible();
  await expectAccessible(page);

  // Each line leads to its second.
  await sheet
    .getByRole('button', { name: /^Write the application/ })
    .first()
    .click();
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Pause', exact: true }).click();

  // The length that is asked for is kept.
  await sheet.getByRole('button', { name: 'Change length or wording' }).click();
  await sheet.getByRole('button', { name: 'Summary: shorter' }).click();
  await expect(sheet.getByText('at most 1 sentence')).toBeVisible();

  await sheet.getByRole('switch', { name: /^Also accept its \d+ to-dos/ }).click();
  await sheet.getByRole('button', { name: 'Save as a note' }).click();
  await expect(page).toHaveURL(/\/notes\//);
  const editor = page.getByRole('textbox', { name: 'Note', exact: true });
  await expect(editor).toContainText('Decisions');
  await expectAccessible(page);
  const application = async () =>
    (await immeld.ask<{ items: Todo[] }>('/todos?state=all')).items.find((t) => t.text === 'Write the application')!;
  expect((await application()).isDone).toBe(false);
  await editor.getByRole('listitem').filter({ hasText: 'Write the application' }).getByRole('checkbox').first().check();
  await expect.poll(async () => (await application()).isDone).toBe(true);
  await editor
    .getByRole('link', { name: /^\d:\d\d$/ })
    .first()
    .click();
  await expect(page).toHaveURL(new RegExp(`/recordings/${id}\\?at=\\d+`));

  const sheets = async () => (await immeld.ask<{ items: unknown[] }>(`/recordings/${id}/sheets`)).items.length;
  expect(await sheets()).toBe(0);
});

test('the lecture becomes notes with terms and questions; a letter that was thought aloud becomes a draft', async ({
  page,
  immeld,
}) => {
  test.setTimeout(240_000);
  const lecture = await heardForReal(immeld, 'Lecture infiltration and field capacity.m4a');
  await page.goto(`${immeld.address}/recordings/${lecture}?part=write-ups`);
  await page.getByRole('button', { name: 'Make a write-up' }).click();
  await page.getByRole('button', { name: /^Lecture notes\./ }).click();
  const notes = page.getByRole('article', { name: 'Lecture notes' });
  for (const heading of ['Key points', 'Terms', 'Numbers and dates', 'Questions']) {
    await expect(notes.getByRole('heading', { name: heading })).toBeVisible();
  }
  await expect(notes.getByText('available water').first()).toBeVisible();
  // Key points stand under the parts in which they were said.
  await expect(notes.getByText('A tree in a street')).toBeVisible();
  await notes.getByRole('button', { name: 'Drop' }).click();
  await expect(notes).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(notes).toBeVisible();

  const letter = await heardForReal(immeld, 'Letter to the council.m4a');
  await page.goto(`${immeld.address}/recordings/${letter}?part=write-ups`);
  await page.getByRole('button', { name: 'Make a write-up' }).click();
  await page.getByRole('button', { name: /^Letter draft\./ }).click();
  await page.getByRole('article', { name: 'Letter draft' }).getByRole('button', { name: 'Save as a note' }).click();
  await expect(page).toHaveURL(/\/notes\//);
  const id = page.url().split('/notes/')[1]!;
  const { body } = await immeld.ask<Note>(`/notes/${id}`);
  expect(body!.content!.length).toBeGreaterThan(1);
  expect(JSON.stringify(body)).toContain('planting of 12 lime trees');
});

test('a template is copied, changed while one sees what it makes, saved, taken along and brought in', async ({
  page,
  immeld,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${immeld.address}/templates`);
  await expectAccessible(page);
  await page.getByRole('article', { name: 'After the call' }).getByRole('button', { name: 'Copy' }).click();
  await expect(page).toHaveURL(/\/templates\/[0-9a-f-]{36}$/);
  await page.getByLabel('Name', { exact: true }).fill('After a walk');
  await page.getByRole('radio', { name: 'Walk the quay with Bram' }).click();
  const first = page.getByRole('group', { name: 'Section 1' });
  await first.getByLabel('Heading of section 1').fill('What we saw');
  await expect(page.getByRole('heading', { name: 'What we saw' })).toHaveCount(2);
  await first.getByRole('button', { name: 'Move down' }).click();
  await expect(page.getByLabel('Heading of section 2')).toHaveValue('What we saw');
  await page.getByRole('group', { name: 'Section 4' }).getByRole('button', { name: 'Remove' }).click();
  await expectAccessible(page);
  await page.getByLabel('Name', { exact: true }).fill('');
  await expect(page.getByRole('alert')).toContainText('Enter a name for the template');
  await page.getByLabel('Name', { exact: true }).fill('After a walk');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  const own = page.getByRole('article', { name: 'After a walk' });
  const download = page.waitForEvent('download');
  await own.getByRole('button', { name: 'Export' }).click();
  const file = fs.readFileSync(await (await download).path(), 'utf8');
  expect(file).toContain('heading: What we saw');
  await own.getByRole('button', { name: 'Remove' }).click();
  await expect(own).toHaveCount(0);

  const bringIn = async (text: string) => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Import a template' }).click();
    await (await chooser).setFiles({ name: 'shared.yaml', mimeType: 'application/yaml', buffer: Buffer.from(text) });
  };
  await bringIn(file.replace('content: key-points', 'content: horoscope'));
  await expect(page.getByRole('alert')).toContainText('“horoscope” is not a kind of content. Nothing was changed.');
  await bringIn(file);
  await expect(own).toBeVisible();
});

test('a long recording has contents: parts that lead to their second, and can be set as headings', async ({
  page,
  immeld,
}) => {
  const { id, get } = await recordingNamed(immeld, 'Lecture infiltration and field capacity.m4a');
  await page.goto(`${immeld.address}/recordings/${id}`);
  await page.getByRole('button', { name: 'Contents' }).click();
  const parts = page.getByRole('list', { name: 'Contents' }).getByRole('listitem');
  await expect(parts.first()).toBeVisible();
  const count = await parts.count();
  expect(count).toBeGreaterThan(5);
  await expectAccessible(page);
  await parts.nth(2).getByRole('button').click();
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  const headings = async () => (await get()).slips.filter((s) => s.kind === 'heading').length;
  await page.getByRole('button', { name: 'Add as headings' }).click();
  await expect.poll(headings).toBe(count);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(headings).toBe(0);
});

test('several recordings are written up as one, over a week, and each line leads to its recording', async ({
  page,
  immeld,
}) => {
  await page.goto(`${immeld.address}/shelves/all`);
  await page.getByRole('button', { name: 'Write up all' }).click();
  await page.getByRole('radio', { name: 'last 30 days' }).click();
  const made = page.getByRole('button', { name: /^Made from \d+ recordings$/ });
  await expect(made).toBeVisible();
  await made.click();
  await expect(page.getByRole('button', { name: /^Infiltration and field capacity/ })).toBeVisible();
  await page.getByRole('button', { name: 'Make a write-up' }).click();
  await page.getByRole('button', { name: /^Week in review/ }).click();
  const sheet = page.getByRole('article', { name: 'Week in review' });
  await expect(sheet.getByRole('heading', { name: 'To-dos' })).toBeVisible();
  await expectAccessible(page);
  // What is kept stays when the rest is made again.
  await sheet.getByRole('button', { name: 'Change length or wording' }).click();
  const decided = sheet.getByRole('checkbox', { name: 'Keep Topics as it is' });
  await decided.click();
  await sheet.getByRole('radio', { name: 'formal' }).click();
  await expect(decided).toBeChecked();
  await sheet.getByRole('button', { name: 'Done', exact: true }).click();
  await sheet
    .getByRole('button', { name: /Play \d+:\d\d$/ })
    .first()
    .click();
  await expect(page).toHaveURL(/\/recordings\/[0-9a-f-]{36}\?at=\d+/);
});

test('a usual write-up is made by itself when a recording is put into its folder', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/templates`);
  await page.getByRole('button', { name: 'Make After the call automatically' }).click();
  await page.getByRole('switch', { name: 'Home' }).click();
  await expect(page.getByRole('switch', { name: 'Home' })).toBeChecked();
  await expectAccessible(page);
  const { id } = await recordingNamed(immeld, 'Planning call volunteers.ogg');
  await page.goto(`${immeld.address}/recordings/${id}?part=about`);
  await page.getByRole('radiogroup', { name: 'Folder' }).getByRole('radio', { name: 'Home' }).click();
  await page.goto(`${immeld.address}/recordings/${id}?part=write-ups`);
  await expect(page.getByRole('article', { name: 'After the call' })).toBeVisible();
});

test('a language model of one’s own writes a write-up: what is sent is shown, what has no source is marked', async ({
  page,
  immeld,
}) => {
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('button', { name: 'Use the stand-in', exact: true }).click();
  await expect(page.getByText('This is the demo’s stand-in')).toBeVisible();
  await page.getByRole('button', { name: 'Test' }).click();
  await expect(page.getByText('Answer: This is the stand-in. It is working.')).toBeVisible();
  await expectAccessible(page);
  const { id } = await recordingNamed(immeld, 'Appointment with Bram.m4a');
  await page.goto(`${immeld.address}/recordings/${id}?part=write-ups`);
  await page.getByRole('button', { name: 'Make a write-up' }).click();
  await page.getByRole('switch', { name: 'Write with my language model' }).click();
  await page.getByRole('button', { name: /^Minutes\./ }).click();
  await page.getByRole('button', { name: 'Show the full text' }).click();
  await expect(page.getByText(/^Sections:/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Send now and in future' }).click();
  const sheet = page.getByRole('article', { name: 'Minutes' });
  await expect(sheet.getByText('by your language model')).toBeVisible();
  await expect(sheet.getByText('no source in the recording')).toBeVisible();
  await sheet
    .getByRole('button', { name: /Play \d+:\d\d$/ })
    .first()
    .click();
  // Gone, it is the built-in way that writes, and why is said.
  await fetch(`${immeld.address}/api/language-model`, {
    ...{ method: 'PATCH', headers: { 'Content-Type': 'application/json' } },
    body: JSON.stringify({ address: `${immeld.address}/nowhere` }),
  });
  await fetch(`${immeld.address}/api/language-model`, {
    ...{ method: 'PATCH', headers: { 'Content-Type': 'application/json' } },
    body: JSON.stringify({ hasAgreed: true }),
  });
  await page.reload();
  await page.getByRole('button', { name: 'Make a write-up' }).click();
  await page.getByRole('switch', { name: 'Write with my language model' }).click();
  await page.getByRole('button', { name: /^Key points\./ }).click();
  const points = page.getByRole('article', { name: 'Key points' });
  await expect(points.getByRole('alert')).toContainText('built-in method instead');
  await expect(points.getByRole('alert')).toBeInViewport();
});

test('a language model that writes for too long can be stopped: it is told so, and nothing is kept', async ({
  page,
  immeld,
}) => {
  let hasGone = false;
  const slow = http.createServer((_, response) => {
    response.writeHead(200, { 'Content-Type': 'text/event-stream' });
    response.write('data: {"choices":[{"delta":{"content":"## Written slowly"}}]}\n\n');
    response.on('close', () => (hasGone = true));
  });
  await new Promise<void>((resolve) => slow.listen(0, '127.0.0.1', resolve));
  const address = `http://127.0.0.1:${(slow.address() as AddressInfo).port}`;
  for (const body of [{ address, isOn: true }, { hasAgreed: true }]) {
    await fetch(`${immeld.address}/api/language-model`, {
      ...{ method: 'PATCH', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) },
    });
  }
  const { id } = await recordingNamed(immeld, 'Appointment with Bram.m4a');
  await page.goto(`${immeld.address}/recordings/${id}?part=write-ups`);
  await page.getByRole('button', { name: 'Make a write-up' }).click();
  await page.getByRole('switch', { name: 'Write with my language model' }).click();
  await page.getByRole('button', { name: /^Outline\./ }).click();
  await expect(page.getByText('Written slowly', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect.poll(() => hasGone).toBe(true);
  await expect(page.getByRole('heading', { name: 'Which template?' })).toBeVisible();
  await expect(page.getByRole('article', { name: 'Outline' })).toHaveCount(0);
  slow.close();
});
