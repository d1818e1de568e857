import { type Pause, pauseAt } from '@immeld/core/transcript/pauses';
import type { Cleaning } from '@immeld/core/audio/cleaning/cleaner';
import { useSyncExternalStore } from 'react';
import { CleanedPlaying } from './cleanedPlaying';
import { Listeners } from '../../state/listeners';

export type PlayerState = {
  timeMs: number;
  durationMs: number | null;
  isPlaying: boolean;
  rate: number;
  problem: string | null;
  /** Whether a stretch is played again and again. */
  isRepeating: boolean;
};

export const RATES = [0.5, 0.75, 1, 1.2, 1.4, 1.6, 2, 2.5, 3];

/** Plays one recording; tells its listeners the time at every frame while it plays. Pitch is kept at every speed. */
export class SoundPlayer {
  private readonly audio: HTMLAudioElement;
  private readonly cleaned: CleanedPlaying;
  private readonly listeners = new Listeners();
  private state: PlayerState;
  private frame = 0;
  private stopAtMs = Infinity;
  private repeated: { fromMs: number; toMs: number } | null = null;
  private pauses: readonly Pause[] = [];

  constructor(address: string, durationMs: number | null) {
    this.state = { timeMs: 0, durationMs, isPlaying: false, rate: 1, problem: null, isRepeating: false };
    this.audio = new Audio();
    this.cleaned = new CleanedPlaying(this.audio);
    this.audio.preload = 'metadata';
    this.audio.src = address;
    this.audio.preservesPitch = true;
    this.audio.addEventListener('play', () => this.onPlay());
    this.audio.addEventListener('pause', () => this.update({ isPlaying: false }));
    this.audio.addEventListener('ended', () => this.update({ isPlaying: false }));
    this.audio.addEventListener('seeked', () => this.update({ timeMs: this.audio.currentTime * 1000 }));
    this.audio.addEventListener('error', () =>
      this.update({ isPlaying: false, problem: 'This browser cannot play the audio. The text is complete.' }),
    );
  }

  getState = (): PlayerState => this.state;

  readonly subscribe = this.listeners.subscribe;

  /** Plays a stretch and stops after it. */
  playSpan(fromMs: number, toMs: number): void {
    this.seek(fromMs, true);
    this.stopAtMs = toMs;
  }

  /** Plays a stretch again and again, until null is given or another place is chosen. */
  repeat(span: { fromMs: number; toMs: number } | null): void {
    if (span) this.seek(span.fromMs, true);
    this.repeated = span;
    this.update({ isRepeating: span !== null });
  }

  toggle(): void {
    this.stopAtMs = Infinity;
    if (this.audio.paused) void this.play();
    else this.audio.pause();
  }

  async play(): Promise<void> {
    try {
      await this.audio.play();
    } catch (error) {
      if (error instanceof DOMException && error.name === 'AbortError') return;
      this.update({ problem: 'This browser cannot play the audio. The text is complete.' });
    }
  }

  /** Goes to a time; with `andPlay` it plays on from there. */
  seek(timeMs: number, andPlay = false): void {
    const most = this.state.durationMs ?? Infinity;
    const target = Math.min(Math.max(0, timeMs), most);
    this.stopAtMs = Infinity;
    if (this.repeated && (target < this.repeated.fromMs || target > this.repeated.toMs)) this.repeat(null);
    this.audio.currentTime = target / 1000;
    this.update({ timeMs: target });
    if (andPlay) void this.play();
  }

  /** From now on these stretches are left out while playing; none to hear everything. */
  leaveOut(pauses: readonly Pause[]): void {
    this.pauses = pauses;
  }

  /** How the sound is cleaned while it plays. */
  async clean(cleaning: Cleaning): Promise<void> {
    try {
      await this.cleaned.set(cleaning);
    } catch {
      this.update({ problem: 'This browser cannot clean up the audio during playback. You hear the original.' });
    }
  }

  skip(byMs: number): void {
    this.seek(this.state.timeMs + byMs);
  }

  setRate(rate: number): void {
    this.audio.playbackRate = rate;
    this.update({ rate });
  }

  close(): void {
    cancelAnimationFrame(this.frame);
    this.listeners.clear();
    this.audio.pause();
    this.audio.removeAttribute('src');
    this.audio.load();
    this.cleaned.close();
  }

  private onPlay(): void {
    this.update({ isPlaying: true, problem: null });
    this.cleaned.resume();
    const tick = () => {
      const timeMs = this.audio.currentTime * 1000;
      this.update({ timeMs });
      if (timeMs >= this.stopAtMs) this.audio.pause();
      if (this.repeated && timeMs >= this.repeated.toMs) this.audio.currentTime = this.repeated.fromMs / 1000;
      const pause = pauseAt(this.pauses, timeMs);
      if (pause) this.audio.currentTime = pause.endMs / 1000;
      if (!this.audio.paused) this.frame = requestAnimationFrame(tick);
    };
    cancelAnimationFrame(this.frame);
    this.frame = requestAnimationFrame(tick);
  }

  private update(part: Partial<PlayerState>): void {
    this.state = { ...this.state, ...part };
    this.listeners.tell();
  }
}

/** A value read off the player; the component is drawn again only when it changes. */
export function usePlayer<T>(player: SoundPlayer, read: (state: PlayerState) => T): T {
  return useSyncExternalStore(player.subscribe, () => read(player.getState()));
}
