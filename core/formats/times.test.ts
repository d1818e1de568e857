import { dayInWords } from './times';

it.each([
  ['2026-12-15', '15 Dec 2026'],
  ['2026-12-03T09:30', '3 Dec 2026, 9:30'],
  ['2027-01-01T16:05', '1 Jan 2027, 16:05'],
])('%s is %s', (due, words) => expect(dayInWords(due)).toBe(words));
