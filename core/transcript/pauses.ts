export type Pause = { startMs: number; endMs: number };

/** So much silence stays on either side, so that no word is clipped and sentences stay apart. */
const KEPT_MS = 200;

/**
 * Stretches in which nothing is said, to be left out while listening.
 * @param spoken words and asides in the order of their beginnings
 * @param longerThanMs pauses up to this length stay as they are
 * @param durationMs length of the recording; null where it is not known: then its end is left as it is
 */
export function pausesOf(
  spoken: readonly { startMs: number; endMs: number }[],
  longerThanMs: number,
  durationMs: number | null,
): Pause[] {
  const pauses: Pause[] = [];
  let silentFrom = 0;
  const note = (until: number) => {
    if (until - silentFrom <= longerThanMs) return;
    const startMs = silentFrom === 0 ? 0 : silentFrom + KEPT_MS;
    const endMs = until - KEPT_MS;
    if (endMs > startMs) pauses.push({ startMs, endMs });
  };
  for (const { startMs, endMs } of spoken) {
    note(startMs);
    silentFrom = Math.max(silentFrom, endMs);
  }
  if (silentFrom > 0 && durationMs !== null) note(durationMs);
  return pauses;
}

/** Milliseconds that are saved by leaving these pauses out. */
export const timeSavedBySkipping = (pauses: readonly Pause[]): number =>
  pauses.reduce((sum, p) => sum + p.endMs - p.startMs, 0);

/** The pause in which a time lies, found by halving. */
export function pauseAt(pauses: readonly Pause[], timeMs: number): Pause | null {
  let low = 0;
  let high = pauses.length - 1;
  while (low <= high) {
    const middle = (low + high) >> 1;
    const pause = pauses[middle]!;
    if (timeMs < pause.startMs) high = middle - 1;
    else if (timeMs >= pause.endMs) low = middle + 1;
    else return pause;
  }
  return null;
}
