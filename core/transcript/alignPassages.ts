import type { Passage } from './manuscript';
import { splitPassage } from './edit';

/** Passages `from` to before `to` of a text, and what stands in another one at the same time. */
export type AlignedTime<P extends Passage> = { from: number; to: number; others: P[] };

/**
 * Two texts of one sound side by side: the smallest groups of passages that cover the same time in both.
 * Every passage is in exactly one group, in order; where one text is silent, its side joins the group before.
 */
export function alignByTime<P extends Passage>(passages: readonly Passage[], others: readonly P[]): AlignedTime<P>[] {
  const groups: AlignedTime<P>[] = [];
  let at = 0;
  let other = 0;
  while (at < passages.length || other < others.length) {
    const group: AlignedTime<P> = { from: at, to: at, others: [] };
    let endMs = -Infinity;
    const nextStart = () => Math.min(passages[at]?.startMs ?? Infinity, others[other]?.startMs ?? Infinity);
    do {
      if ((passages[at]?.startMs ?? Infinity) <= (others[other]?.startMs ?? Infinity)) {
        endMs = Math.max(endMs, passages[at]!.endMs);
        group.to = ++at;
      } else {
        endMs = Math.max(endMs, others[other]!.endMs);
        group.others.push(others[other++]!);
      }
    } while (nextStart() < endMs);
    const before = groups.at(-1);
    const isOneSided = group.from === group.to || group.others.length === 0;
    const isBeforeOneSided = before && (before.from === before.to || before.others.length === 0);
    if (before && (isOneSided || isBeforeOneSided)) {
      before.to = group.to;
      before.others.push(...group.others);
    } else groups.push(group);
  }
  return groups;
}

/**
 * Words given to somebody: the passages are parted where the words begin and end.
 * @returns which passages give place, and what comes instead; null where no word lies between the times
 */
export function reassignRange<P extends Passage>(
  passages: readonly P[],
  { startMs, endMs }: { startMs: number; endMs: number },
  speaker: string | null,
): { at: number; count: number; added: P[] } | null {
  const isMeant = (word: { startMs: number }) => word.startMs >= startMs && word.startMs < endMs;
  const touched = passages.flatMap((p, i) => (p.words.some(isMeant) ? [i] : []));
  const [first, last] = [touched[0], touched.at(-1)];
  if (first === undefined || last === undefined) return null;
  const added = passages.slice(first, last + 1).flatMap((passage): P[] => {
    const from = passage.words.findIndex(isMeant);
    if (from < 0) return [passage];
    const parts: P[] = [];
    let rest = passage;
    if (from > 0) {
      const [before, after] = splitPassage(rest, from);
      parts.push(before);
      rest = after;
    }
    const count = rest.words.findLastIndex(isMeant) + 1;
    if (count < rest.words.length) {
      const [theirs, after] = splitPassage(rest, count);
      return [...parts, { ...theirs, speaker }, after];
    }
    return [...parts, { ...rest, speaker }];
  });
  return { at: first, count: last - first + 1, added };
}
