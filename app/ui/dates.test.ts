import { dayName, dueName, dueWords, lengthName, localDay, sizeName } from './dates';

const NOW = new Date(2026, 2, 9, 10, 0);

it.each([
  ['2026-03-09', 'today'],
  ['2026-03-08T23:00', 'yesterday'],
  ['2026-03-10', 'tomorrow'],
  ['2026-03-13', 'Friday'],
  ['2026-05-12', '12 May'],
  ['2025-12-31', '31 Dec 2025'],
])('the day of %s', (iso, name) => expect(dayName(iso, NOW)).toBe(name));

it.each([
  [48_200, '48 s'],
  [60_000, '1 min'],
  [3_120_000, '52 min'],
  [18_000_000, '5 h 00 min'],
])('%d ms', (ms, name) => expect(lengthName(ms)).toBe(name));

it.each([
  [512, '512 B'],
  [2048, '2 kB'],
  [5_500_000, '5.2 MB'],
])('%d bytes', (bytes, name) => expect(sizeName(bytes)).toBe(name));

it('a due time stands without a leading zero', () => expect(dueName('2020-05-12T09:05')).toBe('12 May 2020 9:05'));

it.each([
  ['2020-05-12', false, 'was due 12 May 2020'],
  ['2020-05-12', true, 'by 12 May 2020'],
  [localDay(new Date()), false, 'by today'],
  ['2999-01-02T10:30', false, 'by 2 Jan 2999 10:30'],
  [null, false, null],
])('%s, done: %s', (due, isDone, words) => expect(dueWords({ due, isDone })).toBe(words));
