import type { ToJournalWorker } from '../workers/journalMessages';

const NO_ANSWER_MS = 2000;

/**
 * Has the end of a recording written down as it comes from the sound thread, beside the pieces of the recorder: what these
 * lack when the browser dies is taken from there. Does nothing where there are no workers.
 */
export class JournalWriter {
  private readonly worker =
    typeof Worker === 'undefined' ? null : new Worker('/workers/journalWorker.js', { type: 'module' });
  /** The sound thread sends its samples here; null when nobody would listen. */
  readonly port: MessagePort | null = null;

  /** @param rate samples per second */
  constructor(captureId: string, rate: number) {
    if (!this.worker) return;
    const { port1, port2 } = new MessageChannel();
    this.port = port1;
    this.tell({ type: 'open', id: captureId, rate }, [port2]);
  }

  run(): void {
    this.tell({ type: 'run' });
  }

  pause(): void {
    this.tell({ type: 'pause' });
  }

  /**
   * Resolves when nothing is written any more, or when the worker does not answer.
   * @param isKept whether what was written is still needed; otherwise the recording is complete elsewhere
   */
  close({ isKept }: { isKept: boolean }): Promise<void> {
    const { worker } = this;
    if (!worker) return Promise.resolve();
    return new Promise((resolve) => {
      worker.onmessage = () => resolve();
      setTimeout(resolve, NO_ANSWER_MS);
      this.tell({ type: 'close', isKept });
    });
  }

  private tell(message: ToJournalWorker, ports: MessagePort[] = []): void {
    this.worker?.postMessage(message, ports);
  }
}
