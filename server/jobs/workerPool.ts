import { Worker } from 'node:worker_threads';
import type { FromWorker, ToWorker, WorkerProgress, WorkerResult, WorkerTask } from './workerMessages';

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
  /** So many work at once; whoever asks for work keeps to it. Those that are held do not count. */
  readonly size: number;
  run(task: WorkerTask, onProgress: (progress: WorkerProgress) => void): Promise<WorkerResult>;
  /** Pauses a recognition after the piece that it is at; it keeps all that it has. */
  hold(jobId: string): void;
  /** Lets one that is held go on from there. */
  goOn(jobId: string): void;
  cancel(jobId: string): void;
  close(): Promise<void>;
}

type Running = {
  isHeld: boolean;
  onProgress: (progress: WorkerProgress) => void;
  resolve: (result: WorkerResult) => void;
  reject: (error: Error) => void;
};
/** One piece of 20 s takes about one second. */
const MAX_FAREWELL_MS = 5000;

type Slot = { worker: Worker | null; running: Map<string, Running> };

const activeIn = ({ running }: Slot): number => [...running.values()].filter((r) => !r.isHeld).length;

/** Worker threads that are started when they are first needed and again when one dies. */
export class WorkerPool implements RecognitionPool {
  private readonly slots: Slot[];

  constructor(
    private readonly workerFile: string,
    readonly size: number,
  ) {
    this.slots = Array.from({ length: size }, () => ({ worker: null, running: new Map() }));
  }

  run(task: WorkerTask, onProgress: (progress: WorkerProgress) => void): Promise<WorkerResult> {
    const slot = this.slots.find((s) => activeIn(s) === 0);
    if (!slot) return Promise.reject(new Error('All recognition workers are busy.'));
    return new Promise((resolve, reject) => {
      slot.running.set(task.jobId, { isHeld: false, onProgress, resolve, reject });
      slot.worker ??= this.start(slot);
      slot.worker.postMessage({ type: 'task', task } satisfies ToWorker);
    });
  }

  hold(jobId: string): void {
    this.tell(jobId, 'hold');
  }

  goOn(jobId: string): void {
    this.tell(jobId, 'go-on');
  }

  cancel(jobId: string): void {
    this.tell(jobId, 'cancel');
  }

  /** Lets each worker stop between two pieces: ended in the middle of the model, a thread takes the program down. */
  async close(): Promise<void> {
    const until = Date.now() + MAX_FAREWELL_MS;
    for (const { running } of this.slots) for (const jobId of running.keys()) this.cancel(jobId);
    while (this.slots.some((s) => s.running.size) && Date.now() < until) {
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    await Promise.all(this.slots.map((slot) => slot.worker?.terminate()));
  }

  private tell(jobId: string, type: 'hold' | 'go-on' | 'cancel'): void {
    const slot = this.slots.find((s) => s.running.has(jobId));
    if (!slot) return;
    if (type !== 'cancel') slot.running.get(jobId)!.isHeld = type === 'hold';
    slot.worker?.postMessage({ type, jobId } satisfies ToWorker);
  }

  private start(slot: Slot): Worker {
    const worker = new Worker(this.workerFile);
    worker.unref();
    worker.on('message', (message: FromWorker) => {
      const running = slot.running.get(message.jobId);
      if (!running) return;
      if (message.type === 'progress') return running.onProgress(message.progress);
      slot.running.delete(message.jobId);
      if (message.type === 'done') running.resolve(message.result);
      else running.reject(new RecognitionFailure(message.message, message.isSoundProblem));
    });
    const died = (reason: string) => {
      const lost = [...slot.running.values()];
      slot.worker = null;
      slot.running.clear();
      for (const { reject } of lost) {
        reject(
          new RecognitionFailure(
            `Transcription stopped unexpectedly (${reason}). The audio is safe. Try again.`,
            false,
          ),
        );
      }
    };
    worker.on('error', (error) => died(error.message));
    worker.on('exit', (code) => {
      if (slot.worker === worker) died(`exit code ${code}`);
    });
    return worker;
  }
}
