/** A worker thread: does one piece of work after the other. */
import { parentPort } from 'node:worker_threads';
import { NICENESS, lowerThisThread } from './niceness';
import { type FromTaskWorker, type Task, doTask } from './tasks';

lowerThisThread(NICENESS.awaited);

const say = (message: FromTaskWorker) => parentPort!.postMessage(message);

parentPort!.on('message', (task: Task) => {
  say({ hasBegun: true });
  doTask(task).then(
    (result) => say({ result }),
    (error: unknown) => say({ problem: error instanceof Error ? error.message : String(error) }),
  );
});
