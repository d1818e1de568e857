import { stem, wordsOf } from './words';

/** Words that may be there or not without making it another to-do. */
const SMALL = new Set(
  'the a an my your his her their our to of in on at for with and it that this by so is are be will would'.split(' '),
);
/** Stems of the words that make a wording what it is, in their order. */
export const wordingStems = (text: string): string[] =>
  wordsOf(text)
    .filter((w) => !SMALL.has(w))
    .map(stem);

/** Sørensen-Dice coefficient of the stems of two wordings, 0 to 1, small words left out. */
export function alike(a: string, b: string): number {
  const [x, y] = [new Set(wordingStems(a)), new Set(wordingStems(b))];
  const shared = [...x].filter((s) => y.has(s)).length;
  return x.size + y.size === 0 ? 0 : (2 * shared) / (x.size + y.size);
}

/** From here on two wordings are the same thing to do. */
export const MIN_SIMILARITY = 0.7;
