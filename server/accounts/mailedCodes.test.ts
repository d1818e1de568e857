import { MailedCodes } from './mailedCodes';

const MINUTE_MS = 60_000;
const ACCOUNT = 'an account';

test('a code works once, however it is typed', () => {
  const codes = new MailedCodes();
  const code = codes.begin(ACCOUNT)!;
  expect(code).toMatch(/^[2-9B-Z]{4}-[2-9B-Z]{4}$/);
  expect(codes.take('another account', code)).toBe(false);
  expect(codes.take(ACCOUNT, ` ${code.toLowerCase().replace('-', ' ')} `)).toBe(true);
  expect(codes.take(ACCOUNT, code)).toBe(false);
});

test('it ends after twenty minutes, and a newer one ends it', () => {
  const codes = new MailedCodes();
  const first = codes.begin(ACCOUNT, 0)!;
  expect(codes.take(ACCOUNT, first, 20 * MINUTE_MS)).toBe(false);
  const second = codes.begin(ACCOUNT, 21 * MINUTE_MS)!;
  const third = codes.begin(ACCOUNT, 22 * MINUTE_MS)!;
  expect(codes.take(ACCOUNT, second, 23 * MINUTE_MS)).toBe(false);
  expect(codes.take(ACCOUNT, third, 23 * MINUTE_MS)).toBe(true);
});

test('five wrong codes end it, and an account gets three in an hour', () => {
  const codes = new MailedCodes();
  const code = codes.begin(ACCOUNT, 0)!;
  for (let i = 0; i < 5; i++) expect(codes.take(ACCOUNT, 'AAAA-AAAA', 1)).toBe(false);
  expect(codes.take(ACCOUNT, code, 1)).toBe(false);
  expect(codes.begin(ACCOUNT, 2)).not.toBeNull();
  expect(codes.begin(ACCOUNT, 3)).not.toBeNull();
  expect(codes.begin(ACCOUNT, 4)).toBeNull();
  expect(codes.begin('another account', 4)).not.toBeNull();
  expect(codes.begin(ACCOUNT, 61 * MINUTE_MS)).not.toBeNull();
});
