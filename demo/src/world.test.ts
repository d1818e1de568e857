import path from 'node:path';
import { loadWorld, startOf, worldToday } from './world';

const world = loadWorld(path.join(__dirname, '..', 'world'));

test.each([
  ['in the small hours', new Date(2026, 10, 24, 1, 40), '2026-11-23'],
  ['between two memos of the morning', new Date(2026, 10, 24, 7, 40), '2026-11-23'],
  ['at noon', new Date(2026, 10, 24, 12, 0), '2026-11-24'],
  ['just after a new year has begun', new Date(2027, 0, 1, 0, 1), '2026-12-31'],
])('nothing of the demo day lies in the future %s', (_, now, expected) => {
  const today = worldToday(world, now);
  const starts = world.map((s) => startOf(s, today)).sort();
  expect(starts.at(-1)!.slice(0, 10)).toBe(expected);
  for (const start of starts) expect(new Date(start).getTime()).toBeLessThanOrEqual(now.getTime());
});

test('days before today are counted over the end of a month', () => {
  const letter = world.find((s) => s.id === 'letter')!;
  expect(startOf(letter, new Date(2026, 2, 2))).toBe('2026-02-27T11:05:00');
});
