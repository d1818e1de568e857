/** A process of its own: does one piece of heavy work and says what came of it. */
import { type FromHeavyProcess, type HeavyTask, doHeavyTask } from './heavyTasks';

const PROGRESS_EVERY_MS = 200;

process.umask(0o077);
// Nobody waits for it any more when the server has gone.
process.once('disconnect', () => process.exit(1));

const say = (message: FromHeavyProcess) => process.send!(message);

const codeOf = ({ code }: NodeJS.ErrnoException) => (code ? { code } : {});

process.once('message', (task: HeavyTask) => {
  let last = 0;
  const onProgress = (progress: number) => {
    const now = performance.now();
    if (now - last < PROGRESS_EVERY_MS) return;
    last = now;
    say({ progress });
  };
  doHeavyTask(task, onProgress).then(
    (result) => say({ result }),
    (error: unknown) =>
      say(
        error instanceof Error
          ? { problem: error.message, kind: error.constructor.name, ...codeOf(error) }
          : { problem: String(error), kind: 'Error' },
      ),
  );
});
