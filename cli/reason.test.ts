import fs from 'node:fs';
import { reasonOf } from './reason';

it('says a full disk, a forbidden place and anything else in a sentence', () => {
  // A device of Linux that is always full.
  let full: unknown;
  try {
    fs.writeFileSync('/dev/full', 'sound');
  } catch (error) {
    full = error;
  }
  expect(reasonOf(full)).toBe('The disk is full.');
  expect(reasonOf(Object.assign(new Error('open'), { code: 'EROFS' }))).toMatch(/ermission denied/);
  expect(reasonOf(new Error('Nothing matches these options.'))).toBe('Nothing matches these options.');
  expect(reasonOf('broken')).toBe('broken');
});
