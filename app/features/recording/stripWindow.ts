import type { StripMark, StripTurn } from '../../ui/strip';

/** The part of a sound that the strip shows, as shares of the whole. */
export type Window = { from: number; to: number };
export const WHOLE: Window = { from: 0, to: 1 };

/** Where the place of the sound stands in a window that was just moved to it. */
const LEAD = 0.15;

/** The same window while the place is in it and its length is right; else one that shows the place near its beginning. */
export function windowAround(shown: Window, played: number, zoom: number): Window {
  if (zoom <= 1) return shown.from === 0 && shown.to === 1 ? shown : WHOLE;
  const length = 1 / zoom;
  const isRight = Math.abs(shown.to - shown.from - length) < 1e-9;
  if (isRight && played >= shown.from && played <= shown.to) return shown;
  const from = Math.min(Math.max(0, played - LEAD * length), 1 - length);
  return { from, to: from + length };
}

type Seen = {
  peaks: readonly number[];
  turns: readonly StripTurn[];
  marks: readonly StripMark[];
  parts: readonly number[];
  played: number;
};

/** What a window shows, its places as shares of the window. */
export function inWindow({ from, to }: Window, { peaks, turns, marks, parts, played }: Seen): Seen {
  const place = (share: number) => (share - from) / (to - from);
  const isIn = (share: number) => share >= from && share <= to;
  return {
    peaks: peaks.slice(Math.floor(from * peaks.length), Math.ceil(to * peaks.length)),
    turns: turns
      .filter((t) => t.to > from && t.from < to)
      .map((t) => ({ ...t, from: Math.max(0, place(t.from)), to: Math.min(1, place(t.to)) })),
    marks: marks.filter((m) => isIn(m.at)).map((m) => ({ ...m, at: place(m.at) })),
    parts: parts.filter(isIn).map(place),
    played: Math.min(1, Math.max(0, place(played))),
  };
}
