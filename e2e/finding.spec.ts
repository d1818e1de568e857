import { withNumerals } from '@immeld/core/transcript/inverseTextNormalisation';
import type { FoundAnswer } from '@immeld/core/contract/find';
import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import { expect, expectAccessible, test } from './immeld';
import { Talker } from './talker';

test('two half-remembered words bring the moment back, by keyboard, and it plays there', async ({ page, immeld }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(immeld.address);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('/');
  await expect(page.getByRole('searchbox')).toBeFocused();
  await page.keyboard.type('infitration rate');
  await expect(page.getByText(/No results for “infitration”/)).toBeVisible();
  await page.getByRole('searchbox').fill('heavy drops');
  await expect(page.getByRole('link', { name: /^1:\d\d .*heavy drops/ })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Infiltration and field capacity' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  const [lit] = await page.locator('[data-word]').filter({ hasText: 'drops' }).all();
  await expect(lit!).toBeVisible();
});

test('the search is narrowed by chips that write themselves into the bar', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/find?q=soil`);
  const count = async () => Number(/\d+/.exec((await page.getByText(/Found in \d+ place/).textContent())!)![0]);
  await expect(page.getByText(/Found in \d+ place/)).toBeVisible();
  const all = await count();
  await page.getByRole('button', { name: 'Folder', exact: true }).click();
  await page.getByRole('button', { name: 'Soil course', exact: true }).click();
  await expect(page.getByRole('searchbox')).toHaveValue('soil in:"Soil course"');
  await expect.poll(count).toBeLessThan(all);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Remove filter: in Soil course' }).click();
  await expect(page.getByRole('searchbox')).toHaveValue('soil');
  await expect.poll(count).toBe(all);
});

test('a question is answered with what was said, each sentence is in the archive and plays', async ({
  page,
  immeld,
}) => {
  const { items } = await immeld.ask<{ items: RecordingCard[] }>('/recordings?limit=200');
  const said = new Map<string, string>();
  for (const { id } of items) {
    const { passages } = await immeld.ask<Recording>(`/recordings/${id}`);
    said.set(id, withNumerals(passages.flatMap((p) => p.words.map((w) => w.text)).join(' ')));
  }
  for (const question of [
    'What did the arborist say about the roots?',
    'How much does the trench cost?',
    'What is field capacity?',
  ]) {
    const answer = await immeld.ask<FoundAnswer>(`/ask?q=${encodeURIComponent(question)}`);
    expect(answer.quotes.length).toBeGreaterThan(0);
    for (const { id, text } of answer.quotes) expect(said.get(id)).toContain(text);
  }
  // As long as the answer is on its way nothing is said to be missing.
  let letGo = () => {};
  const held = new Promise<void>((resolve) => (letGo = resolve));
  await page.route('**/api/ask?*', async (route) => {
    await held;
    await route.continue();
  });
  await page.goto(`${immeld.address}/find?q=${encodeURIComponent('How much does the trench cost?')}`);
  const answer = page.getByRole('region', { name: 'Answer' });
  await expect(page.getByText('Looking for an answer')).toBeVisible();
  await expect(page.getByText(/^Nothing found/)).toHaveCount(0);
  letGo();
  await expect(answer.getByRole('heading', { name: '11,400' })).toBeVisible();
  await expectAccessible(page);
  await answer.getByRole('link', { name: /^“The trench costs/ }).click();
  await expect(page.getByRole('heading', { name: 'Letter to the council about the quay' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();

  await page.goto(`${immeld.address}/find?q=${encodeURIComponent('Who won the football match?')}`);
  await expect(
    answer.getByRole('heading', { name: 'Nothing in your recordings and notes answers this.' }),
  ).toBeVisible();
  await page.goto(`${immeld.address}/find?q=${encodeURIComponent('What did I do yesterday?')}`);
  await expect(answer.getByRole('link', { name: /^Walk the quay with Bram, yesterday/ })).toBeVisible();
});

test('a question is asked aloud, on the device', async ({ immeld }) => {
  const talker = await Talker.open(immeld, { sound: 'letter.m4a' });
  const { page } = talker;
  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('button', { name: 'Ask a question aloud' }).click();
  await expect(page.getByText(/this device needs the speech pack/)).toBeVisible();
  await page.getByRole('button', { name: 'Download' }).click();
  await expect(page.getByRole('button', { name: 'Remove from this device' })).toBeVisible();
  await page.getByRole('button', { name: 'Ask a question aloud' }).click();
  await expect(page.getByRole('button', { name: 'Stop listening' })).toBeVisible();
  await expect.poll(() => page.getByRole('searchbox').inputValue(), { timeout: 60_000 }).toMatch(/council/i);
  await page.getByRole('button', { name: 'Stop listening' }).click();
  await expect(page.getByRole('button', { name: 'Ask a question aloud' })).toBeVisible();
  // Nothing of it was recorded.
  const { total } = await immeld.ask<{ total: number }>('/recordings?place=tray');
  await expect(page.getByRole('link', { name: `Tray, ${total}` })).toBeVisible();
  await talker.close();
});
