/** @jest-environment node */
import type { Line, MadeSection } from '@immeld/core/contract/templates';
import { firstLines } from './firstLines';

const group = (name: string, count: number): MadeSection['groups'][number] => ({
  name,
  lines: Array.from({ length: count }, (_, i) => ({ text: `${name} ${i}` }) as Line),
});
const groups = [group('a', 3), group('b', 0), group('c', 4), group('d', 2)];
const seen = (most: number) => firstLines(groups, most).groups.map((g) => `${g.name}${g.lines.length}`);

it.each([
  [0, ['b0'], 9],
  [2, ['a2', 'b0'], 7],
  [3, ['a3', 'b0'], 6],
  [5, ['a3', 'b0', 'c2'], 4],
  [8, ['a3', 'b0', 'c4', 'd1'], 1],
  [9, ['a3', 'b0', 'c4', 'd2'], 0],
  [100, ['a3', 'b0', 'c4', 'd2'], 0],
])('of nine lines the first %d', (most, expected, left) => {
  expect(seen(most)).toEqual(expected);
  expect(firstLines(groups, most).left).toBe(left);
});
