import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { projectRoot } from '../projectRoot';
import { NICENESS, lowerProcess } from './niceness';
import { newWorkFolder } from './workFolder';
import type { FromHeavyProcess, HeavyResult, HeavyTask } from './heavyTasks';

/** Why a process could not do its work. `kind` is the name of the error's class there. */
export class ProcessProblem extends Error {
  constructor(
    message: string,
    readonly kind: string,
    /** Of the system, such as ENOSPC. */
    readonly code?: string,
  ) {
    super(message);
    this.name = 'ProcessProblem';
  }
}

export type ProcessRules = {
  /** Memory that it may write to; beyond it the process ends, and nothing else does. */
  memoryMb: number;
  limitMs: number;
  signal?: AbortSignal | undefined;
  /** Told the share that is done, 0 to 1. */
  onProgress?: (share: number) => void;
};

const MEGABYTE = 1024 ** 2;
const processFile = () => path.join(projectRoot(), 'server', 'dist', 'heavyProcess.cjs');

let canLimit: Promise<boolean> | null = null;
/** Tried once, and not waited for by the server's thread: to begin a process takes it tens of milliseconds. */
const triesLimit = (): Promise<boolean> =>
  new Promise((resolve) => {
    const trial = spawn('prlimit', ['--data=1000000000', 'true'], { stdio: 'ignore' });
    trial.once('error', () => resolve(false));
    trial.once('exit', (status) => resolve(status === 0));
  });
/** `prlimit` (util-linux) bounds all of a process, where the runtime's own limits bound its heap alone. */
const limited = async (memoryMb: number): Promise<string[]> =>
  (await (canLimit ??= triesLimit())) ? ['prlimit', `--data=${memoryMb * MEGABYTE}`, '--core=0'] : [];

/** What takes minutes, one at a time: beside it there is always room for what takes seconds. */
const LONG: ReadonlySet<HeavyTask['kind']> = new Set(['backup', 'bring back']);

/** One at a time, whoever asks: each may take gigabytes, and the other cores are for those who only read. */
class Turns {
  private isTaken = false;
  private readonly waiting: (() => void)[] = [];

  /** Waits for a turn. @returns a function that ends it */
  async next(): Promise<() => void> {
    if (this.isTaken) await new Promise<void>((resolve) => this.waiting.push(resolve));
    this.isTaken = true;
    return () => {
      const next = this.waiting.shift();
      // The turn goes from hand to hand, so that nobody slips in between.
      if (next) next();
      else this.isTaken = false;
    };
  }
}
const turns = { long: new Turns(), short: new Turns() };

/**
 * Does one piece of work in a process of its own, with bounded memory and time: what strangers made may blow it up, not the
 * server.
 * @throws ProcessProblem with a sentence; the signal's reason when it was ended
 */
export async function inProcess<T extends HeavyTask>(task: T, rules: ProcessRules): Promise<HeavyResult<T>> {
  const end = await turns[LONG.has(task.kind) ? 'long' : 'short'].next();
  try {
    return await inOneProcess(task, rules);
  } finally {
    end();
  }
}

async function inOneProcess<T extends HeavyTask>(
  task: T,
  { memoryMb, limitMs, signal, onProgress }: ProcessRules,
): Promise<HeavyResult<T>> {
  signal?.throwIfAborted();
  const [program, ...args] = [
    ...(await limited(memoryMb)),
    process.execPath,
    `--max-old-space-size=${memoryMb}`,
    processFile(),
  ];
  const folder = newWorkFolder();
  const child = spawn(program!, args, {
    ...{ stdio: ['ignore', 'ignore', 'ignore', 'ipc'], serialization: 'advanced' },
    // Temporary files of a process that is ended would stay.
    env: { ...process.env, TMPDIR: folder },
  });
  if (child.pid !== undefined) lowerProcess(child.pid, NICENESS.process);
  const stop = () => void child.kill('SIGKILL');
  const limit = setTimeout(stop, limitMs);
  signal?.addEventListener('abort', stop, { once: true });
  try {
    return await new Promise<HeavyResult<T>>((resolve, reject) => {
      const ended = () => reject(new ProcessProblem('It takes more memory or time than it may have.', 'TooHeavy'));
      child.once('error', reject);
      child.once('exit', ended);
      child.on('message', (message: FromHeavyProcess) => {
        if ('progress' in message) onProgress?.(message.progress);
        else if ('result' in message) resolve(message.result as HeavyResult<T>);
        else reject(new ProcessProblem(message.problem, message.kind, message.code));
      });
      child.send(task, (error) => error && reject(error));
    });
  } catch (error) {
    signal?.throwIfAborted();
    throw error;
  } finally {
    clearTimeout(limit);
    signal?.removeEventListener('abort', stop);
    child.kill('SIGKILL');
    await fs.promises.rm(folder, { recursive: true, force: true });
  }
}
