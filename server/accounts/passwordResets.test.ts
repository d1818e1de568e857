import { PasswordResets } from './passwordResets';

const MINUTE_MS = 60_000;
const ACCOUNT = 'an account';

test('a code works once, however it is typed', () => {
  const resets = new PasswordResets();
  const code = resets.begin(ACCOUNT)!;
  expect(code).toMatch(/^[2-9B-Z]{4}-[2-9B-Z]{4}$/);
  expect(resets.take('another account', code)).toBe(false);
  expect(resets.take(ACCOUNT, ` ${code.toLowerCase().replace('-', ' ')} `)).toBe(true);
  expect(resets.take(ACCOUNT, code)).toBe(false);
});

test('it ends after twenty minutes, and a newer one ends it', () => {
  const resets = new PasswordResets();
  const first = resets.begin(ACCOUNT, 0)!;
  expect(resets.take(ACCOUNT, first, 20 * MINUTE_MS)).toBe(false);
  const second = resets.begin(ACCOUNT, 21 * MINUTE_MS)!;
  const third = resets.begin(ACCOUNT, 22 * MINUTE_MS)!;
  expect(resets.take(ACCOUNT, second, 23 * MINUTE_MS)).toBe(false);
  expect(resets.take(ACCOUNT, third, 23 * MINUTE_MS)).toBe(true);
});

test('five wrong codes end it, and an account gets three in an hour', () => {
  const resets = new PasswordResets();
  const code = resets.begin(ACCOUNT, 0)!;
  for (let i = 0; i < 5; i++) expect(resets.take(ACCOUNT, 'AAAA-AAAA', 1)).toBe(false);
  expect(resets.take(ACCOUNT, code, 1)).toBe(false);
  expect(resets.begin(ACCOUNT, 2)).not.toBeNull();
  expect(resets.begin(ACCOUNT, 3)).not.toBeNull();
  expect(resets.begin(ACCOUNT, 4)).toBeNull();
  expect(resets.begin('another account', 4)).not.toBeNull();
  expect(resets.begin(ACCOUNT, 61 * MINUTE_MS)).not.toBeNull();
});
