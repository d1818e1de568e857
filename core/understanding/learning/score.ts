import { alike } from '../../language/alike';

export type Scored = { text: string; span: [number, number] | null };
export type Pair<W, F> = { wanted: W; found: F; likeness: number };

const touch = (a: Scored['span'], b: Scored['span']): boolean =>
  Boolean(a && b && Math.min(a[1], b[1]) - Math.max(a[0], b[0]) > 0);

/**
 * What was found beside what was wanted, one to one, likest first: their quotes touch, and the Dice coefficient of their
 * wordings is at least `least`.
 */
export function pairUp<W extends Scored, F extends Scored>(
  wanted: readonly W[],
  found: readonly F[],
  least: number,
): Pair<W, F>[] {
  const all = wanted
    .flatMap((w) => found.map((f) => ({ wanted: w, found: f, likeness: alike(w.text, f.text) })))
    .filter((p) => p.likeness >= least && touch(p.wanted.span, p.found.span))
    .sort((a, b) => b.likeness - a.likeness);
  const used = new Set<unknown>();
  return all.filter((p) => {
    if (used.has(p.wanted) || used.has(p.found)) return false;
    used.add(p.wanted).add(p.found);
    return true;
  });
}
