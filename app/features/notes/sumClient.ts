import type { CurrencyTable } from '@immeld/core/compute/currencies';
import type { NoteLine } from '@immeld/core/compute/noteLines';
import type { LineAnswer } from '@immeld/core/compute/noteSums';
import type { FromSumWorker, ToSumWorker } from '../../workers/sumMessages';

type WorkerLike = Pick<Worker, 'postMessage' | 'terminate' | 'addEventListener'>;

/** After so long a thread is given up, and the next question begins a new one. */
const MAX_MS = 3000;

/** Asks the thread that works out sums. It is started with the first question; the newest question alone is answered. */
export class SumClient {
  private worker: WorkerLike | null = null;
  private number = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private hear: (answers: (LineAnswer | null)[]) => void = () => undefined;

  constructor(
    private readonly makeWorker: () => WorkerLike = () => new Worker('/workers/sumWorker.js', { type: 'module' }),
  ) {}

  ask(
    lines: readonly NoteLine[],
    { day, currencies }: { day: string; currencies: CurrencyTable | null },
    hear: (answers: (LineAnswer | null)[]) => void,
  ): void {
    this.hear = hear;
    const worker = (this.worker ??= this.start());
    worker.postMessage({ number: ++this.number, lines, day, currencies } satisfies ToSumWorker);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.close(), MAX_MS);
  }

  close(): void {
    clearTimeout(this.timer);
    this.worker?.terminate();
    this.worker = null;
  }

  private start(): WorkerLike {
    const worker = this.makeWorker();
    worker.addEventListener('message', (event) => {
      const { number, answers } = (event as MessageEvent<FromSumWorker>).data;
      if (number !== this.number) return;
      clearTimeout(this.timer);
      this.hear(answers);
    });
    return worker;
  }
}
