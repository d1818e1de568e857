/** The better model takes so much of a second for a second of sound (docs/benchmarks.md). */
const SHARE = 0.12;
const MINUTE_MS = 60_000;

/** How long the better model works on so much sound: "3 min", "2 h". At least a minute. */
export function workInWords(soundMs: number): string {
  const minutes = Math.max(1, Math.round((soundMs * SHARE) / MINUTE_MS));
  return minutes < 90 ? `${minutes} min` : `${Math.round(minutes / 60)} h`;
}
