import path from 'node:path';
import { Worker, parentPort, type ResourceLimits } from 'node:worker_threads';
import { projectRoot } from '../projectRoot';

type Answer<T> = { result: T } | { problem: string };

/**
 * Runs one piece of work in a thread of its own, so that nobody else waits for it.
 * @param name of the bundled worker, which answers by `answerFromWorker`
 * Rejects with the reason of the worker, or when `signal` ends it.
 */
export async function inWorker<T>(
  name: string,
  workerData: unknown,
  { signal, resourceLimits }: { signal?: AbortSignal; resourceLimits?: ResourceLimits } = {},
): Promise<T> {
  signal?.throwIfAborted();
  const file = path.join(projectRoot(), 'server', 'dist', `${name}.cjs`);
  const worker = new Worker(file, { workerData, ...(resourceLimits ? { resourceLimits } : {}) });
  const stop = () => void worker.terminate();
  signal?.addEventListener('abort', stop, { once: true });
  try {
    const answer = await new Promise<Answer<T>>((resolve, reject) => {
      worker.once('message', resolve);
      worker.once('error', reject);
      worker.once('exit', () => reject(new Error('The work was not finished.')));
    });
    if ('problem' in answer) throw new Error(answer.problem);
    return answer.result;
  } finally {
    signal?.removeEventListener('abort', stop);
    void worker.terminate();
  }
}

/** For the worker: sends back what it made, or why it could not. */
export function answerFromWorker<T>(work: Promise<T>): void {
  work.then(
    (result) => parentPort!.postMessage({ result } satisfies Answer<T>),
    (error: unknown) =>
      parentPort!.postMessage({ problem: error instanceof Error ? error.message : String(error) } satisfies Answer<T>),
  );
}
