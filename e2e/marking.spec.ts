import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import type { SharedSettings } from '@immeld/core/contract/settings';
import { expect, expectAccessible, recordingNamed, selectWords, test } from './immeld';

for (const [name, viewport] of [
  ['phone', { width: 390, height: 844 }],
  ['wide', { width: 1280, height: 800 }],
] as const) {
  test.describe(name, () => {
    test.use({ viewport });

    test('selected words are marked, written beside, lifted to a to-do, and given a picture; each can be taken back', async ({
      page,
      immeld,
    }) => {
      const { items } = await immeld.ask<{ items: RecordingCard[] }>('/recordings?place=all');
      const { id } = items.find((r) => r.fileName === 'Letter to the council.m4a')!;
      const get = () => immeld.ask<Recording>(`/recordings/${id}`);
      const before = await get();
      await page.goto(`${immeld.address}/recordings/${id}`);
      await expect(page.getByRole('article').first()).toContainText('Letter to the council');
      const bar = page.getByRole('toolbar', { name: 'Actions for the selected text' });
      await expect(bar).toHaveCount(0);

      await selectWords(page, 3, 5);
      await expect(bar).toBeVisible();
      // A drag selects; it plays nothing.
      await expect(page.getByRole('button', { name: 'Play', exact: true }).first()).toBeVisible();
      await expectAccessible(page);
      const words = before.passages.flatMap((p) => p.words);
      await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
      await bar.getByRole('button', { name: 'Copy' }).click();
      await expect(page.getByText('Text copied.')).toBeVisible();
      const copied = await page.evaluate(async () => {
        const [item] = await navigator.clipboard.read();
        return Promise.all(['text/plain', 'text/html'].map(async (type) => (await item!.getType(type)).text()));
      });
      const selected = words.slice(3, 6).map((w) => w.text);
      expect(copied[0]).toBe(selected.join(' '));
      expect(copied[1]).toContain(`<p dir="auto">${selected.join(' ')}</p>`);
      await page.getByRole('button', { name: 'Copy as Markdown' }).click();
      await expect(page.getByText('Text copied as Markdown.')).toBeVisible();

      await selectWords(page, 3, 5);
      await bar.getByRole('button', { name: 'Mark: Question' }).click();
      const marks = async () => (await get()).slips.filter((s) => s.mark === 'question');
      await expect
        .poll(async () => (await marks()).map(({ startMs, endMs }) => ({ startMs, endMs })))
        .toEqual([{ startMs: words[3]!.startMs, endMs: words[5]!.endMs }]);
      await expect(bar).toHaveCount(0);
      await page.getByRole('button', { name: 'Undo' }).click();
      await expect.poll(async () => (await marks()).length).toBe(0);

      await selectWords(page, 1, 2);
      await bar.getByRole('button', { name: 'Write a slip' }).click();
      await bar.getByRole('textbox', { name: 'Write a slip' }).fill('Ask for <b>the address</b> 🌳');
      await page.keyboard.press('Enter');
      const notes = async () => (await get()).slips.filter((s) => s.kind === 'note').map((s) => s.text);
      await expect.poll(notes).toContain('Ask for <b>the address</b> 🌳');
      await expect(bar).toHaveCount(0);

      await selectWords(page, 6, 9);
      const liftedBefore = before.todos.filter((t) => t.startMs === words[6]!.startMs && t.state === 'ink').length;
      await bar.getByRole('button', { name: 'Make a to-do' }).click();
      const lifted = async () =>
        (await get()).todos.filter((t) => t.startMs === words[6]!.startMs && t.state === 'ink');
      await expect.poll(async () => (await lifted()).length).toBe(liftedBefore + 1);

      await selectWords(page, 6, 7);
      const chooser = page.waitForEvent('filechooser');
      await bar.getByRole('button', { name: 'Picture' }).click();
      const png = Buffer.from(
        'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
        'base64',
      );
      await (await chooser).setFiles({ name: 'pit.png', mimeType: 'image/png', buffer: png });
      await expect.poll(async () => (await get()).slips.filter((s) => s.hasPicture).length).toBe(1);

      await selectWords(page, 6, 7);
      const second = page.waitForEvent('filechooser');
      await bar.getByRole('button', { name: 'Picture' }).click();
      await (await second).setFiles({ name: 'no.png', mimeType: 'image/png', buffer: Buffer.from('not a picture') });
      await expect(page.getByRole('alert')).toBeVisible();
      expect((await get()).slips.filter((s) => s.kind === 'picture')).toHaveLength(1);
      for (const slip of (await get()).slips) {
        await fetch(`${immeld.address}/api/slips/${slip.id}`, {
          method: 'PATCH',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({ isBinned: true }),
        });
      }
    });
  });
}

test('by keys: the word that plays is marked, the sentence is lifted', async ({ page, immeld }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  const { items } = await immeld.ask<{ items: RecordingCard[] }>('/recordings?place=all');
  const { id } = items.find((r) => r.fileName === 'Evening memo.m4a')!;
  const get = () => immeld.ask<Recording>(`/recordings/${id}`);
  const before = await get();
  await page.goto(`${immeld.address}/recordings/${id}?at=8000`);
  await expect(page.locator('[data-lit]')).toBeVisible();
  await page.keyboard.press(' ');
  await page.keyboard.press('1');
  await expect.poll(async () => (await get()).slips.map((s) => s.mark)).toEqual(['key-point']);
  const [mark] = (await get()).slips;
  expect(before.passages.flatMap((p) => p.words).some((w) => w.startMs === mark!.startMs)).toBe(true);
  await page.keyboard.press('l');
  await expect.poll(async () => (await get()).todos.length).toBe(before.todos.length + 1);
  const lifted = (await get()).todos.find((t) => !before.todos.some((b) => b.id === t.id))!;
  expect(lifted.text.split(' ').length).toBeGreaterThan(3);
});

test('a passage is repeated by key, the text grows, more words are called doubtful, and headset keys reach the player', async ({
  page,
  immeld,
}) => {
  await page.addInitScript(() => {
    const handlers: Record<string, (details: object) => void> = {};
    Object.assign(window, { mediaKeys: handlers });
    const real = navigator.mediaSession.setActionHandler.bind(navigator.mediaSession);
    navigator.mediaSession.setActionHandler = (action, act) => {
      if (act) handlers[action] = act as (details: object) => void;
      real(action, act);
    };
  });
  await page.setViewportSize({ width: 1280, height: 800 });
  const { items } = await immeld.ask<{ items: RecordingCard[] }>('/recordings?place=all');
  const { id } = items.find((r) => r.fileName === 'Evening memo.m4a')!;
  const { passages } = await immeld.ask<Recording>(`/recordings/${id}`);
  await page.goto(`${immeld.address}/recordings/${id}`);
  const word = page.locator('[data-word]').first();
  await expect(word).toBeVisible();
  const size = () => word.evaluate((e) => parseFloat(getComputedStyle(e).fontSize));
  const before = await size();
  const doubtful = page.getByRole('button', { name: /doubtful word/ });
  const count = async () => Number(/\d+/.exec((await doubtful.textContent())!)![0]);
  const few = await count();
  await page.keyboard.press('r');
  await expect(page.getByRole('button', { name: 'Stop repeating' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.getByRole('button', { name: 'Stop repeating' })).toHaveCount(0);
  const key = (name: string, details = {}) =>
    page.evaluate(
      ([n, d]) => (window as unknown as { mediaKeys: Record<string, (d: object) => void> }).mediaKeys[n]!(d),
      [name, details] as const,
    );
  await key('pause');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await key('seekto', { seekTime: passages[2]!.startMs / 1000 });
  await expect(page.getByRole('slider', { name: 'Position in the recording' })).not.toHaveAttribute(
    'aria-valuenow',
    '0',
  );

  await page.goto(`${immeld.address}/settings`);
  await page.getByRole('radio', { name: 'Text size 200%' }).click();
  await page.getByRole('radio', { name: 'Mark words as doubtful below 85%' }).click();
  await page.goto(`${immeld.address}/recordings/${id}`);
  await expect(word).toBeVisible();
  expect(await size()).toBeCloseTo(before * 2, 0);
  expect(await count()).toBeGreaterThan(few);
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test('a word is looked up in its sentence, kept in the margin, and given a meaning of one’s own', async ({
  page,
  immeld,
}) => {
  const { id } = await recordingNamed(immeld, 'Lecture infiltration and field capacity.m4a');
  const { passages } = await immeld.ask<Recording>(`/recordings/${id}`);
  const first = passages[0]!.words.findIndex((w) => /^[a-z]{5,}$/i.test(w.text));
  const word = passages[0]!.words[first]!.text;
  await page.goto(`${immeld.address}/recordings/${id}`);
  // As a long press does on a phone.
  const select = () =>
    page
      .getByRole('article')
      .first()
      .locator('[data-word]')
      .nth(first)
      .evaluate((element) => window.getSelection()!.selectAllChildren(element));
  await select();
  await page.getByRole('button', { name: 'Meaning', exact: true }).click();
  const panel = page.getByRole('group', { name: `Meaning of ${word}` });
  await expect(panel.getByText(/WordNet/).first()).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(panel).toHaveCount(0);
  await select();
  await page.getByRole('button', { name: 'Meaning', exact: true }).click();
  await panel.getByRole('button', { name: 'Add to my glossary' }).click();
  await panel.getByRole('textbox').fill('as our teacher means it');
  await panel.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved in your glossary.')).toBeVisible();
  const { glossary } = await immeld.ask<SharedSettings>('/settings');
  expect(glossary).toEqual([{ term: word, meaning: 'as our teacher means it' }]);
  await panel.getByRole('button', { name: 'Put in the margin' }).first().click();
  await expect
    .poll(async () => (await immeld.ask<Recording>(`/recordings/${id}`)).slips.map((s) => s.text))
    .toContainEqual(expect.stringMatching(new RegExp(`^${word}: `)));
});
