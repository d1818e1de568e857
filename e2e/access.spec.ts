import { expect, expectAccessible, expectLargeTargets, recordingNamed, test } from './immeld';

const PLACES = [
  ...[
    '/',
    '/tray',
    '/shelves',
    '/shelves/all',
    '/todos',
    '/templates',
    '/weeks',
    '/history',
    '/links',
    '/settings',
    '/nowhere',
  ],
  ...['/find?q=soil', '/find?q=What%20is%20field%20capacity%3F'],
];

for (const [name, viewport, colorScheme] of [
  ['phone, light', { width: 390, height: 844 }, 'light'],
  ['wide, dark', { width: 1280, height: 800 }, 'dark'],
] as const) {
  test.describe(name, () => {
    test.use({ viewport, colorScheme });

    test('axe finds nothing in any place, the browser complains of nothing, and all is large enough for a thumb', async ({
      page,
      immeld,
    }) => {
      const complaints: string[] = [];
      page.on('console', (m) => m.type() === 'error' && complaints.push(m.text()));
      page.on('response', (r) => r.status() >= 400 && complaints.push(`${r.status()} ${r.url()}`));
      for (const place of PLACES) {
        await page.goto(immeld.address + place);
        await expect(page.getByRole('button', { name: 'Speak', exact: true })).toBeVisible();
        await page.waitForLoadState('networkidle').catch(() => undefined);
        await expectAccessible(page);
        await expectLargeTargets(page);
      }
      expect(complaints).toEqual([]);
    });

    test('axe finds nothing on any part of a recording', async ({ page, immeld }) => {
      const { items } = await immeld.ask<{ items: { id: string; title: string | null }[] }>('/recordings');
      const lecture = items.find((r) => r.title?.startsWith('Walk the quay'))!;
      await page.goto(`${immeld.address}/recordings/${lecture.id}`);
      await expect(page.getByRole('group', { name: 'Player' })).toBeVisible();
      for (const tab of await page.getByRole('tab').all()) {
        await tab.click();
        await expectAccessible(page);
        await expectLargeTargets(page);
      }
    });
  });
}

test('everything is reached by keyboard alone: places, filing, playing, finding', async ({ page, immeld }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(immeld.address);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('g');
  await page.keyboard.press('t');
  await expect(page.getByRole('heading', { name: 'Tray' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'File', exact: true }).first()).toBeVisible({ timeout: 60_000 });
  const before = await page.getByRole('article').count();
  for (let i = 0; i < 80; i++) {
    await page.keyboard.press('Tab');
    if ((await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))) === 'File') break;
  }
  await page.keyboard.press('Enter');
  await expect(page.getByText('is filed.')).toBeVisible();
  // The bar lies in the middle, not on what is pressed to speak.
  const speak = (await page.getByRole('button', { name: 'Speak', exact: true }).boundingBox())!;
  expect((await page.getByText('is filed.').boundingBox())!.x).toBeGreaterThan(speak.x + speak.width);
  await expect(page.getByRole('article')).toHaveCount(before - 1);

  await page.keyboard.press('/');
  await page.keyboard.type('wilting');
  await page.keyboard.type(' point');
  await expect(page.getByText(/Found in|Nothing found/)).toBeVisible();
  await page.getByRole('searchbox').fill('silver lime');
  const hit = page.getByRole('link', { name: /^\d+:\d\d/ }).first();
  await expect(hit).toBeVisible();
  await hit.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
});

test('who asks for reduced motion gets none, and the blank switches what is switched', async ({ page, immeld }) => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.goto(`${immeld.address}/settings`);
  const moving = await page.evaluate(() => {
    const element = document.body.appendChild(document.createElement('div'));
    element.style.animation = 'spin 1s infinite';
    return getComputedStyle(element).animationName;
  });
  expect(moving).toBe('none');
  const fillers = page.getByRole('switch').first();
  const before = await fillers.getAttribute('aria-checked');
  await fillers.focus();
  await page.keyboard.press('Space');
  await expect(fillers).not.toHaveAttribute('aria-checked', before!);
  await page.keyboard.press('Space');
  await expect(fillers).toHaveAttribute('aria-checked', before!);
});

test('at twice the size on a phone every control is within reach, and nothing is pushed off the page', async ({
  page,
  immeld,
}) => {
  const { id } = await recordingNamed(immeld, 'Letter to the council.m4a');
  // What is left of a phone of 390 by 844 when everything is shown at 200 %.
  await page.setViewportSize({ width: 195, height: 422 });
  for (const place of ['/', '/tray', '/shelves', '/todos', '/find?q=lime', '/settings', `/recordings/${id}`]) {
    await page.goto(`${immeld.address}${place}`);
    await expect(page.getByRole('button').first()).toBeVisible();
    await page.waitForLoadState('networkidle').catch(() => undefined);
    await expect(page.getByText(/^Opening/)).toHaveCount(0);
    const outside = await page.evaluate(() => {
      const scrolls = (e: Element | null): boolean =>
        !!e && (/auto|scroll/.test(getComputedStyle(e).overflowX) || scrolls(e.parentElement));
      return [...document.querySelectorAll('button, a, input, [role=button], [role=link], [role=tab], [role=switch]')]
        .filter((e) => e.getBoundingClientRect().right > window.innerWidth + 1 && !scrolls(e.parentElement))
        .map((e) => e.getAttribute('aria-label') ?? e.textContent);
    });
    expect([place, outside]).toEqual([place, []]);
  }
});
