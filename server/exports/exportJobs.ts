import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type { Export } from '@immeld/core/contract/exportEndpoints';
import { Problem } from '@immeld/core/contract/problem';
import { accountId } from '../accounts/currentAccount';
import { log } from '../log';

const KEPT_MS = 86_400_000;
const MAX_KEPT = 50;
/** So many are made for one account at once. */
const MAX_MAKING = 5;

/** What a piece of work gets to make a file with. */
export type ExportJob = {
  /** `done` and `missing` are written by the work. */
  view: Export;
  /** A folder of its own; what lies in it goes when the file goes. */
  folder: string;
  /** Aborted when nobody wants it any more. */
  signal: AbortSignal;
};
/** Returns where the file lies and what it is called; null where there was nothing to make one of. */
type Work = (making: ExportJob) => Promise<{ path: string; name: string } | null>;

type Running = { view: Export; accountId: string | null; file: string | null; gone: AbortController; endsAt: number };

/** Files that are made in the background, for the account that asked. What was made waits a day to be fetched. */
export class ExportJobs {
  private readonly jobs = new Map<string, Running>();

  constructor(private readonly folder: string) {
    // What an earlier server made or left half done, nobody can ask for any more.
    fs.rmSync(folder, { recursive: true, force: true });
    fs.mkdirSync(folder, { recursive: true });
  }

  /** @param total how many steps `done` counts up to */
  begin(total: number, work: Work): Export {
    this.sweep();
    const making = this.list().filter((view) => view.state === 'making').length;
    if (making >= MAX_MAKING) {
      throw new Problem('too-many', 'Five files are already being made. Wait for one to finish, or stop one.');
    }
    const id = randomUUID();
    const job: Running = {
      view: {
        ...{ id, state: 'making', done: 0, total },
        ...{ fileName: null, sizeBytes: null, problem: null, missing: [] },
      },
      ...{ accountId: accountId(), file: null, gone: new AbortController(), endsAt: Date.now() + KEPT_MS },
    };
    this.jobs.set(id, job);
    void this.make(job, work);
    return { ...job.view };
  }

  list(): Export[] {
    return [...this.jobs.values()].filter((j) => j.accountId === accountId()).map((j) => ({ ...j.view }));
  }

  get(id: string): Export {
    return { ...this.find(id).view };
  }

  cancel(id: string): Export {
    const job = this.find(id);
    if (job.view.state === 'making') {
      job.view.state = 'cancelled';
      job.gone.abort(new Error('Cancelled.'));
    }
    return { ...job.view };
  }

  /** Path and name of what was made. Throws Problem as long as it is not. */
  fileOf(id: string): { path: string; name: string } {
    const { file, view } = this.find(id);
    if (!file || !view.fileName)
      throw new Problem('not-found', 'This file is not ready, or it was removed. Export it again.');
    return { path: file, name: view.fileName };
  }

  /** Stops and removes everything that was made for an account. */
  async forget(account: string): Promise<void> {
    for (const [id, job] of this.jobs) {
      if (job.accountId !== account) continue;
      job.gone.abort(new Error('The account was deleted.'));
      this.jobs.delete(id);
      await fs.promises.rm(path.join(this.folder, id), { recursive: true, force: true });
    }
  }

  close(): void {
    for (const { gone } of this.jobs.values()) gone.abort(new Error('The server was stopped. Export again.'));
  }

  private find(id: string): Running {
    const job = this.jobs.get(id);
    if (!job || job.accountId !== accountId()) {
      throw new Problem('not-found', 'This file is no longer available. Export it again. Nothing else is lost.');
    }
    return job;
  }

  private sweep(): void {
    const old = [...this.jobs].filter(([, j]) => j.view.state !== 'making');
    const tooMany = old.slice(0, Math.max(0, this.jobs.size - MAX_KEPT)).map(([id]) => id);
    for (const [id, job] of old) {
      if (job.endsAt > Date.now() && !tooMany.includes(id)) continue;
      this.jobs.delete(id);
      fs.rmSync(path.join(this.folder, id), { recursive: true, force: true });
    }
  }

  private async make(job: Running, work: Work): Promise<void> {
    const { view, gone } = job;
    const folder = path.join(this.folder, view.id);
    try {
      await fs.promises.mkdir(folder, { recursive: true });
      // Stopped before it had begun, it does not begin.
      gone.signal.throwIfAborted();
      const made = await work({ view, folder, signal: gone.signal });
      gone.signal.throwIfAborted();
      if (!made) {
        view.problem = view.missing[0] ?? 'There was nothing to export.';
        view.state = 'failed';
        return;
      }
      job.file = made.path;
      view.fileName = made.name;
      view.sizeBytes = (await fs.promises.stat(made.path)).size;
      view.state = 'ready';
    } catch (error) {
      await fs.promises.rm(folder, { recursive: true, force: true });
      if (view.state === 'cancelled' || gone.signal.aborted) return;
      view.state = 'failed';
      view.problem = sentenceFor(error);
    }
  }
}

function sentenceFor(error: unknown): string {
  if (error instanceof Problem) return error.message;
  if ((error as NodeJS.ErrnoException)?.code === 'ENOSPC') {
    return 'The server’s disk is full. Nothing is lost. Free up space on the server, then try again.';
  }
  log.error(error, 'An export failed.');
  return 'The file could not be exported. Nothing is lost. Try again, or leave out one format.';
}
