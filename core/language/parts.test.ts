import { boundariesOf, partsOf, pk, windowDiff } from './parts';
import { sentencesOfText } from './sentences';

const about = (words: string[], n: number): string[] =>
  Array.from({ length: n }, (_, i) => {
    const [a, b, c] = [words[i % words.length], words[(i + 1) % words.length], words[(i + 3) % words.length]];
    return `The ${a} belongs to the ${b} and the ${c}.`;
  });
const ROOTS = ['root', 'soil', 'water', 'pore', 'clay', 'tree'];
const MONEY = ['price', 'fund', 'council', 'invoice', 'budget', 'cost'];
const PEOPLE = ['school', 'parent', 'teacher', 'invitation', 'saturday', 'glove'];

it('cuts where the words change', () => {
  const text = [...about(ROOTS, 20), ...about(MONEY, 20), ...about(PEOPLE, 20)];
  const found = boundariesOf(text);
  expect(found).toHaveLength(2);
  expect(Math.abs(found[0]! - 20)).toBeLessThanOrEqual(2);
  expect(Math.abs(found[1]! - 40)).toBeLessThanOrEqual(2);
});

it('does not cut a talk about one thing, or a short one', () => {
  expect(partsOf(sentencesOfText(about(ROOTS, 12).join(' ')))).toEqual([]);
  expect(partsOf([])).toEqual([]);
  expect(boundariesOf(['...', '?!', '7'])).toEqual([]);
});

it('names parts by what is said in them, whole words only', () => {
  const parts = partsOf(sentencesOfText([...about(ROOTS, 20), ...about(MONEY, 20)].join(' ')));
  expect(parts).toHaveLength(2);
  expect(parts[0]!.sentence).toBe(0);
  for (const { title } of parts) expect(title).toMatch(/^\p{Lu}[\p{L} ]+$/u);
});

/** Worked by hand from the definitions in Beeferman et al. 1999 and Pevzner and Hearst 2002. */
describe('what is wrong with a cutting', () => {
  it('nothing where both are the same', () => {
    expect([pk([4, 8], [4, 8], 12), windowDiff([4, 8], [4, 8], 12)]).toEqual([0, 0]);
  });
  it('each window that is cut in one and not in the other', () => {
    // Twelve sentences, window 3, nine windows; the boundary at 6 is in windows 3, 4 and 5.
    expect(pk([6], [], 12)).toBeCloseTo(3 / 9);
    expect(windowDiff([6], [5, 6], 12)).toBeGreaterThan(pk([6], [5, 6], 12));
  });
});

it('names a part by what is announced, else by what is said there and not elsewhere', () => {
  const water = Array.from({ length: 12 }, (_, i) => `Roots and water and gravity in the ground, case ${i}.`);
  const money = Array.from({ length: 12 }, (_, i) => `The budget pays for water and stakes, bill ${i}.`);
  const parts = partsOf(
    sentencesOfText([...water, 'Now let us turn to the budget of the school.', ...money].join(' ')),
  );
  expect(parts[0]!.title.toLowerCase()).toContain('roots');
  expect(parts[0]!.title.toLowerCase()).not.toContain('water and');
  expect(parts.at(-1)!.title).toBe('The budget of the school');
});
