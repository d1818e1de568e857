import { WHOLE, inWindow, windowAround } from './stripWindow';

it('shows the whole unless it is asked closer', () => {
  expect(windowAround(WHOLE, 0.7, 1)).toBe(WHOLE);
  expect(windowAround({ from: 0.5, to: 0.75 }, 0.7, 1)).toEqual(WHOLE);
});

it('stays while the place is in it, and moves on when it is not', () => {
  const shown = windowAround(WHOLE, 0.5, 4);
  expect(shown.to - shown.from).toBeCloseTo(0.25);
  expect(shown.from).toBeLessThan(0.5);
  expect(windowAround(shown, 0.6, 4)).toBe(shown);
  const next = windowAround(shown, 0.9, 4);
  expect(next).toEqual({ from: 0.75, to: 1 });
  expect(windowAround(next, 0, 4)).toEqual({ from: 0, to: 0.25 });
});

it('cuts what it shows at its edges', () => {
  const peaks = Array.from({ length: 100 }, (_, i) => i);
  const mark = (at: number) => ({ at, shape: 'circle' as const, tone: 'rowan' as const });
  const seen = inWindow(
    { from: 0.5, to: 0.75 },
    {
      peaks,
      turns: [
        { speaker: 0, from: 0, to: 0.6 },
        { speaker: 1, from: 0.6, to: 0.7 },
        { speaker: 0, from: 0.8, to: 1 },
      ],
      marks: [mark(0.1), mark(0.625)],
      parts: [0.5, 0.9],
      played: 0.55,
    },
  );
  expect(seen.peaks).toEqual(peaks.slice(50, 75));
  expect(seen.turns.map((t) => [t.speaker, Math.round(t.from * 100), Math.round(t.to * 100)])).toEqual([
    [0, 0, 40],
    [1, 40, 80],
  ]);
  expect(seen.marks.map((m) => m.at)).toEqual([0.5]);
  expect(seen.parts).toEqual([0]);
  expect(seen.played).toBeCloseTo(0.2);
});
