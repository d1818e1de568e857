import fs from 'node:fs';
import path from 'node:path';
import { learnAll } from './learning/learn';
import { lessonOf } from './learning/learnTodos';
import { pairUp } from './learning/score';
import { readTalkFile } from './learning/talk';
import { type Example, probabilities, quantised, trainLinear } from './linear';
import { packModel, unpackModel } from './model';

const talk = (hand: string) =>
  readTalkFile(fs.readFileSync(path.join(__dirname, '..', '..', 'data', 'talk', `${hand}.jsonl`), 'utf8'));

/** Two classes told apart by one word, with a word of no meaning beside it. */
const examples = (): Example[] =>
  Array.from({ length: 60 }, (_, i) => ({
    features: ['bias', i % 2 ? 'call' : 'rain', `filler${i % 5}`],
    label: i % 2,
  }));

test('a classifier learns what tells two classes apart, and keeps it as bytes', () => {
  const model = quantised(trainLinear(examples(), 2, { bits: 8 }));
  expect(probabilities(model, ['bias', 'call', 'filler9'])[1]).toBeGreaterThan(0.8);
  expect(probabilities(model, ['bias', 'rain', 'filler9'])[1]).toBeLessThan(0.2);
  const p = probabilities(model, ['never', 'seen']);
  expect(p[0]! + p[1]!).toBeCloseTo(1, 9);
});

test('the same examples and seed give the same weights, another seed gives others', () => {
  const learn = (seed: number) => [...trainLinear(examples(), 2, { bits: 6, seed, epochs: 3 }).weights];
  expect(learn(1)).toEqual(learn(1));
  expect(learn(2)).not.toEqual(learn(1));
});

test('what is met too seldom is not learned', () => {
  const rare: Example[] = [...examples(), { features: ['once'], label: 1 }];
  const model = trainLinear(rare, 2, { bits: 12, minCount: 3 });
  expect([...probabilities(model, ['once'])]).toEqual([0.5, 0.5]);
});

describe('learning again from a part of the labelled talk', () => {
  const part = [
    ...talk('A')
      .filter((i) => i.kind === 'memo')
      .slice(0, 8),
    ...talk('C')
      .filter((i) => i.kind === 'dialogue')
      .slice(0, 1),
  ];
  const learned = () => packModel(learnAll(part.map(lessonOf)));

  test('gives the same file, and the file gives the same model', () => {
    const [first, second] = [learned(), learned()];
    expect(Buffer.compare(first, second)).toBe(0);
    expect(Buffer.compare(packModel(unpackModel(first)), first)).toBe(0);
  });
});

test('a file that is cut off, or of another kind, is refused', () => {
  expect(() => unpackModel(new Uint8Array(2))).toThrow(RangeError);
  const shipped = fs.readFileSync(path.join(__dirname, '..', '..', 'data', 'understanding', 'weights.bin'));
  expect(shipped.length).toBeLessThan(3_000_000);
  expect(() => unpackModel(new Uint8Array(shipped.subarray(0, shipped.length - 10)))).toThrow(/cut off/);
});

test('what was found is paired with what was wanted one to one, where the quotes touch', () => {
  const wanted = [
    { text: 'Call the nursery', span: [0, 4] as [number, number] },
    { text: 'Order stakes', span: [10, 12] as [number, number] },
  ];
  const found = [
    { text: 'Call the nursery', span: [20, 24] as [number, number] },
    { text: 'Call nursery', span: [3, 6] as [number, number] },
    { text: 'Call the nursery again', span: [0, 3] as [number, number] },
  ];
  const pairs = pairUp(wanted, found, 0.5);
  expect(pairs).toHaveLength(1);
  expect(pairs[0]!.found.span).toEqual([3, 6]);
  expect(pairUp(wanted, found, 1.1)).toEqual([]);
});
