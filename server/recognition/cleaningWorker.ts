/** A worker thread: cleans one file and says null, or why it could not. */
import { parentPort, workerData } from 'node:worker_threads';
import type { Cleaning } from '@immeld/core/audio/cleaning/cleaner';
import { writeCleanedCopy } from './cleanedCopy';

const { source, target, cleaning } = workerData as { source: string; target: string; cleaning: Cleaning };

writeCleanedCopy(source, target, cleaning).then(
  () => parentPort!.postMessage(null),
  (error: unknown) => parentPort!.postMessage(error instanceof Error ? error.message : String(error)),
);
