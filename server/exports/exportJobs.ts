import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Export, NewExport } from '@immeld/core/contract/exportEndpoints';
import { Problem } from '@immeld/core/contract/problem';
import type { Todo } from '@immeld/core/contract/todos';
import { uniqueNames } from '@immeld/core/exports/fileNames';
import { todosCsv } from '@immeld/core/exports/todosCsv';
import yazl from 'yazl';
import { accountId } from '../accounts/currentAccount';
import type { SoundStore } from '../storage/soundStore';
import { type MadeFile, filesOf } from './makeFiles';

const KEPT_MS = 86_400_000;
const MOST_KEPT = 50;

type Running = { view: Export; accountId: string | null; file: string | null; gone: AbortController; endsAt: number };

/** Makes files in the background: one file as it is, several as a zip. What was made waits a day to be fetched. */
export class ExportJobs {
  private readonly jobs = new Map<string, Running>();

  constructor(
    private readonly folder: string,
    private readonly sounds: SoundStore,
  ) {
    // What an earlier server made or left half done, nobody can ask for any more.
    fs.rmSync(folder, { recursive: true, force: true });
    fs.mkdirSync(folder, { recursive: true });
  }

  start(wish: NewExport): Export {
    this.sweep();
    const id = randomUUID();
    const job: Running = {
      view: {
        ...{ id, state: 'making', done: 0, total: wish.items.length },
        ...{ fileName: null, sizeBytes: null, problem: null, missing: [] },
      },
      ...{ accountId: accountId(), file: null, gone: new AbortController(), endsAt: Date.now() + KEPT_MS },
    };
    this.jobs.set(id, job);
    void this.make(job, wish);
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
      job.gone.abort(new Error('It was stopped.'));
    }
    return { ...job.view };
  }

  /** Path and name of what was made. Throws Problem as long as it is not. */
  fileOf(id: string): { path: string; name: string } {
    const { file, view } = this.find(id);
    if (!file || !view.fileName) throw new Problem('not-found', 'This file is not ready, or it was removed.');
    return { path: file, name: view.fileName };
  }

  close(): void {
    for (const { gone } of this.jobs.values()) gone.abort(new Error('The server was stopped.'));
  }

  private find(id: string): Running {
    const job = this.jobs.get(id);
    if (!job || job.accountId !== accountId()) {
      throw new Problem('not-found', 'There is no such file any more. Make it again: nothing else is lost.');
    }
    return job;
  }

  private sweep(): void {
    const old = [...this.jobs].filter(([, j]) => j.view.state !== 'making');
    const tooMany = old.slice(0, Math.max(0, this.jobs.size - MOST_KEPT)).map(([id]) => id);
    for (const [id, job] of old) {
      if (job.endsAt > Date.now() && !tooMany.includes(id)) continue;
      this.jobs.delete(id);
      fs.rmSync(path.join(this.folder, id), { recursive: true, force: true });
    }
  }

  private async make(job: Running, wish: NewExport): Promise<void> {
    const { view, gone } = job;
    const workFolder = path.join(this.folder, view.id);
    try {
      await fs.promises.mkdir(workFolder, { recursive: true });
      const made = await this.collect(job, wish, workFolder);
      gone.signal.throwIfAborted();
      if (!made) {
        view.problem = view.missing[0] ?? 'There was nothing to make a file of.';
        view.state = 'failed';
        return;
      }
      job.file = made.path;
      view.fileName = made.name;
      view.sizeBytes = (await fs.promises.stat(made.path)).size;
      view.state = 'ready';
    } catch (error) {
      await fs.promises.rm(workFolder, { recursive: true, force: true });
      if (view.state === 'cancelled' || gone.signal.aborted) return;
      view.state = 'failed';
      view.problem = sentenceFor(error);
    }
  }

  /** Everything that is wanted as one file on the disk; null where there is nothing. */
  private async collect(
    { view, gone }: Running,
    wish: NewExport,
    workFolder: string,
  ): Promise<{ path: string; name: string } | null> {
    const zip = new yazl.ZipFile();
    const zipFile = path.join(workFolder, 'all.zip');
    const written = pipeline(zip.outputStream, fs.createWriteStream(zipFile), { signal: gone.signal });
    // Where writing fails, the next step says so; until then nobody waits for it.
    written.catch(() => undefined);
    const todos: Todo[] = [];
    const nameFree = uniqueNames();
    let first = null as MadeFile | null;
    let count = 0;
    const add = (file: MadeFile): void => {
      first ??= file;
      count++;
      // Sound does not become smaller by packing.
      if ('path' in file) zip.addFile(file.path, file.name, { compress: false });
      else zip.addBuffer(file.bytes, file.name);
    };
    for (const [i, item] of wish.items.entries()) {
      const rules = {
        ...{ sounds: this.sounds, workFolder, signal: gone.signal },
        miss: (sentence: string) => void (view.missing.includes(sentence) || view.missing.push(sentence)),
      };
      for await (const file of filesOf(item, i + 1, wish, todos, nameFree, rules)) add(file);
      gone.signal.throwIfAborted();
      view.done = i + 1;
    }
    if (wish.files.some((f) => f.format === 'csv')) add({ name: 'To-dos.csv', bytes: Buffer.from(todosCsv(todos)) });
    zip.end();
    await written;
    if (!first) return null;
    if (count > 1) {
      const name = wish.items.length === 1 ? path.parse(first.name).name : `Immeld, ${wish.items.length} taken along`;
      return { path: zipFile, name: `${name}.zip` };
    }
    await fs.promises.rm(zipFile);
    return onDisk(first, workFolder);
  }
}

async function onDisk(file: MadeFile, folder: string): Promise<{ path: string; name: string }> {
  if ('path' in file) return file;
  const target = path.join(folder, 'one');
  await fs.promises.writeFile(target, file.bytes);
  return { path: target, name: file.name };
}

function sentenceFor(error: unknown): string {
  if (error instanceof Problem) return error.message;
  if ((error as NodeJS.ErrnoException)?.code === 'ENOSPC') {
    return 'The disk of the server is full. Nothing of yours is lost; make room and try again.';
  }
  console.error('An export failed:', error);
  return 'The file could not be made. Nothing of yours is lost; try again, or leave out one format.';
}
