/** A worker thread: does one piece of work after the other. */
import { parentPort } from 'node:worker_threads';
import { type FromTaskWorker, type Task, doTask } from './tasks';

const say = (message: FromTaskWorker) => parentPort!.postMessage(message);

parentPort!.on('message', (task: Task) => {
  say({ hasBegun: true });
  doTask(task).then(
    (result) => say({ result }),
    (error: unknown) => say({ problem: error instanceof Error ? error.message : String(error) }),
  );
});
