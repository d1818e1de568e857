import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import { expect, expectAccessible, type Immeld, test } from './immeld';

const recordingOf = async (immeld: Immeld, fileName: string) => {
  const { items } = await immeld.ask<{ items: RecordingCard[] }>('/recordings?place=all');
  const { id } = items.find((r) => r.fileName === fileName)!;
  return { id, get: () => immeld.ask<Recording>(`/recordings/${id}`) };
};
const speakersOf = (r: Recording) => [...new Set(r.passages.map((p) => p.speaker))];

test('who speaks is told apart; a voice that was named before is accepted from pencil; one is named for all, and back', async ({
  page,
  immeld,
}) => {
  const { id, get } = await recordingOf(immeld, 'Planning call volunteers.ogg');
  await page.goto(`${immeld.address}/recordings/${id}`);
  const list = page.getByRole('list', { name: 'Speakers' });
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await expectAccessible(page);

  await list.getByRole('button', { name: 'Accept: Speaker 2 is Tamsin' }).click();
  await expect(list).toContainText('Tamsin');
  await expect.poll(async () => speakersOf(await get())).toEqual(['Speaker 1', 'Tamsin']);

  await page.getByRole('button', { name: 'Speaker: Speaker 1. Change' }).first().click();
  await expectAccessible(page);
  const field = page.getByRole('textbox', { name: 'Name of Speaker 1' });
  await field.fill('Jun <i>');
  await field.press('Enter');
  await expect.poll(async () => speakersOf(await get())).toEqual(['Jun <i>', 'Tamsin']);
  await expect(page.getByRole('article', { name: /^Jun <i>, 0:00/ })).toBeVisible();
  // The bar still offers the way back from Tamsin until it has heard of Jun.
  await expect(page.getByText('Speaker 1 is now Jun <i>.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => speakersOf(await get())).toEqual(['Speaker 1', 'Tamsin']);
});

test('one paragraph goes to somebody else, two speakers become one, and the text says who speaks', async ({
  page,
  immeld,
}) => {
  const { id, get } = await recordingOf(immeld, 'Appointment with Bram.m4a');
  expect(speakersOf(await get())).toEqual(['Tamsin', 'Bram', 'Ottoline']);
  const byBram = async () => (await get()).passages.filter((p) => p.speaker === 'Bram').length;
  const before = await byBram();
  await page.goto(`${immeld.address}/recordings/${id}`);
  await page.getByRole('button', { name: 'Speaker: Bram. Change' }).first().click();
  await expect(page.getByRole('radio', { name: 'Only this paragraph' })).toBeChecked();
  await page.getByRole('button', { name: 'Assign to Ottoline' }).click();
  await expect.poll(async () => (await get()).passages.find((p) => p.speaker !== 'Tamsin')!.speaker).toBe('Ottoline');
  expect(await byBram()).toBeLessThan(before);

  await page.getByRole('button', { name: /^Bram, .*Name this speaker/ }).click();
  await page.getByRole('button', { name: 'Same person as Ottoline' }).click();
  await expect.poll(async () => speakersOf(await get())).toEqual(['Tamsin', 'Ottoline']);
  const text = await (await fetch(`${immeld.address}/api/recordings/${id}/export/txt`)).text();
  expect(text).toMatch(/^Tamsin: Good morning/);
  expect(text).toContain('\nOttoline: ');
});

test('figures and hesitations are a way of reading: switched off, the words that were said are there', async ({
  page,
  immeld,
}) => {
  const { id } = await recordingOf(immeld, 'Letter to the council.m4a');
  const address = `${immeld.address}/recordings/${id}`;
  await page.goto(address);
  const first = page.getByRole('article').first();
  await expect(first).toContainText('For 11 years');
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('switch', { name: 'Numbers from ten up' }).click();
  await expect(page.getByRole('switch', { name: 'Numbers from ten up' })).not.toBeChecked();
  await page.goto(address);
  await expect(first).toContainText('For eleven years');
  const exported = async () => (await fetch(`${immeld.address}/api/recordings/${id}/export/txt`)).text();
  expect(await exported()).toContain('For eleven years');
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('switch', { name: 'Numbers from ten up' }).click();
  await expect(page.getByRole('switch', { name: 'Numbers from ten up' })).toBeChecked();
  expect(await exported()).toContain('For 11 years');
});

test('a person who is known is heard rightly, a listed name is offered where a word sounds like it, and taken off again', async ({
  page,
  immeld,
}) => {
  test.setTimeout(180_000);
  const { id, get } = await recordingOf(immeld, 'Quay walk.ogg');
  const text = async () =>
    (await get()).passages
      .flatMap((p) => p.words)
      .map((w) => w.text)
      .join(' ');
  await expect.poll(async () => (await get()).state, { timeout: 60_000 }).toBe('ready');
  // Bram Vantongeren is known, so nobody had to list the name.
  expect(await text()).toContain('Vantongeren');
  await page.goto(`${immeld.address}/settings`);
  const field = page.getByRole('textbox', { name: 'Name or term', exact: true });
  for (const name of ['Vantongeren', 'Ottoline']) {
    await field.fill(name);
    await field.press('Enter');
    await expect(page.getByRole('button', { name: `Remove ${name}` })).toBeVisible();
  }
  await expectAccessible(page);

  await page.goto(`${immeld.address}/recordings/${id}?part=about`);
  await page.getByRole('button', { name: 'Transcribe again' }).click();
  await page.getByRole('button', { name: /^With your current names/ }).click();
  await expect.poll(text, { timeout: 120_000 }).toContain('Vantongeren');

  // By hand: what sounds like a word is offered, put there, and taken back.
  const talk = await recordingOf(immeld, 'Appointment with Bram.m4a');
  await page.goto(`${immeld.address}/recordings/${talk.id}`);
  // It comes with the settings, after the words, and moves them.
  await expect(page.getByRole('button', { name: /doubtful words/ })).toBeVisible();
  // What comes with the settings may move the word between two clicks.
  const offered = page.getByRole('button', { name: 'Insert Ottoline' });
  await expect(async () => {
    await page.getByText('Otto.', { exact: true }).first().dblclick({ timeout: 3000 });
    await expect(offered).toBeVisible({ timeout: 3000 });
  }).toPass();
  await offered.click();
  await expect(page.getByRole('textbox', { name: 'Text of this passage' })).toHaveValue(/Ottoline\./);
  await page.keyboard.press('Escape');
  const said = async () => (await talk.get()).passages.flatMap((p) => p.words).some((w) => w.text === 'Ottoline.');
  await expect.poll(said).toBe(true);
  await page.keyboard.press('Control+z');
  await expect.poll(said).toBe(false);

  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('button', { name: 'Remove Ottoline' }).click();
  await expect(page.getByRole('button', { name: 'Remove Ottoline' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Remove Ottoline' })).toBeVisible();
});
