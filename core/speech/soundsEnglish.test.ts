import { soundsEnglish } from './soundsEnglish';

const words = (count: number, confidence: number) => Array.from({ length: count }, () => ({ confidence }));

test('English is surer than what is guessed of another language', () => {
  expect(soundsEnglish(words(100, 0.9))).toBe(true);
  expect(soundsEnglish([...words(70, 0.9), ...words(30, 0.3)])).toBe(true);
  expect(soundsEnglish(words(100, 0.3))).toBe(false);
});

test('of a few words nothing is said', () => {
  expect(soundsEnglish(words(19, 0.1))).toBe(true);
  expect(soundsEnglish([])).toBe(true);
});
