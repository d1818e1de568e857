import fs from 'node:fs';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Export, NewExport } from '@immeld/core/contract/exportEndpoints';
import type { Todo } from '@immeld/core/contract/todos';
import { uniqueNames } from '@immeld/core/exports/fileNames';
import { todosCsv } from '@immeld/core/exports/todosCsv';
import yazl from 'yazl';
import type { ExportJobs, ExportJob } from './exportJobs';
import type { SoundStore } from '../storage/soundStore';
import { type ExportedFile, filesOf } from './exportFiles';

/** Begins to make files of recordings and notes: one file as it is, several as a zip. */
export const beginExport = (files: ExportJobs, sounds: SoundStore, wish: NewExport): Export =>
  files.begin(wish.items.length, (making) => collect(making, wish, sounds));

/** Everything that is wanted as one file on the disk; null where there is nothing. */
async function collect(
  { view, folder: workFolder, signal }: ExportJob,
  wish: NewExport,
  sounds: SoundStore,
): Promise<{ path: string; name: string } | null> {
  const zip = new yazl.ZipFile();
  const zipFile = path.join(workFolder, 'all.zip');
  const written = pipeline(zip.outputStream, fs.createWriteStream(zipFile), { signal });
  // Where writing fails, the next step says so; until then nobody waits for it.
  written.catch(() => undefined);
  const todos: Todo[] = [];
  const nameFree = uniqueNames();
  let first = null as ExportedFile | null;
  let count = 0;
  const add = (file: ExportedFile): void => {
    first ??= file;
    count++;
    // Sound does not become smaller by packing.
    if ('path' in file) zip.addFile(file.path, file.name, { compress: false });
    else zip.addBuffer(file.bytes, file.name);
  };
  for (const [i, item] of wish.items.entries()) {
    const rules = {
      ...{ sounds, workFolder, signal },
      miss: (sentence: string) => void (view.missing.includes(sentence) || view.missing.push(sentence)),
    };
    for await (const file of filesOf(item, i + 1, wish, todos, nameFree, rules)) add(file);
    signal.throwIfAborted();
    view.done = i + 1;
  }
  if (wish.files.some((f) => f.format === 'csv')) add({ name: 'To-dos.csv', bytes: Buffer.from(todosCsv(todos)) });
  zip.end();
  await written;
  if (!first) return null;
  if (count > 1) {
    const name = wish.items.length === 1 ? path.parse(first.name).name : `Immeld export, ${wish.items.length} items`;
    return { path: zipFile, name: `${name}.zip` };
  }
  await fs.promises.rm(zipFile);
  return onDisk(first, workFolder);
}

async function onDisk(file: ExportedFile, folder: string): Promise<{ path: string; name: string }> {
  if ('path' in file) return file;
  const target = path.join(folder, 'one');
  await fs.promises.writeFile(target, file.bytes);
  return { path: target, name: file.name };
}
