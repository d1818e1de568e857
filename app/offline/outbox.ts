import type { Capture } from './captures';
import type { CaptureStore } from './captureStore';
import { NoRoom, Refusal, sendCapture } from './sender';

/** Waits between tries; the last one again and again, so that a server that is back after a day still gets all. */
const WAITS_MS = [1000, 2000, 4000, 8000, 15_000, 30_000];
const LOCK = 'immeld-outbox';
export const SYNC_TAG = 'immeld-outbox';

type OutboxOptions = {
  onProgress?: (id: string, sentBytes: number) => void;
  /** Runs the work where no other page or worker does it at the same time; false when another one does. */
  alone?: (work: () => Promise<void>) => Promise<boolean>;
  fetch?: typeof fetch;
};

async function withLock(work: () => Promise<void>): Promise<boolean> {
  if (!('locks' in navigator)) {
    await work();
    return true;
  }
  return navigator.locks.request(LOCK, { ifAvailable: true }, async (lock) => {
    if (lock) await work();
    return lock !== null;
  });
}

/** Sends what waits on this device, oldest first, one at a time, until nothing waits or the server is away. */
export class Outbox {
  private isRunning = false;
  private isCalled = false;
  private failures = 0;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor(
    private readonly store: CaptureStore,
    private readonly options: OutboxOptions = {},
  ) {}

  /** Goes to work now, whatever wait is running; resolves when it has done what it could. */
  async wake(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    if (this.isRunning) {
      this.isCalled = true;
      return;
    }
    this.isRunning = true;
    try {
      do {
        this.isCalled = false;
        await (this.options.alone ?? withLock)(() => this.sendAll());
      } while (this.isCalled);
    } finally {
      this.isRunning = false;
    }
    if ((await this.store.list()).some((c) => c.state === 'waiting')) this.tryLater();
  }

  stop(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
  }

  private tryLater(): void {
    const wait = WAITS_MS[Math.min(this.failures, WAITS_MS.length) - 1] ?? WAITS_MS[0]!;
    this.timer = setTimeout(() => void this.wake(), wait);
  }

  private async sendAll(): Promise<void> {
    const tried = new Set<string>();
    for (;;) {
      const next = (await this.store.list()).find((c) => c.state === 'waiting' && !tried.has(c.id));
      if (!next) return;
      tried.add(next.id);
      if (!(await this.sendOne(next))) return;
    }
  }

  /** @returns whether it is worth going on with the next one at once */
  private async sendOne({ id }: Capture): Promise<boolean> {
    try {
      await sendCapture(this.store, id, {
        onProgress: (sent) => this.options.onProgress?.(id, sent),
        ...(this.options.fetch ? { fetch: this.options.fetch } : {}),
      });
      this.failures = 0;
      return true;
    } catch (error) {
      const message = error instanceof Error ? error.message : String(error);
      if (error instanceof Refusal) {
        await this.store.change(id, { state: 'refused', problem: message });
        return true;
      }
      this.failures++;
      await this.store.change(id, { state: 'waiting', problem: message });
      return error instanceof NoRoom;
    }
  }
}
