import fc from 'fast-check';
import { SpeechSegmenter, DEFAULT_SEGMENTATION_RULES, type Span } from './speechSegmenter';

const seconds = (n: number, p: number) => new Array<number>(Math.round(n / DEFAULT_SEGMENTATION_RULES.frame)).fill(p);
const cut = (probabilities: number[]): Span[] => {
  const cutter = new SpeechSegmenter();
  return [...cutter.push(probabilities), ...cutter.finish()];
};
const lengthOf = (span: Span) => (span.end - span.start) * DEFAULT_SEGMENTATION_RULES.frame;

describe('cutting into pieces', () => {
  it('finds nothing in silence', () => {
    expect(cut(seconds(180, 0.01))).toEqual([]);
  });

  it('passes a click over', () => {
    expect(cut([...seconds(1, 0), ...seconds(0.1, 0.9), ...seconds(1, 0)])).toEqual([]);
  });

  it('joins neighbours over short gaps and cuts at long ones', () => {
    const speech = [...seconds(3, 0.9), ...seconds(0.5, 0), ...seconds(3, 0.9), ...seconds(2, 0), ...seconds(3, 0.9)];
    const pieces = cut([...seconds(1, 0), ...speech, ...seconds(1, 0)]);
    expect(pieces.map((p) => Math.round(lengthOf(p)))).toEqual([7, 3]);
  });

  it('cuts speech without a pause where speech is least likely', () => {
    const dip = [...seconds(14, 0.95), ...seconds(0.1, 0.4), ...seconds(16, 0.95)];
    const [first] = cut(dip);
    expect(lengthOf(first!)).toBeGreaterThan(13.5);
    expect(lengthOf(first!)).toBeLessThan(14.5);
  });

  it('gives the same pieces whatever the portions in which the probabilities come', () => {
    const all = [...seconds(2, 0.9), ...seconds(1, 0), ...seconds(30, 0.8), ...seconds(0.6, 0), ...seconds(4, 0.9)];
    const cutter = new SpeechSegmenter();
    const spans: Span[] = [];
    for (let i = 0; i < all.length; i += 37) spans.push(...cutter.push(all.slice(i, i + 37)));
    spans.push(...cutter.finish());
    expect(spans).toEqual(cut(all));
  });

  it('keeps pieces in order, apart, short enough, and loses no certain speech', () => {
    const stretch = fc.tuple(fc.double({ min: 0.05, max: 30, noNaN: true }), fc.constantFrom(0, 0.2, 0.4, 0.7, 0.95));
    fc.assert(
      fc.property(fc.array(stretch, { minLength: 1, maxLength: 12 }), (stretches) => {
        const probabilities = stretches.flatMap(([length, p]) => seconds(length, p));
        const pieces = cut(probabilities);
        pieces.forEach((piece, i) => {
          expect(lengthOf(piece)).toBeLessThanOrEqual(30);
          if (i) expect(piece.start).toBeGreaterThanOrEqual(pieces[i - 1]!.end);
        });
        let run = 0;
        probabilities.forEach((p, frame) => {
          run = p >= DEFAULT_SEGMENTATION_RULES.on ? run + 1 : 0;
          const isSure = run * DEFAULT_SEGMENTATION_RULES.frame > DEFAULT_SEGMENTATION_RULES.shortestSpeech + 0.1;
          if (isSure) expect(pieces.some((s) => s.start <= frame && frame < s.end)).toBe(true);
        });
      }),
      { numRuns: 40 },
    );
  });
});
