/** A worker thread: does one long piece of work on words. */
import { workerData } from 'node:worker_threads';
import { answerFromWorker } from '../jobs/inWorker';
import { type LongTask, doTask } from './longWork';

answerFromWorker(Promise.resolve().then(() => doTask(workerData as LongTask)));
