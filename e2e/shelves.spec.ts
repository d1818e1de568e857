import { expect, test } from './immeld';

test('a folder is made, renamed, filled, removed and brought back', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/shelves`);
  await page.getByLabel('New folder').fill('Rain garden');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('link', { name: 'Rain garden, 0 items' }).click();
  await expect(page.getByText('Nothing here yet')).toBeVisible();
  await page.getByRole('button', { name: 'Edit' }).click();
  await page.getByRole('button', { name: 'Rename' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Rain gardens');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { name: 'Rain gardens' })).toBeVisible();

  await page.goto(`${immeld.address}/tray`);
  const card = page.getByRole('article').filter({ hasText: 'bench behind the house' });
  await card.getByRole('button', { name: 'Edit' }).click();
  await page.getByRole('radio', { name: 'Rain gardens' }).click();
  await expect(page.getByRole('radio', { name: 'Rain gardens', checked: true })).toBeVisible();
  await page.getByRole('button', { name: 'File', exact: true }).click();
  // Leaving the page would call off what is still on its way.
  await expect(page.getByRole('button', { name: 'File', exact: true })).toHaveCount(0);
  await page.goto(`${immeld.address}/shelves`);
  await page.getByRole('link', { name: 'Rain gardens, 1 item' }).click();

  await page.getByRole('button', { name: 'Edit' }).click();
  await page.getByRole('button', { name: 'Remove folder' }).click();
  await expect(page.getByText('“Rain gardens” is removed.')).toBeVisible();
  await expect(page.getByRole('link', { name: /^Rain gardens/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'Rain gardens, 1 item' })).toBeVisible();
});

test('a recording gets a title of one’s own and a tag, and is found by both', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/tray`);
  const card = page.getByRole('article').filter({ hasText: 'Can you hear me now' });
  await card.getByRole('button', { name: 'Edit' }).click();
  const title = page.getByLabel('Title', { exact: true });
  await title.fill('Planning call with Jun');
  await title.press('Enter');
  await expect(page.getByRole('heading', { name: 'Planning call with Jun' })).toBeVisible();
  await page.getByLabel('Add a tag').fill('volunteers');
  await page.getByRole('button', { name: 'Add tag' }).click();
  await expect(page.getByRole('button', { name: 'Remove tag volunteers' })).toBeVisible();
  await page.goto(`${immeld.address}/shelves`);
  await page.getByRole('link', { name: 'volunteers, 1' }).click();
  await expect(page.getByRole('link', { name: /^Planning call with Jun/ })).toBeVisible();
  await page.goto(`${immeld.address}/find?q=planning`);
  await expect(page.getByRole('link', { name: 'Planning call with Jun' })).toBeVisible();
});

test('what goes to the bin comes out of it again', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/tray`);
  const card = page.getByRole('article').filter({ hasText: 'Quick thought on the way to the bus' });
  await card.getByRole('button', { name: 'Move to bin' }).click();
  await expect(page.getByText(/is in the bin for 30 days/)).toBeVisible();
  await expect(card).toHaveCount(0);
  await page.goto(`${immeld.address}/shelves/bin`);
  await page.getByRole('link', { name: /today 6:04/ }).click();
  await page.getByRole('tab', { name: 'About' }).click();
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByRole('button', { name: 'Move to bin' })).toBeVisible();
  await page.goto(`${immeld.address}/tray`);
  await expect(card).toBeVisible();
});

test('a to-do is written by hand, and one in pencil is dropped and taken up again', async ({ page, immeld }) => {
  await page.goto(`${immeld.address}/todos`);
  await expect(page.getByRole('button', { name: 'Add', exact: true })).toBeDisabled();
  await page.getByLabel('Add a to-do').fill('Sharpen the spades');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('checkbox', { name: 'Sharpen the spades, done' })).toBeVisible();
  const { items } = await immeld.ask<{ items: { id: string; title: string | null }[] }>('/recordings');
  await page.goto(
    `${immeld.address}/recordings/${items.find((r) => r.title === 'Walk the quay with Bram')!.id}?part=margin`,
  );
  const drop = page.getByRole('button', { name: 'Drop' });
  await expect(drop.first()).toBeVisible();
  const before = await drop.count();
  await drop.first().click();
  await expect(page.getByText('To-do dropped.')).toBeVisible();
  await expect(drop).toHaveCount(before - 1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(drop).toHaveCount(before);
});

test('the day goes back and forth, by press and by arrow', async ({ page, immeld }) => {
  await page.goto(immeld.address);
  const heading = page.getByRole('heading', { level: 1 });
  const today = await heading.textContent();
  await page.getByRole('button', { name: 'Previous day' }).click();
  await expect(heading).not.toHaveText(today!);
  await expect(page.getByRole('link', { name: /^Infiltration and field capacity, 18:30/ })).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await expect(heading).toHaveText(today!);
  await page.keyboard.press('ArrowLeft');
  await page.getByRole('button', { name: 'Today' }).click();
  await expect(heading).toHaveText(today!);
});
