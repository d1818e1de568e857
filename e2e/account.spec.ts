import { type RecordingCard } from '@immeld/core/contract/recordings';
import { Immeld, bringIn, demoSound, expect, expectAccessible, test } from './immeld';

test('a guest begins at once, signs up keeping everything, and meets it on another device', async ({ browser }) => {
  const immeld = new Immeld(false);
  await immeld.start();
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await phone.goto(`${immeld.address}/tray`);
  await expect(phone.getByText('Everything is filed')).toBeVisible();
  await bringIn(phone, immeld.convert(demoSound('voice-message.ogg'), 'mine.wav', '-t', '6'));
  await expect(phone.getByRole('article').filter({ hasText: /reception/ })).toBeVisible({ timeout: 60_000 });
  await phone.getByRole('link', { name: 'Settings' }).click();
  await expect(phone.getByText('You are a guest on this device.')).toBeVisible();
  await phone.getByLabel('Email address').fill('tamsin@harrowmere.example');
  await phone.getByLabel('Password, at least 10 characters').fill('short');
  await phone.getByRole('button', { name: 'Sign up' }).click();
  await expect(phone.getByRole('alert')).toContainText('at least 10 characters');
  await phone.getByLabel('Password, at least 10 characters').fill('limes along the quay');
  await phone.getByRole('button', { name: 'Sign up' }).click();
  await expect(phone.getByText('tamsin@harrowmere.example')).toBeVisible();
  await expectAccessible(phone);

  const laptop = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await laptop.goto(`${immeld.address}/tray`);
  await expect(laptop.getByText('Everything is filed')).toBeVisible();
  await laptop.getByRole('link', { name: 'Settings' }).click();
  await laptop.getByLabel('Email address').fill('tamsin@harrowmere.example');
  await laptop.getByLabel('Password, at least 10 characters').fill('limes along the quay');
  await laptop.getByRole('button', { name: 'Sign in' }).click();
  await expect(laptop.getByText('tamsin@harrowmere.example')).toBeVisible();
  await laptop.getByRole('link', { name: /^Tray/ }).click();
  await expect(laptop.getByRole('article').filter({ hasText: /reception/ })).toBeVisible();

  // The phone is signed out from the laptop: its next step is that of a new guest.
  await laptop.getByRole('link', { name: 'Settings' }).click();
  await laptop.getByRole('button', { name: 'Sign out this device' }).click();
  await expect(laptop.getByRole('button', { name: 'Sign out this device' })).toHaveCount(0);
  await phone.goto(`${immeld.address}/tray`);
  await expect(phone.getByText('Everything is filed')).toBeVisible();
  const seen = await phone.evaluate(
    async () => (await fetch('/api/recordings')).json() as Promise<{ items: unknown[] }>,
  );
  expect((seen.items as RecordingCard[]).length).toBe(0);
  immeld.remove();
});
