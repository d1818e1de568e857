import fs from 'node:fs';
import type { Todo } from '@immeld/core/contract/todos';
import { expect, expectAccessible, type Immeld, test } from './immeld';

const todos = async (immeld: Immeld) => (await immeld.ask<{ items: Todo[] }>('/todos')).items;
const todo = async (immeld: Immeld, text: string) => (await todos(immeld)).find((t) => t.text === text)!;

test('the morning memo becomes to-dos by project, each with its second; recognised again, none comes twice', async ({
  page,
  immeld,
}) => {
  test.setTimeout(180_000);
  // The demo leaves this one to be recognised while one watches.
  const recording = async () =>
    (
      await immeld.ask<{ items: { id: string; fileName: string; state: string; pencilTodos: Todo[] }[] }>('/recordings')
    ).items.find((r) => r.fileName === 'Memo today 0728.m4a');
  await expect.poll(async () => (await recording())?.state, { timeout: 90_000 }).toBe('ready');
  await page.goto(`${immeld.address}/tray`);
  const { id, pencilTodos } = (await recording())!;
  const [orchard, home] = ['School orchard', 'Home'].map((p) => pencilTodos.filter((t) => t.project === p));
  expect(orchard!.map((t) => t.text).join()).toMatch(/gloves/);
  expect(home!.some((t) => /water bill/i.test(t.text))).toBe(true);
  expect(pencilTodos.every((t) => t.who === 'me' && t.startMs !== null && t.quote)).toBe(true);

  const card = page.getByRole('article').filter({ hasText: 'water bill' }).first();
  await card.getByRole('button', { name: 'File', exact: true }).click();
  await expect
    .poll(async () => (await todos(immeld)).filter((t) => t.recordingId === id).length)
    .toBe(pencilTodos.length);
  await page.goto(`${immeld.address}/todos`);
  await expect(page.getByRole('heading', { name: /^School orchard/ })).toBeVisible();
  const bill = page.getByRole('button', { name: /^Edit Pay the water bill/i });
  await expect(bill).toContainText('by ');
  await page.getByRole('link', { name: /^Play where “Pay the water bill/i }).click();
  await expect(page).toHaveURL(/recordings\/.+at=\d+/);

  const again = await page.request.post(`${immeld.address}/api/recordings/${id}/recognition`, { data: {} });
  expect(again.ok(), await again.text()).toBe(true);
  const isHeard = async () =>
    (await immeld.ask<{ items: { recordingId: string }[] }>('/jobs')).items.every((j) => j.recordingId !== id);
  await expect.poll(isHeard, { timeout: 90_000 }).toBe(true);
  expect(await immeld.ask<{ state: string }>(`/recordings/${id}`)).toMatchObject({ state: 'ready' });
  const all = (await immeld.ask<{ items: Todo[] }>('/todos?state=all')).items.filter((t) => t.recordingId === id);
  expect(all).toHaveLength(pencilTodos.length);
});

test('one line says what, when, which project and how urgent; it is put off, put in order and ticked', async ({
  page,
  immeld,
}) => {
  await page.goto(`${immeld.address}/todos`);
  const line = page.getByLabel('Add a to-do');
  await line.fill('call the arborist tomorrow 9 am for the quayside, urgent');
  await expect(page.getByText('Will be added with: tomorrow 9:00 · Quayside limes · high priority')).toBeVisible();
  await line.press('Enter');
  await expect.poll(async () => (await todo(immeld, 'Call the arborist'))?.priority).toBe('high');
  expect(await todo(immeld, 'Call the arborist')).toMatchObject({ who: 'me', project: 'Quayside limes' });
  await line.fill('water the pears every friday');
  await line.press('Enter');
  await expect(page.getByRole('button', { name: 'Edit Water the pears' })).toContainText('every Friday');

  // Put in order by the keyboard alone.
  await page.getByRole('tab', { name: 'My order' }).click();
  const texts = () => page.getByRole('checkbox').evaluateAll((all) => all.map((c) => c.getAttribute('aria-label')));
  await expect.poll(async () => (await texts()).at(-1)).toBe('Water the pears, done');
  const handle = page.getByRole('button', { name: /^Move Water the pears/ });
  await handle.focus();
  await page.keyboard.press('ArrowUp');
  await expect.poll(async () => (await texts()).at(-1)).toBe('Call the arborist, done');
  // And by dragging.
  const from = (await handle.boundingBox())!;
  const to = (await page.getByRole('checkbox').first().boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(from.x + 20, from.y - 30, { steps: 4 });
  await page.mouse.move(from.x + 20, to.y + 10, { steps: 10 });
  await page.mouse.up();
  await expect.poll(async () => (await texts())[0]).toBe('Water the pears, done');
  await page.reload();
  await page.getByRole('tab', { name: 'My order' }).click();
  await expect.poll(async () => (await texts())[0]).toBe('Water the pears, done');

  // Those of one recording were made in the same instant; each can be moved all the same.
  const together = (await todos(immeld)).filter((t, _, all) => all.filter((u) => u.position === t.position).length > 2);
  const name = `${together.find((t) => t.who === 'me' && !t.isDone)!.text}, done`;
  const place = async () => (await texts()).indexOf(name);
  const before = await place();
  const its = page.getByRole('button', { name: `Move ${name.slice(0, -6)}: drag it, or use the arrow keys` });
  for (const [key, by] of [
    ['ArrowDown', 1],
    ['ArrowDown', 2],
    ['ArrowUp', 1],
  ] as const) {
    await its.press(key);
    await expect.poll(place).toBe(before + by);
  }
  await page.reload();
  await page.getByRole('tab', { name: 'My order' }).click();
  await expect.poll(place).toBe(before + 1);

  await page.getByRole('button', { name: 'Edit Call the arborist' }).click();
  await page.getByLabel('Notes').fill('Ask about the split bark');
  await page.getByRole('radio', { name: 'every week' }).click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Edit Call the arborist' })).toContainText('every week');
  await page.getByRole('button', { name: 'Edit Call the arborist' }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Postpone to tomorrow' }).click();
  await expect(page.getByRole('heading', { name: /^Postponed/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { name: /^Postponed/ })).toHaveCount(0);

  // Done, what repeats comes again; taken back, it does not.
  const pears = async () => (await todos(immeld)).filter((t) => t.text === 'Water the pears');
  await page.getByRole('checkbox', { name: 'Water the pears, done' }).click();
  await expect.poll(async () => (await pears()).map((t) => t.isDone).sort()).toEqual([false, true]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await pears()).map((t) => t.isDone)).toEqual([false]);
});

test('others’ to-dos stand apart; all of them are taken along', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/todos`);
  await expect(page.getByRole('button', { name: 'Edit Write the application' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Edit Send me the new drawing' })).toHaveCount(0);
  await page.getByRole('radio', { name: 'Others’' }).click();
  await expect(page.getByRole('button', { name: 'Edit Send me the new drawing' })).toContainText('for Ottoline');
  await page.getByRole('button', { name: 'Export' }).click();
  const saved = async (name: string) => {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name }).click();
    return fs.readFileSync(await (await download).path(), 'utf8');
  };
  expect(await saved('Calendar file')).toContain('SUMMARY:Send me the new drawing (Ottoline)');
  expect(await saved('Checklist')).toContain('- [ ] Send me the new drawing (Ottoline');
  await page.getByRole('button', { name: 'Create private address' }).click();
  const address = page.getByText(/\/feeds\/[0-9a-f]{32}\.ics$/);
  await expect(address).toBeVisible();
  const feed = await fetch((await address.textContent())!);
  expect(await feed.text()).toContain('BEGIN:VTODO');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Turn off address' }).click();
  await expect(address).toHaveCount(0);
});

test.describe('with a service worker', () => {
  test.use({ serviceWorkers: 'allow' });

  test('with no network to-dos are ticked and added, stay so over a reload, and reach the server by themselves', async ({
    page,
    immeld,
  }) => {
    const { recordingId } = await todo(immeld, 'Write the application');
    const box = (name: string) => page.getByRole('checkbox', { name: `${name}, done` });
    for (const place of [`recordings/${recordingId}?part=margin`, 'todos']) {
      await page.goto(`${immeld.address}/${place}`);
      await expect(box('Write the application')).not.toBeChecked();
    }
    await page.evaluate(() => navigator.serviceWorker.ready);
    await page.context().setOffline(true);
    await box('Write the application').click();
    await page.getByLabel('Add a to-do').fill('buy stakes for the quayside');
    await page.keyboard.press('Enter');
    await expect(box('Buy stakes')).toBeVisible();
    await page.reload();
    await expect(box('Buy stakes')).toBeVisible();
    await expect(box('Write the application')).toHaveCount(0);
    await page.goto(`${immeld.address}/recordings/${recordingId}?part=margin`);
    await expect(box('Write the application')).toBeChecked();
    await page.goto(`${immeld.address}/todos`);
    expect((await todo(immeld, 'Write the application')).isDone).toBe(false);
    await page.context().setOffline(false);
    await expect.poll(async () => (await todo(immeld, 'Write the application')).isDone).toBe(true);
    await expect.poll(async () => (await todo(immeld, 'Buy stakes'))?.project).toBe('Quayside limes');
    await expect(box('Buy stakes')).toHaveCount(1);
  });
});
