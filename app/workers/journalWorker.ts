/**
 * Writes down the sound of the last half minute as it comes from the sound thread, in a file that is a ring. It goes from
 * here to the system without the page and without the browser's own process, which may be busy for seconds.
 */
import { JOURNAL_FOLDER, RING_SECONDS, RING_START, type ToJournalWorker } from './journalMessages';

/** A file that is written at once; the types of the page do not know it, as only workers have it. */
type SyncFile = {
  write(bytes: ArrayBufferView, options: { at: number }): number;
  truncate(size: number): void;
  close(): void;
};
type SyncFileHandle = FileSystemFileHandle & { createSyncAccessHandle(): Promise<SyncFile> };

let file: SyncFile | null = null;
let isRunning = false;
/** What came before the file was open; null when it will not be. */
let early: Int16Array[] | null = [];
let ringSize = 0;
/** Samples that were written since the beginning. */
let count = 0;
const head = new Float64Array(2);

async function folder(): Promise<FileSystemDirectoryHandle> {
  const root = await navigator.storage.getDirectory();
  return root.getDirectoryHandle(JOURNAL_FOLDER, { create: true });
}

async function open(id: string, rate: number): Promise<void> {
  const handle = (await (await folder()).getFileHandle(id, { create: true })) as SyncFileHandle;
  ringSize = rate * RING_SECONDS;
  const size = RING_START + ringSize * 2;
  // The whole room is taken now: a file that grows would have to ask the browser each time. Chromium forgets what a file has
  // grown by a synchronous handle when it is closed, counts it as freed when the file is removed, and then believes that
  // four gigabytes are used (measured with version 150); so it grows in the other way where there is one.
  if ('createWritable' in handle) {
    const whole = await handle.createWritable();
    await whole.truncate(size);
    await whole.close();
  }
  const opened = await handle.createSyncAccessHandle();
  if (!('createWritable' in handle)) opened.truncate(size);
  head.set([rate, 0]);
  opened.write(head, { at: 0 });
  file = opened;
  for (const samples of early ?? []) write(samples);
  early = null;
}

function write(samples: Int16Array): void {
  if (!file) return void early?.push(samples);
  const at = count % ringSize;
  const untilEnd = samples.subarray(0, ringSize - at);
  file.write(untilEnd, { at: RING_START + at * 2 });
  if (untilEnd.length < samples.length) file.write(samples.subarray(untilEnd.length), { at: RING_START });
  count += samples.length;
  // The count comes after its samples: whenever it ends, what is counted is there.
  head[1] = count;
  file.write(head, { at: 0 });
}

async function close(opening: Promise<void>, id: string, isKept: boolean): Promise<void> {
  await opening;
  file?.close();
  if (!isKept) await (await folder()).removeEntry(id);
}

let opening: Promise<void> = Promise.resolve();
let captureId = '';
self.onmessage = ({ data, ports }: MessageEvent<ToJournalWorker>) => {
  if (data.type === 'open') {
    ports[0]!.onmessage = ({ data: samples }: MessageEvent<Int16Array>) => {
      try {
        if (isRunning) write(samples);
      } catch {
        // The disk takes no more: what was written stays, the pieces that go the other way say it.
        isRunning = false;
      }
    };
    captureId = data.id;
    // No such storage here: the pieces that go the other way are all that is kept.
    opening = open(data.id, data.rate).catch(() => void (early = null));
  } else if (data.type === 'close') {
    isRunning = false;
    void close(opening, captureId, data.isKept)
      .catch(() => undefined)
      .then(() => {
        self.postMessage('closed');
        self.close();
      });
  } else isRunning = data.type === 'run';
};
