import { Worker } from 'node:worker_threads';
import type { FileProgress } from '../recognition/transcribeFile';
import type { FromWorker, ToWorker, WorkerResult, WorkerTask } from './workerMessages';

/** A failure with a sentence for the person. `isSoundProblem`: the file itself cannot be heard. */
export class RecognitionFailure extends Error {
  constructor(
    message: string,
    readonly isSoundProblem: boolean,
  ) {
    super(message);
    this.name = 'RecognitionFailure';
  }
}

/** Runs recognitions somewhere else than on the server's own thread. */
export interface RecognitionPool {
  readonly size: number;
  run(task: WorkerTask, onProgress: (progress: FileProgress) => void): Promise<WorkerResult>;
  cancel(jobId: string): void;
  close(): Promise<void>;
}

type Waiting = {
  jobId: string;
  onProgress: (progress: FileProgress) => void;
  resolve: (result: WorkerResult) => void;
  reject: (error: Error) => void;
};
/** One piece of 20 s takes about one second. */
const MAX_FAREWELL_MS = 5000;

type Slot = { worker: Worker | null; current: Waiting | null };

/** Worker threads that are started when they are first needed and again when one dies. */
export class WorkerPool implements RecognitionPool {
  private readonly slots: Slot[];

  constructor(
    private readonly workerFile: string,
    readonly size: number,
  ) {
    this.slots = Array.from({ length: size }, () => ({ worker: null, current: null }));
  }

  run(task: WorkerTask, onProgress: (progress: FileProgress) => void): Promise<WorkerResult> {
    const slot = this.slots.find((s) => s.current === null);
    if (!slot) return Promise.reject(new Error('All recognition workers are busy.'));
    return new Promise((resolve, reject) => {
      slot.current = { jobId: task.jobId, onProgress, resolve, reject };
      slot.worker ??= this.start(slot);
      slot.worker.postMessage({ type: 'task', task } satisfies ToWorker);
    });
  }

  cancel(jobId: string): void {
    const slot = this.slots.find((s) => s.current?.jobId === jobId);
    slot?.worker?.postMessage({ type: 'cancel', jobId } satisfies ToWorker);
  }

  /** Lets each worker stop between two pieces: ended in the middle of the model, a thread takes the program down. */
  async close(): Promise<void> {
    const until = Date.now() + MAX_FAREWELL_MS;
    for (const { current } of this.slots) if (current) this.cancel(current.jobId);
    while (this.slots.some((s) => s.current) && Date.now() < until) {
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    await Promise.all(this.slots.map((slot) => slot.worker?.terminate()));
  }

  private start(slot: Slot): Worker {
    const worker = new Worker(this.workerFile);
    worker.unref();
    worker.on('message', (message: FromWorker) => {
      const { current } = slot;
      if (!current || current.jobId !== message.jobId) return;
      if (message.type === 'progress') return current.onProgress(message.progress);
      slot.current = null;
      if (message.type === 'done') current.resolve(message.result);
      else current.reject(new RecognitionFailure(message.message, message.isSoundProblem));
    });
    const died = (reason: string) => {
      const { current } = slot;
      slot.worker = null;
      slot.current = null;
      current?.reject(
        new RecognitionFailure(`Transcription stopped unexpectedly (${reason}). The audio is safe. Try again.`, false),
      );
    };
    worker.on('error', (error) => died(error.message));
    worker.on('exit', (code) => {
      if (slot.worker === worker) died(`exit code ${code}`);
    });
    return worker;
  }
}
