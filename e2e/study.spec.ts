import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';
import type { RecallCard } from '@immeld/core/contract/study';
import { type Immeld, expect, expectAccessible, test } from './immeld';
import { pdfWith } from './pdf';

const named = async (immeld: Immeld, fileName: string): Promise<string> => {
  const { items } = await immeld.ask<{ items: RecordingCard[] }>('/recordings?place=all');
  return items.find((r) => r.fileName === fileName)!.id;
};
const LECTURE = 'Lecture infiltration and field capacity.m4a';

test.describe('phone', () => {
  test.use({ viewport: { width: 390, height: 844 } });

  test('each slide stands beside what was said about it; places are accepted, moved by key, and taken back', async ({
    page,
    immeld,
  }) => {
    const id = await named(immeld, LECTURE);
    const slides = async () =>
      (await immeld.ask<Recording>(`/recordings/${id}`)).slips
        .filter((s) => s.kind === 'slide')
        .sort((a, b) => a.slide!.page - b.slide!.page);
    const before = await slides();
    await page.goto(`${immeld.address}/recordings/${id}`);
    const pane = page.getByRole('group', { name: 'Slides' });
    await pane.getByRole('button', { name: 'Next slide' }).click();
    await pane.getByRole('button', { name: 'Next slide' }).click();
    await expect(pane).toContainText('Slide 3 of 20');
    await expect(pane.getByRole('img', { name: 'Final infiltration rate' })).toBeVisible();
    await pane.getByRole('button', { name: 'More actions for slides' }).click();
    await expectAccessible(page);
    await pane.getByRole('button', { name: 'Accept this place' }).click();
    await expect.poll(async () => (await slides())[2]!.slide!.isProposed).toBe(false);

    const peg = page.getByRole('slider', { name: 'Beginning of slide 3' });
    await peg.focus();
    await page.keyboard.press('ArrowLeft');
    await expect.poll(async () => (await slides())[2]!.startMs).toBe(before[2]!.startMs - 1000);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(async () => (await slides())[2]!.startMs).toBe(before[2]!.startMs);

    await pane.getByRole('button', { name: 'Enlarge slide 3: Final infiltration rate' }).click();
    const large = page.getByRole('dialog', { name: 'Slide 3: Final infiltration rate' });
    await expect(large).toBeVisible();
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('dialog', { name: 'Slide 4: Run-off' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);

    await pane.getByRole('button', { name: /^Accept all \d+ places$/ }).click();
    await expect.poll(async () => (await slides()).filter((s) => s.slide!.isProposed).length).toBe(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(async () => (await slides()).filter((s) => s.slide!.isProposed).length).toBeGreaterThan(10);
  });

  test('slides are added afterwards, and a file that is none is refused in a sentence', async ({ page, immeld }) => {
    const id = await named(immeld, 'Letter to the council.m4a');
    await page.goto(`${immeld.address}/recordings/${id}`);
    await page.getByRole('tab', { name: /^Margin/ }).click();
    const add = async (name: string, buffer: Buffer) => {
      const chooser = page.waitForEvent('filechooser');
      await page.getByRole('button', { name: 'Add slides' }).click();
      await (await chooser).setFiles({ name, mimeType: 'application/pdf', buffer });
    };
    await add('notes.pdf', Buffer.from('only words'));
    await expect(
      page.getByText('Slides can be made of PDF files and of presentations that end in .pptx.'),
    ).toBeVisible();
    await add('council.pdf', pdfWith(['To the council', 'Something else']));
    await expect(page.getByText(/^2 slides added\./)).toBeVisible({ timeout: 30_000 });
    await expect(page.getByRole('article', { name: /^Slide 1/ })).toContainText('To the council');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('article', { name: /^Slide 1/ })).toHaveCount(0);
  });

  test('a sitting by keyboard alone: passages, a question that is known, and what was gone through', async ({
    page,
    immeld,
  }) => {
    const id = await named(immeld, LECTURE);
    await page.goto(`${immeld.address}/recordings/${id}`);
    await page.getByRole('button', { name: 'Study' }).focus();
    await page.keyboard.press('Enter');
    const begin = page.getByRole('button', { name: 'Begin' });
    await expect(begin).toBeEnabled();
    await expectAccessible(page);
    await begin.focus();
    await page.keyboard.press('Enter');
    await expect(page.getByText(/· 1 of \d+$/)).toBeVisible();
    await expect(page.getByText('Good evening.', { exact: false })).toBeVisible();
    const answer = page.getByRole('button', { name: 'Show the answer' });
    for (let at = 2; !(await answer.isVisible()); at++) {
      await page.keyboard.press('ArrowRight');
      await expect(page.getByText(new RegExp(`· ${at} of \\d+$`))).toBeVisible();
    }
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('button', { name: 'At once' })).toBeVisible();
    await expectAccessible(page);
    await page.keyboard.press('4');
    const kept = async () => (await immeld.ask<{ items: RecallCard[] }>(`/recordings/${id}/recall`)).items;
    await expect.poll(async () => (await kept()).map((c) => c.reviews)).toEqual([1]);
    await page.getByRole('button', { name: 'Stop' }).click();
    await expect(page.getByText(/^You answered 1 question and knew 1\./)).toBeVisible();
    await page.getByRole('button', { name: 'Choose again' }).click();
    await page.getByRole('button', { name: /^See the questions/ }).click();
    await expect(page.getByRole('list', { name: 'Questions' })).toContainText('comes back');
  });
});
