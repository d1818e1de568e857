import type { Parsed } from './expression';

/** A curve to be drawn. Lengths are in the units of the sum itself. */
export type Plot = {
  /** What is drawn, as it was written. */
  label: string;
  /** Unbroken stretches of the curve, from left to right. */
  curves: [x: number, y: number][][];
  x: [from: number, to: number];
  y: [from: number, to: number];
  /** Where it is 0, from left to right; at most `MAX_NAMED`. */
  roots: number[];
  /** Where it turns, from left to right; at most `MAX_NAMED`. */
  extremes: { x: number; y: number; kind: 'highest' | 'lowest' }[];
};

/** Points of a curve. */
export const PLOT_POINTS = 1000;
/** A sine has more roots than anybody reads. */
export const MAX_NAMED = 7;
/** The first of these stretches around 0 in which something happens is drawn. */
const REACHES = [10, 100, 1000];
const HALVINGS = 60;
const GOLDEN = (Math.sqrt(5) - 1) / 2;
/** Shares of the height: beside the curve, and cut off at a pole. */
const ROOM = 0.08;
const OUTLIERS = 0.02;
/** What differs by less, in shares of the step, is the same place: a search for a top comes no nearer. */
const SAME = 1e-5;

type Curve = (x: number) => number;

/** A root between two values of different sign. Method: bisection (any text book on numerical analysis). */
function rootBetween(f: Curve, from: number, to: number): number {
  let [a, b] = [from, to];
  const isRising = f(b) > f(a);
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (a + b) / 2;
    if (f(middle) > 0 === isRising) b = middle;
    else a = middle;
  }
  return (a + b) / 2;
}

/** The highest place of a curve that rises and falls once. Method: golden section search (Kiefer 1953). */
function topBetween(f: Curve, from: number, to: number): number {
  let [a, b] = [from, to];
  for (let i = 0; i < HALVINGS; i++) {
    const [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
    if (f(c) > f(d)) b = d;
    else a = c;
  }
  return (a + b) / 2;
}

/** A number as near as a search comes to it, without what the search leaves behind: 1.5 for 1.4999999. */
const tidy = (value: number, step: number): number => {
  const digits = Math.max(0, Math.ceil(-Math.log10(step * SAME)));
  const rounded = Number(value.toFixed(Math.min(12, digits)));
  return Object.is(rounded, -0) ? 0 : rounded;
};

function placesOf(f: Curve, from: number, to: number): Pick<Plot, 'roots' | 'extremes'> {
  const step = (to - from) / PLOT_POINTS;
  const at = (i: number) => from + i * step;
  const values = Array.from({ length: PLOT_POINTS + 1 }, (_, i) => f(at(i)));
  const size = median(values.filter(Number.isFinite).map(Math.abs)) || 1;
  const roots: number[] = [];
  const extremes: Plot['extremes'] = [];
  for (let i = 0; i <= PLOT_POINTS; i++) {
    const [before, here, after] = [values[i - 1], values[i]!, values[i + 1]];
    if (here === 0) roots.push(at(i));
    else if (before !== undefined && before * here < 0) {
      const root = rootBetween(f, at(i - 1), at(i));
      // A pole changes its sign, too, and is no root.
      if (Math.abs(f(root)) < size * 1e-3) roots.push(tidy(root, step));
    }
    if (before === undefined || after === undefined) continue;
    const isTop = here > before && here >= after;
    const isBottom = here < before && here <= after;
    if (!isTop && !isBottom) continue;
    const x = tidy(topBetween(isTop ? f : (v) => -f(v), at(i - 1), at(i + 1)), step);
    const y = f(x);
    if (Number.isFinite(y) && Math.abs(y) < size * 1e6)
      extremes.push({ x, y: tidy(y, step), kind: isTop ? 'highest' : 'lowest' });
    // It touches 0 without crossing it.
    if (Math.abs(y) < SAME * size) roots.push(x);
  }
  const apart = roots
    .sort((a, b) => a - b)
    .filter((root, i, all) => i === 0 || root - all[i - 1]! > step / 2)
    .map((root) => tidy(root, step));
  return { roots: apart, extremes };
}

function median(values: number[]): number {
  return values.sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
}

/**
 * A sum with one free name as a curve, drawn where something happens, with its roots and the places where it turns.
 * Places are found among `PLOT_POINTS` values, so what happens between two of them is not seen.
 * @returns null where it has no value anywhere
 */
export function plotOf(parsed: Parsed, name: string, label: string): Plot | null {
  const f: Curve = (x) => parsed.at(name, x);
  let found: Pick<Plot, 'roots' | 'extremes'> = { roots: [], extremes: [] };
  let reach = REACHES[0]!;
  for (const tried of REACHES) {
    const places = placesOf(f, -tried, tried);
    if (places.roots.length + places.extremes.length === 0) continue;
    found = places;
    reach = tried;
    break;
  }
  const roots = nearest(found.roots, (x) => x);
  const extremes = nearest(found.extremes, (e) => e.x);
  const x = stretchAround([...roots, ...extremes.map((e) => e.x)], reach);
  const step = (x[1] - x[0]) / PLOT_POINTS;
  const points = Array.from({ length: PLOT_POINTS + 1 }, (_, i): [number, number] => {
    const px = x[0] + i * step;
    return [px, f(px)];
  });
  const heights = points.map(([, y]) => y).filter(Number.isFinite);
  if (heights.length === 0) return null;
  const y = heightOf(heights);
  return { label, curves: unbroken(points, y), x, y, roots, extremes };
}

/** The places nearest to 0, from left to right. */
const nearest = <T>(places: readonly T[], of: (place: T) => number): T[] =>
  [...places]
    .sort((a, b) => Math.abs(of(a)) - Math.abs(of(b)))
    .slice(0, MAX_NAMED)
    .sort((a, b) => of(a) - of(b));

function stretchAround(places: readonly number[], reach: number): [number, number] {
  if (places.length === 0) return [-reach, reach];
  const [from, to] = [Math.min(0, ...places), Math.max(0, ...places)];
  const room = Math.max((to - from) * 0.5, reach / 5);
  return [from - room, to + room];
}

/** What is far from all else, as beside a pole, is not drawn in full. 0 is always seen. */
function heightOf(heights: number[]): [number, number] {
  const sorted = [...heights].sort((a, b) => a - b);
  const share = (s: number) => sorted[Math.round((sorted.length - 1) * s)]!;
  const [low, high] = [Math.min(0, share(OUTLIERS)), Math.max(0, share(1 - OUTLIERS))];
  const room = (high - low || 1) * ROOM;
  return [low - room, high + room];
}

function unbroken(points: readonly [number, number][], [low, high]: [number, number]): [number, number][][] {
  const curves: [number, number][][] = [];
  let current: [number, number][] = [];
  const end = () => {
    if (current.length > 1) curves.push(current);
    current = [];
  };
  const tall = high - low;
  for (const [x, y] of points) {
    const last = current.at(-1);
    // From one edge to the other between two points: a pole.
    const isJump = last && Math.abs(y - last[1]) > tall && (y - low) * (last[1] - low) < 0;
    if (!Number.isFinite(y) || isJump) end();
    if (Number.isFinite(y)) current.push([x, Math.max(low - tall, Math.min(high + tall, y))]);
  }
  end();
  return curves;
}
