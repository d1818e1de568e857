import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { projectRoot } from '../projectRoot';

const LONGEST_MS = 120_000;
/** Beyond that a document is no longer something that one looks for words in. */
const MOST_CHARACTERS = 1_000_000;

const workerFile = () => path.join(projectRoot(), 'server', 'dist', 'pdfTextWorker.cjs');

/** The words of a PDF, read beside the server's own thread; null where it has none or cannot be read. */
export function pdfText(file: string): Promise<string | null> {
  return new Promise((resolve) => {
    const worker = new Worker(workerFile(), { workerData: { file } });
    const end = (text: string | null) => {
      clearTimeout(timer);
      resolve(text ? text.slice(0, MOST_CHARACTERS) : null);
      void worker.terminate();
    };
    const timer = setTimeout(() => end(null), LONGEST_MS);
    worker.once('message', end);
    worker.once('error', () => end(null));
    worker.once('exit', () => end(null));
  });
}
