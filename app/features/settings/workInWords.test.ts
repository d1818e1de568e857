import { workInWords } from './workInWords';

test.each([
  [0, '1 min'],
  [60 * 60_000, '7 min'],
  [12 * 60 * 60_000, '86 min'],
  [25 * 60 * 60_000, '3 h'],
])('%i ms of sound take %s', (soundMs, words) => {
  expect(workInWords(soundMs)).toBe(words);
});
