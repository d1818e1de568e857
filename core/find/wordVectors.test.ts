import { WordVectors, dot } from './wordVectors';

/** Words in a plane: two pairs that are alike, at right angles to each other, and a frequent word between them. */
const vectors = new WordVectors(
  ['the', 'tree', 'lime', 'water', 'rain'],
  new Int8Array([90, 90, 120, 10, 120, 20, 10, 120, 20, 120]),
  2,
);

it('knows the words nearest to one, closest first', () => {
  expect(vectors.alike('tree', 0.9, 5).map(([word]) => word)).toEqual(['lime']);
  expect(vectors.alike('tree', 0, 2).map(([word]) => word)).toEqual(['lime', 'the']);
  expect(vectors.alike('unheard', 0, 5)).toEqual([]);
});

it('brings sentences of like meaning together that share no word', () => {
  const [a, b, c] = [['tree'], ['lime'], ['rain']].map((words) => vectors.sentence(['the', ...words])!);
  expect(dot(a!, b!)).toBeGreaterThan(dot(a!, c!));
  expect(Math.hypot(...a!)).toBeCloseTo(1, 5);
});

it('has no vector for words that it does not know, and wants one for each word', () => {
  expect(vectors.sentence(['unheard', 'of'])).toBeNull();
  expect(() => new WordVectors(['one', 'two'], new Int8Array(3), 2)).toThrow(RangeError);
});
