import { barsOf } from '@immeld/core/audio/peaks';
import type { FileProgress } from '../recognition/transcribeFile';

/** Of less than this share done, nobody can say how long the rest takes. */
const MIN_SHARE = 0.02;
/** Bars of a strip that is still growing. */
const MAX_STRIP = 1200;

/** How far a recognition is, as long as the server lives. */
export class JobProgress {
  /** From 0 to 100; null while the length of the sound is not known. */
  percent: number | null = null;
  secondsLeft: number | null = null;
  latestWords = '';
  /** Passages that can be read already. */
  passages = 0;
  /** What is read before the whole is done, saved one after the other. */
  drafts: Promise<void> = Promise.resolve();
  private workedMs = 0;
  /** Since when it works; null while it is held. */
  private since: number | null = Date.now();

  /** Pauses do not count as work. */
  hold(): void {
    if (this.since !== null) this.workedMs += Date.now() - this.since;
    this.since = null;
  }

  goOn(): void {
    this.since = Date.now();
  }

  hear({ processedMs, durationMs, latestWords }: FileProgress): void {
    this.latestWords = latestWords;
    if (!durationMs) return;
    const share = Math.min(0.99, processedMs / durationMs);
    this.percent = Math.round(share * 1000) / 10;
    const seconds = (this.workedMs + (this.since === null ? 0 : Date.now() - this.since)) / 1000;
    this.secondsLeft = share > MIN_SHARE ? Math.ceil((seconds * (1 - share)) / share) : null;
  }
}

/** The strip of a sound of which only a share, from 0 to 1, is known: the rest is still flat. */
export function peaksSoFar(peaks: readonly number[], share: number): number[] {
  const whole = Math.round(peaks.length / Math.min(1, Math.max(share, 0.01)));
  return barsOf([...peaks, ...new Array<number>(whole - peaks.length).fill(0)], Math.min(whole, MAX_STRIP));
}
