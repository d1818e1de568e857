import { partsOf } from '../language/parts';
import type { Sentence } from '../language/sentences';

type Heading = { kind: string; startMs: number; text: string };

/** Parts by one's own headings, else as they can be told from the words. */
export function ownPartsOf(
  sentences: readonly Sentence[],
  slips: readonly Heading[],
): { title: string; startMs: number }[] {
  const own = slips.filter((s) => s.kind === 'heading').sort((a, b) => a.startMs - b.startMs);
  if (own.length) return own.map((s) => ({ title: s.text, startMs: s.startMs }));
  return partsOf(sentences).map(({ title, startMs }) => ({ title, startMs }));
}

/** What was said within each part; what came before the first of one's own headings belongs to it. */
export function withinParts<T extends { startMs: number | null }>(
  items: readonly T[],
  parts: readonly { startMs: number }[],
): T[][] {
  return parts.map((part, i) => {
    const from = i === 0 ? -Infinity : part.startMs;
    const next = parts[i + 1];
    return items.filter(({ startMs }) => (startMs ?? 0) >= from && (!next || (startMs ?? 0) < next.startMs));
  });
}
