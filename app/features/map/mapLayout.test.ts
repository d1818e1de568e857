import type { TopicMap } from '@immeld/core/contract/templates';
import { FOOT, type MapLayout, settingFor, layoutOf, linesOf, neighbour, treeOf } from './mapLayout';

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
        { text: long, startMs: 1000 },
        { text: 'Roots need air.', startMs: 9000 },
      ],
    },
    { title: 'Water', startMs: 60_000, points: [{ text: 'A lime drinks.', startMs: 61_000 }] },
    { title: 'Warnings', startMs: 90_000, points: [] },
  ],
};
const none = new Set<string>();
const WIDE = settingFor(1200);

const boxes = ({ topics }: MapLayout) =>
  topics.map((t) => ({
    key: t.key,
    left: t.x,
    right: t.x + t.width,
    top: t.y - t.lines.length * t.lineHeight,
    foot: t.y + FOOT,
  }));

describe('the map of topics', () => {
  it.each([358, 1200])('says every topic once, and none lies on another or outside, in %s px', (room) => {
    const layout = layoutOf(treeOf(map), none, settingFor(room), measure);
    expect(layout.topics.map((t) => t.key).sort()).toEqual(['', '0', '0.0', '0.1', '1', '1.0', '2']);
    expect(layout.twigs).toHaveLength(6);
    const all = boxes(layout);
    for (const a of all) {
      expect([a.left >= 0, a.top >= 0, a.right <= layout.width, a.foot <= layout.height]).toEqual([
        true,
        true,
        true,
        true,
      ]);
      for (const b of all.filter((o) => o.key !== a.key)) {
        const isApart = a.right <= b.left || b.right <= a.left || a.foot <= b.top || b.foot <= a.top;
        expect({ a: a.key, b: b.key, isApart }).toEqual({ a: a.key, b: b.key, isApart: true });
      }
    }
  });

  it('folds topics away and says how many', () => {
    const layout = layoutOf(treeOf(map), new Set(['0']), WIDE, measure);
    expect(layout.topics.map((t) => t.key)).not.toContain('0.0');
    expect(layout.topics.find((t) => t.key === '0')!.folded).toBe(2);
    expect(layout.topics.find((t) => t.key === '1')!.folded).toBe(0);
    expect(layout.topics.find((t) => t.key === '2')!.folded).toBeNull();
  });

  it('cuts long texts after a whole word', () => {
    const lines = linesOf(long, 'point', WIDE, measure);
    expect(lines).toHaveLength(WIDE.point.mostLines);
    expect(linesOf(`${long} ${long}`, 'point', WIDE, measure).at(-1)).toMatch(/\w…$/);
    for (const line of lines) expect(measure(line)).toBeLessThanOrEqual(WIDE.point.width);
    expect(long.startsWith(lines.join(' ').replace(/…$/, ''))).toBe(true);
  });

  it('is walked by arrows', () => {
    const layout = layoutOf(treeOf(map), none, WIDE, measure);
    expect(['ArrowRight', 'ArrowLeft', 'ArrowUp'].map((k) => neighbour(layout, '', k))).toEqual(['0', null, null]);
    expect(['ArrowDown', 'ArrowRight', 'Home'].map((k) => neighbour(layout, '0', k))).toEqual(['1', '0.0', '']);
    expect(['ArrowDown', 'ArrowLeft', 'ArrowRight', 'a'].map((k) => neighbour(layout, '0.1', k))).toEqual([
      '1.0',
      '0',
      null,
      null,
    ]);
  });

  it('of a talk about one thing has its points at the centre', () => {
    const short: TopicMap = { title: 'Memo', parts: [{ title: null, startMs: 0, points: map.parts[0]!.points }] };
    const layout = layoutOf(treeOf(short), none, WIDE, measure);
    expect(layout.topics.map((t) => [t.key, t.parent])).toEqual([
      ['', null],
      ['0', ''],
      ['1', ''],
    ]);
  });

  it('of nothing is its centre alone', () => {
    expect(layoutOf(treeOf({ title: 'Empty', parts: [] }), none, WIDE, measure).topics).toHaveLength(1);
  });
});
