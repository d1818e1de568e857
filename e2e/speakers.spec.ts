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
  const list = page.getByRole('list', { name: 'Who speaks' });
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await expectAccessible(page);

  await list.getByRole('button', { name: 'Accept Tamsin for Speaker 2' }).click();
  await expect(list).toContainText('Tamsin');
  await expect.poll(async () => speakersOf(await get())).toEqual(['Speaker 1', 'Tamsin']);

  await page.getByRole('button', { name: 'Speaker 1 says this. Who is it?' }).first().click();
  await expectAccessible(page);
  const field = page.getByRole('textbox', { name: 'Name of Speaker 1' });
  await field.fill('Jun <i>');
  await field.press('Enter');
  await expect.poll(async () => speakersOf(await get())).toEqual(['Jun <i>', 'Tamsin']);
  await expect(page.getByRole('article', { name: /^Jun <i>, 0:00/ })).toBeVisible();
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
  await page.getByRole('button', { name: 'Bram says this. Who is it?' }).first().click();
  await expect(page.getByRole('radio', { name: 'Only this paragraph' })).toBeChecked();
  await page.getByRole('button', { name: 'Give it to Ottoline' }).click();
  await expect.poll(async () => (await get()).passages.find((p) => p.speaker !== 'Tamsin')!.speaker).toBe('Ottoline');
  expect(await byBram()).toBeLessThan(before);

  await page.getByRole('button', { name: /^Bram, speaks/ }).click();
  await page.getByRole('button', { name: 'The same as Ottoline' }).click();
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
  await page.getByRole('switch', { name: 'Numbers from ten on' }).click();
  await expect(page.getByRole('switch', { name: 'Numbers from ten on' })).not.toBeChecked();
  await page.goto(address);
  await expect(first).toContainText('For eleven years');
  const exported = async () => (await fetch(`${immeld.address}/api/recordings/${id}/export/txt`)).text();
  expect(await exported()).toContain('For eleven years');
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('switch', { name: 'Numbers from ten on' }).click();
  await expect(page.getByRole('switch', { name: 'Numbers from ten on' })).toBeChecked();
  expect(await exported()).toContain('For 11 years');
});
