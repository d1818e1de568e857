import { type Ranked, rankOf } from './ranking';

const found: Ranked = { bm25: 5, kind: 'passage', ageDays: 400, isMarked: false };

describe('what stands further up', () => {
  it.each<[string, Partial<Ranked>]>([
    ['more of the words', { bm25: 6 }],
    ['a title', { kind: 'title' }],
    ['what is newer', { ageDays: 3 }],
    ['marked passages', { isMarked: true }],
  ])('%s', (_, better) => {
    expect(rankOf({ ...found, ...better })).toBeGreaterThan(rankOf(found));
  });

  it('is never decided by age alone against a much better match', () => {
    expect(rankOf({ ...found, bm25: 7 })).toBeGreaterThan(rankOf({ ...found, ageDays: 0 }));
  });

  it('treats a recording with a clock that runs ahead like one of today', () => {
    expect(rankOf({ ...found, ageDays: -90 })).toBe(rankOf({ ...found, ageDays: 0 }));
  });
});
