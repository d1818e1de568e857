import fc from 'fast-check';
import { pauseAt, pausesOf, timeSavedBySkipping } from './pauses';

const word = (startMs: number, endMs: number) => ({ startMs, endMs });

describe('pauses', () => {
  const words = [word(3000, 3500), word(3600, 4000), word(9000, 9500)];

  it('are what lies between words, with a little silence left; the beginning and the end too', () => {
    expect(pausesOf(words, 1000, 20_000)).toEqual([
      { startMs: 0, endMs: 2800 },
      { startMs: 4200, endMs: 8800 },
      { startMs: 9700, endMs: 19_800 },
    ]);
    expect(timeSavedBySkipping(pausesOf(words, 1000, 20_000))).toBe(2800 + 4600 + 10_100);
    expect(pausesOf(words, 6000, null)).toEqual([]);
    expect(pausesOf([], 1000, 20_000)).toEqual([]);
  });

  it('hold no word, and are found at their times only', () => {
    const gaps = fc.array(fc.tuple(fc.nat(5000), fc.nat(800)), { maxLength: 30 });
    fc.assert(
      fc.property(gaps, fc.integer({ min: 500, max: 3000 }), (parts, threshold) => {
        let at = 0;
        const words = parts.map(([gap, length]) => {
          const startMs = at + gap;
          at = startMs + length;
          return word(startMs, at);
        });
        const pauses = pausesOf(words, threshold, at + 2000);
        for (const p of pauses) {
          expect(p.endMs).toBeGreaterThan(p.startMs);
          expect(words.some((w) => w.startMs < p.endMs && w.endMs > p.startMs)).toBe(false);
          expect(pauseAt(pauses, p.startMs)).toBe(p);
          expect(pauseAt(pauses, p.endMs)).not.toBe(p);
        }
        for (const w of words) expect(pauseAt(pauses, w.startMs)).toBeNull();
      }),
    );
  });
});
