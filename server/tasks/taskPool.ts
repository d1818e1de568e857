import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { Problem } from '@immeld/core/contract/problem';
import { projectRoot } from '../projectRoot';
import type { FromTaskWorker, Task, TaskResult } from './tasks';

type Waiting = {
  task: Task;
  limitMs: number;
  signal: AbortSignal | undefined;
  resolve: (result: unknown) => void;
  reject: (error: Error) => void;
};
type Slot = { worker: Worker | null; current: Waiting | null; timer: ReturnType<typeof setTimeout> | undefined };

export type PoolRules = {
  /** How many threads work at once. */
  size: number;
  /** After which a piece of work is ended, from when its thread has begun with it. */
  limitMs: number;
  /** Heap of a thread. */
  memoryMb: number;
  /** So much may wait; more is refused, so that nobody fills the server with work. */
  longestQueue: number;
};

/** A thread that is not there by then does not come. */
const MAX_START_MS = 60_000;

const workerFile = () => path.join(projectRoot(), 'server', 'dist', 'taskWorker.cjs');

/** Threads for work that would keep the server's own thread from answering others. Each piece has an end in time and memory. */
export class TaskPool {
  private readonly slots: Slot[];
  private readonly waiting: Waiting[] = [];

  constructor(private readonly rules: PoolRules) {
    this.slots = Array.from({ length: rules.size }, () => ({ worker: null, current: null, timer: undefined }));
  }

  /**
   * Does a piece of work beside the server's own thread.
   * @throws Problem where too much waits already, or it takes too long
   */
  run<T extends Task>(
    task: T,
    { signal, limitMs = this.rules.limitMs }: { signal?: AbortSignal; limitMs?: number } = {},
  ): Promise<TaskResult<T>> {
    if (this.waiting.length >= this.rules.longestQueue) {
      return Promise.reject(new Problem('too-many', 'The server is busy. Try again in a moment.'));
    }
    return new Promise((resolve, reject) => {
      this.waiting.push({ task, limitMs, signal, resolve: resolve as (result: unknown) => void, reject });
      this.fill();
    });
  }

  private fill(): void {
    for (const slot of this.slots) {
      if (slot.current) continue;
      const next = this.waiting.shift();
      if (!next) return;
      if (next.signal?.aborted) {
        next.reject(new Error('Nobody waits for it any more.'));
        continue;
      }
      this.start(slot, next);
    }
  }

  private start(slot: Slot, waiting: Waiting): void {
    slot.current = waiting;
    slot.worker ??= this.hire(slot);
    // A busy machine takes seconds to start a thread, and the work is not to blame for it.
    this.endAfter(slot, MAX_START_MS);
    waiting.signal?.addEventListener('abort', () => slot.current === waiting && this.replace(slot, aborted()), {
      once: true,
    });
    slot.worker.ref();
    slot.worker.postMessage(waiting.task);
  }

  private endAfter(slot: Slot, ms: number): void {
    clearTimeout(slot.timer);
    slot.timer = setTimeout(
      () => this.replace(slot, new Problem('too-large', 'This takes too long. Try again with a shorter text.')),
      ms,
    );
  }

  private hire(slot: Slot): Worker {
    const worker = new Worker(workerFile(), { resourceLimits: { maxOldGenerationSizeMb: this.rules.memoryMb } });
    worker.on('message', (message: FromTaskWorker) => {
      if (slot.worker !== worker) return;
      if ('hasBegun' in message) {
        if (slot.current) this.endAfter(slot, slot.current.limitMs);
      } else if ('result' in message) this.end(slot, (w) => w.resolve(message.result));
      else this.end(slot, (w) => w.reject(new Error(message.problem)));
    });
    const died = (reason: string) => {
      if (slot.worker !== worker) return;
      slot.worker = null;
      this.end(slot, (w) => w.reject(new Error(`The work was not finished (${reason}).`)));
    };
    worker.on('error', (error) => died(error.message));
    worker.on('exit', () => died('the thread ended'));
    worker.unref();
    return worker;
  }

  private replace(slot: Slot, error: Error): void {
    const { worker } = slot;
    slot.worker = null;
    void worker?.terminate();
    this.end(slot, (w) => w.reject(error));
  }

  private end(slot: Slot, tell: (waiting: Waiting) => void): void {
    clearTimeout(slot.timer);
    slot.worker?.unref();
    const { current } = slot;
    slot.current = null;
    if (current) tell(current);
    this.fill();
  }
}

const aborted = () => new Error('Nobody waits for it any more.');

/** For what a request waits for: reading a calendar, checking a large request. */
export const quickTasks = new TaskPool({ size: 1, limitMs: 5000, memoryMb: 512, longestQueue: 64 });
/** For hours of talk. */
export const longTasks = new TaskPool({ size: 2, limitMs: 180_000, memoryMb: 1500, longestQueue: 32 });
