/** The sound thread is heard ten times a second; after a silence of this length it is looked whether sound is missing. */
const LATE_MS = 3000;
/** Sound that came late comes in a burst. When a second passes in which less than this was made up for, it is over. */
const BURST_LOOK_MS = 1000;
const BURST_LEAST_MS = 250;
/** Less than this is the usual unevenness of what comes. */
const MISSING_LEAST_MS = 1000;
/** So much further went the clock on the wall than that of the page: the device slept, or its clock was put forward. */
const SLEPT_MS = 10_000;

/** Sound that never came, at a place in the sound that did. Both in milliseconds. */
export type Gap = { atMs: number; missingMs: number; why: 'stopped' | 'slept' };

/** What is said of a gap, in words. */
export function gapWords({ missingMs, why }: Gap): string {
  const seconds = Math.round(missingMs / 1000);
  if (why === 'stopped') return `${seconds} s are missing: the device put this page to sleep, or was too busy.`;
  const time = seconds < 120 ? `${seconds} s` : `${Math.round(seconds / 60)} min`;
  return `${time} may be missing: either the device was asleep, or its clock was set forward and nothing is missing.`;
}

/**
 * Finds out whether sound is missing. A page that was busy gets its sound late, but whole: nothing is said then. What
 * counts is how much sound came in the time that passed.
 */
export class GapFinder {
  private heardAt: number;
  private wallAt: number;
  private open: { from: number; atMs: number; soundMs: number; lookedAt: number; wasMissingMs: number } | null = null;

  /**
   * @param clock milliseconds that only go forward; on some devices they stand still while it sleeps
   * @param wall milliseconds of the device's clock, which may be changed
   */
  constructor(
    private readonly clock = () => performance.now(),
    private readonly wall = () => Date.now(),
  ) {
    this.heardAt = this.clock();
    this.wallAt = this.wall();
  }

  /** From now on sound is expected, for instance after a pause. */
  restart(): void {
    this.heardAt = this.clock();
    this.wallAt = this.wall();
    this.open = null;
  }

  /**
   * A piece of sound came.
   * @param atMs how much had come before it
   * @returns the gap that is certain by now
   */
  add(soundMs: number, atMs: number): Gap | null {
    const now = this.clock();
    const wall = this.wall();
    const passed = now - this.heardAt;
    const sleptMs = wall - this.wallAt - passed;
    if (sleptMs > SLEPT_MS) {
      this.restart();
      return { atMs, missingMs: sleptMs, why: 'slept' };
    }
    if (passed > LATE_MS) {
      this.open ??= { from: this.heardAt, atMs, soundMs: 0, lookedAt: now, wasMissingMs: 0 };
      Object.assign(this.open, { lookedAt: now, wasMissingMs: now - this.open.from - this.open.soundMs });
    }
    this.heardAt = now;
    this.wallAt = wall;
    if (!this.open) return null;
    this.open.soundMs += soundMs;
    const missingMs = now - this.open.from - this.open.soundMs;
    if (missingMs < MISSING_LEAST_MS) this.open = null;
    else if (now - this.open.lookedAt >= BURST_LOOK_MS) {
      if (this.open.wasMissingMs - missingMs < BURST_LEAST_MS) return this.settle();
      Object.assign(this.open, { lookedAt: now, wasMissingMs: missingMs });
    }
    return null;
  }

  /** No more sound is to come: the gap that was not certain yet. */
  settle(): Gap | null {
    const { open } = this;
    this.open = null;
    if (!open) return null;
    const missingMs = this.heardAt - open.from - open.soundMs;
    return missingMs < MISSING_LEAST_MS ? null : { atMs: open.atMs, missingMs, why: 'stopped' };
  }
}
