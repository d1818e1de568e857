import type { ExportDocument } from '@immeld/core/exports/exportDocument';
import { inProcess } from '../tasks/inProcess';
import type { PagePicture } from './pagePictures';

/** A 5-hour recording needs a part of it; more would be taken from everybody else. */
const MAX_MEGABYTES = 1500;
const LIMIT_MS = 10 * 60_000;

export type PageTask = { form: 'docx' | 'pdf'; sheet: ExportDocument; pictures: ReadonlyMap<string, PagePicture> };

/** One at a time: forty at once would take forty times the memory. */
let before: Promise<unknown> = Promise.resolve();

/** A Word document or PDF, made in a process of its own; `signal` ends it. */
export function pageFile(task: PageTask, signal: AbortSignal): Promise<Buffer> {
  const make = async () =>
    Buffer.from(await inProcess({ kind: 'page', ...task }, { memoryMb: MAX_MEGABYTES, limitMs: LIMIT_MS, signal }));
  const mine = before.then(make, make);
  before = mine.catch(() => undefined);
  return mine;
}
