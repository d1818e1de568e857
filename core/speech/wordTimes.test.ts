import { snapToPauses, alignTokens } from './wordTimes';

/** A row of attention with its weight around one frame. */
const peakAt = (frame: number, frames: number) =>
  Float32Array.from({ length: frames }, (_, i) => Math.max(0, 1 - Math.abs(i - frame) / 3));

describe('word times', () => {
  it('puts each token where it is attended to', () => {
    const frames = alignTokens([peakAt(5, 40), peakAt(20, 40), peakAt(33, 40)], () => true);
    expect(frames[0]!.first).toBe(0);
    expect(frames[0]!.last).toBeGreaterThanOrEqual(5);
    expect(frames[1]!.first).toBeGreaterThan(5);
    expect(frames[1]!.first).toBeLessThanOrEqual(20);
    expect(frames[2]!.first).toBeGreaterThan(20);
    expect(frames[2]!.first).toBeLessThanOrEqual(33);
  });

  it('never goes back in time', () => {
    const frames = alignTokens([peakAt(30, 40), peakAt(10, 40), peakAt(35, 40)], () => true);
    for (let i = 1; i < frames.length; i++) expect(frames[i]!.first).toBeGreaterThanOrEqual(frames[i - 1]!.first);
  });

  it('keeps out of frames without speech', () => {
    const inSpeech = (frame: number) => frame < 12 || frame >= 28;
    const frames = alignTokens([peakAt(5, 40), peakAt(20, 40), peakAt(33, 40)], inSpeech);
    for (const { first, last } of frames) {
      expect(inSpeech(first)).toBe(true);
      expect(inSpeech(last)).toBe(true);
    }
  });

  it('uses all frames when no speech was detected, and copes with nothing', () => {
    expect(alignTokens([peakAt(2, 6)], () => false)).toHaveLength(1);
    expect(alignTokens([], () => true)).toEqual([]);
  });
});

describe('a word beside a pause', () => {
  const voiced =
    (...spans: [number, number][]) =>
    (frame: number) =>
      spans.some(([a, b]) => frame >= a && frame <= b);
  it('is the longer part of what was given to it', () => {
    expect(snapToPauses({ first: 9, last: 60 }, voiced([0, 10], [40, 80]))).toEqual({ first: 40, last: 60 });
    expect(snapToPauses({ first: 0, last: 41 }, voiced([0, 10], [40, 80]))).toEqual({ first: 0, last: 10 });
  });
  it('keeps a short silence, as before a plosive, and a word without any speech', () => {
    expect(snapToPauses({ first: 2, last: 20 }, voiced([0, 8], [14, 30]))).toEqual({ first: 2, last: 20 });
    expect(snapToPauses({ first: 2, last: 20 }, voiced())).toEqual({ first: 2, last: 20 });
  });
});
