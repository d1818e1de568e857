/** A recognition that waits or runs, as the order looks at it. */
export type Candidate = {
  /** Length of its sound in milliseconds, as far as it is known. */
  soundMs: number;
  /** How much of it is done, from 0 to 1. */
  doneShare: number;
  waitedMs: number;
  /** When a person moved it to the front, in milliseconds since 1970; null where nobody did. */
  frontAt: number | null;
};

/** A millisecond of waiting counts for so many of sound, so that a long sound is not put off for ever. */
const AGEING = 2;
/** Bytes of a sound whose length is not known count as 64 kbit/s. Common practice, no source. */
const MS_PER_BYTE = 1 / 8;
/** What is shorter may be done before the rest of something long that runs already. */
const SHORT_MS = 10 * 60_000;
/** The rest of what runs is at least so many times as long as what is done before it. */
const TIMES_LONGER = 4;
const MIN_REST_MS = 60_000;

/** Length of a sound, guessed from its size where nobody has said it. */
export const soundLength = ({ durationMs, sizeBytes }: { durationMs: number | null; sizeBytes: number }): number =>
  durationMs ?? sizeBytes * MS_PER_BYTE;

export const restOf = ({ soundMs, doneShare }: Candidate): number => soundMs * (1 - doneShare);

const rankOf = (candidate: Candidate): number => restOf(candidate) - AGEING * candidate.waitedMs;

/**
 * Which of two comes first (negative: the first): what a person moved to the front, the latest first, then what has
 * least left to do, less twice the time that it has waited.
 * Method: shortest remaining processing time with ageing (a text book's scheduling, no single source).
 */
export function byTurn(a: Candidate, b: Candidate): number {
  if (a.frontAt !== b.frontAt) return (b.frontAt ?? -Infinity) - (a.frontAt ?? -Infinity);
  return rankOf(a) - rankOf(b);
}

/** Whether what runs is to pause for what waits. */
export function yieldsTo(running: Candidate, waiting: Candidate): boolean {
  if (running.frontAt !== null && (waiting.frontAt ?? 0) <= running.frontAt) return false;
  if (waiting.frontAt !== null) return true;
  const rest = restOf(running);
  return (
    restOf(waiting) <= SHORT_MS &&
    rest >= MIN_REST_MS &&
    rest >= TIMES_LONGER * restOf(waiting) &&
    rankOf(waiting) < rankOf(running)
  );
}
