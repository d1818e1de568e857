import { MIN_SIMILARITY, alike } from '../alike';

export type KnownTodo = {
  id: string;
  text: string;
  /** As it was found, where a person reworded it since; null for one that was written by hand. */
  foundText: string | null;
  startMs: number | null;
  /** Whether only its own person may change it: accepted, dropped, done or changed by hand. */
  isFixed: boolean;
};

/** Two of the same words within this time are one; a list may well name the same thing twice, minutes apart. */
const SAME_PLACE_MS = 15_000;

const apart = ({ k, f }: { k: KnownTodo; f: { startMs: number | null } }): number =>
  Math.abs((k.startMs ?? 0) - (f.startMs ?? 0));

/**
 * What to do with to-dos found anew beside those that are known: known again by wording and place, each once, likest
 * first. What a person has decided on stays as it is, and is not found a second time.
 * @returns what is new, what is still in pencil and changes, and what is in pencil and no longer found
 */
export function reconcile<F extends { text: string; startMs: number | null }>(
  known: readonly KnownTodo[],
  found: readonly F[],
): { add: F[]; update: { id: string; found: F }[]; remove: string[] } {
  const likeness = (k: KnownTodo, f: F): number => {
    const words = Math.max(alike(k.text, f.text), k.foundText === null ? 0 : alike(k.foundText, f.text));
    const isNear =
      k.startMs === null || f.startMs === null || Math.abs(k.startMs - f.startMs) <= SAME_PLACE_MS || words === 1;
    return isNear ? words : 0;
  };
  const pairs = known
    .flatMap((k) => found.map((f) => ({ k, f, like: likeness(k, f) })))
    .filter((p) => p.like >= MIN_SIMILARITY)
    .sort((a, b) => b.like - a.like || apart(a) - apart(b));
  const ofKnown = new Map<KnownTodo, F>();
  const taken = new Set<F>();
  for (const { k, f } of pairs) {
    if (ofKnown.has(k) || taken.has(f)) continue;
    ofKnown.set(k, f);
    taken.add(f);
  }
  const pencil = known.filter((k) => !k.isFixed);
  return {
    add: found.filter((f) => !taken.has(f)),
    update: pencil.flatMap((k) => (ofKnown.has(k) ? [{ id: k.id, found: ofKnown.get(k)! }] : [])),
    remove: pencil.filter((k) => !ofKnown.has(k)).map((k) => k.id),
  };
}
