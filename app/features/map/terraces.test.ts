import type { TopicMap } from '@immeld/core/contract/templates';
import { type TerraceLayout, layoutOf, linesOf, neighbour, terracesOf } from './terraces';

/** Every sign 7 px wide. */
const measure = (text: string) => text.length * 7;
const long =
  'The limes along the quay were planted in pits of four hundred litres, and the roots met the wall after nine years.';
const map: TopicMap = {
  title: 'Trees in towns',
  parts: [
    {
      title: 'Soil and pits',
      startMs: 0,
      points: [
        { text: 'Roots need air.', startMs: 9000 },
        { text: long, startMs: 1000 },
      ],
    },
    { title: 'Water', startMs: 60_000, points: [{ text: 'A lime drinks.', startMs: 61_000 }] },
    { title: 'Warnings', startMs: 90_000, points: [] },
  ],
  terms: [
    { text: 'lime', saidMs: [1000, 61_000] },
    { text: 'root', saidMs: [9000, 95_000] },
  ],
  durationMs: 100_000,
  peaks: [10, 20],
};
const none = new Set<string>();
const laid = (roomWidth: number, folded: ReadonlySet<string> = none, of = map): TerraceLayout =>
  layoutOf({ map: of, folded, roomWidth, measure });

describe('a terrace map', () => {
  it.each([358, 1200])('says every topic once, and none lies on another or outside, in %s px', (room) => {
    const { topics, width, height } = laid(room);
    expect(topics.map((t) => t.key)).toEqual(['0', '0.0', '0.1', '1', '1.0', '2']);
    for (const a of topics) {
      expect(a.x >= 0 && a.y >= 0 && a.x + a.width <= width && a.y + a.height <= height).toBe(true);
      for (const b of topics.filter((o) => o.key !== a.key)) {
        const isApart = a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;
        expect({ a: a.key, b: b.key, isApart }).toEqual({ a: a.key, b: b.key, isApart: true });
      }
    }
  });

  it('has its points in the order of time, and ends of parts that meet', () => {
    const [soil, water, warnings] = terracesOf(map);
    expect(soil!.points.map((p) => p.startMs)).toEqual([1000, 9000]);
    expect([soil!.endMs, water!.endMs, warnings!.endMs]).toEqual([60_000, 90_000, 100_000]);
  });

  it('is the wider the longer a part is, and falls by a step from part to part', () => {
    const { strip, edge } = laid(1200);
    const [soil, water, warnings] = strip!.spans.map((s) => s.width);
    expect(soil! > water! && water! > warnings!).toBe(true);
    const grounds = [...edge.matchAll(/[ML][\d.]+ ([\d.]+)/g)].map((m) => Number(m[1]));
    expect(grounds[0]! < grounds[1]! && grounds[1]! < grounds[2]!).toBe(true);
  });

  it('draws the ground of a part as wide as it is long on a phone', () => {
    const widths = [...laid(358).edge.matchAll(/M([\d.]+) [\d.]+H([\d.]+)/g)].map((m) => Number(m[2]) - Number(m[1]));
    expect(widths[1]! / widths[0]!).toBeCloseTo(0.5);
  });

  it('has a knot on its thread for each time a term is said, in the order of time', () => {
    for (const { threads, strip } of [laid(1200), laid(358)]) {
      expect(threads.map((t) => t.knots.length)).toEqual([2, 2]);
      for (const { knots } of threads) {
        const [first, second] = knots.map((k) => (strip ? k.x : k.y));
        expect(first!).toBeLessThan(second!);
      }
    }
    const [, water] = laid(1200).strip!.spans;
    const { x } = laid(1200).threads[0]!.knots[1]!;
    expect(x > water!.x && x < water!.x + water!.width).toBe(true);
  });

  it('folds the points of a part away and says how many', () => {
    const { topics } = laid(1200, new Set(['0']));
    expect(topics.map((t) => t.key)).toEqual(['0', '1', '1.0', '2']);
    expect(topics.map((t) => t.folded)).toEqual([2, 0, null, null]);
  });

  it('cuts long texts after a whole word', () => {
    const lines = linesOf(`${long} ${long}`, 'point', 170, measure);
    expect(lines).toHaveLength(6);
    expect(lines.at(-1)).toMatch(/\w…$/);
    for (const line of lines) expect(measure(line)).toBeLessThanOrEqual(170);
    expect(`${long} ${long}`.startsWith(lines.join(' ').replace(/…$/, ''))).toBe(true);
  });

  it('is walked by the keys of a tree', () => {
    const layout = laid(1200);
    const from = (key: string, pressed: string) => neighbour(layout, key, pressed);
    expect([from('0', 'ArrowDown'), from('0.1', 'ArrowDown'), from('2', 'ArrowDown')]).toEqual(['0.0', '1', null]);
    expect([from('1', 'ArrowUp'), from('0', 'ArrowUp')]).toEqual(['0.1', null]);
    expect([from('0', 'ArrowRight'), from('2', 'ArrowRight'), from('0.1', 'ArrowLeft')]).toEqual(['0.0', null, '0']);
    expect([from('1', 'Home'), from('0', 'End'), from('0', 'a'), from('9', 'End')]).toEqual(['0', '2', null, null]);
  });

  it('of a talk without parts is one terrace under the title of the recording, without threads', () => {
    const short: TopicMap = { ...map, title: 'Memo', parts: [{ ...map.parts[0]!, title: null }], terms: [] };
    const { topics, threads } = laid(1200, none, short);
    expect(topics.map((t) => t.text)).toEqual(['Memo', long, 'Roots need air.']);
    expect(threads).toEqual([]);
  });
});
