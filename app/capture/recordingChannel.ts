import { Listeners } from '../state/listeners';
import type { CaptureEngine } from './captureEngine';

/** What goes on in another tab. */
export type Elsewhere = { stage: 'recording' | 'paused'; elapsedMs: number };
export type Command = 'pause' | 'resume' | 'finish';
type Message = { type: 'now'; now: Elsewhere | null } | { type: 'do'; command: Command };

const TOLD_EVERY_MS = 1000;
/** A tab that has said nothing for so long is gone. */
const FORGOTTEN_AFTER_MS = 4000;

/** Tells the other tabs of this browser what is recorded here, and does here what they ask for. */
export class RecordingChannel {
  private now: Elsewhere | null = null;
  private readonly listeners = new Listeners();
  private readonly channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('immeld-recording');
  private timer: ReturnType<typeof setTimeout> | undefined;
  private toldAt = -Infinity;
  private told: string | null = null;

  constructor(private readonly engine: CaptureEngine) {
    if (!this.channel) return;
    this.channel.addEventListener('message', ({ data }: MessageEvent<Message>) => this.hear(data));
    engine.subscribe(() => this.tell());
  }

  readonly subscribe = this.listeners.subscribe;

  /** What another tab records; null where none does. */
  get elsewhere(): Elsewhere | null {
    return this.now;
  }

  /** Asks the tab that records. */
  ask(command: Command): void {
    this.channel?.postMessage({ type: 'do', command } satisfies Message);
  }

  close(): void {
    clearTimeout(this.timer);
    this.channel?.close();
  }

  private tell(): void {
    const { stage, elapsedMs } = this.engine.state;
    const now = stage === 'recording' || stage === 'paused' ? { stage, elapsedMs: Math.round(elapsedMs) } : null;
    const said = now?.stage ?? null;
    if (said === this.told && (now === null || performance.now() - this.toldAt < TOLD_EVERY_MS)) return;
    this.told = said;
    this.toldAt = performance.now();
    this.channel!.postMessage({ type: 'now', now } satisfies Message);
  }

  private hear(message: Message): void {
    if (message.type === 'do') {
      if (message.command === 'pause') this.engine.pause();
      else if (message.command === 'resume') this.engine.resume();
      else this.engine.finish();
      return;
    }
    this.set(message.now);
    clearTimeout(this.timer);
    // One that is paused hears nothing and tells nothing.
    if (message.now?.stage === 'recording') this.timer = setTimeout(() => this.set(null), FORGOTTEN_AFTER_MS);
  }

  private set(now: Elsewhere | null): void {
    this.now = now;
    this.listeners.tell();
  }
}
