/** The words of a paragraph with their times. */
export type TimedWord = { startMs: number };

/** The word being said at a time, or -1 outside the paragraph. It stays lit through the pause after it. */
export function wordAt(words: readonly TimedWord[], timeMs: number, endMs: number): number {
  if (words.length === 0 || timeMs < words[0]!.startMs || timeMs >= endMs) return -1;
  let low = 0;
  let high = words.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (words[middle]!.startMs <= timeMs) low = middle;
    else high = middle - 1;
  }
  return low;
}
