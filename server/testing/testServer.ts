import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { RecognitionPool } from '../jobs/workerPool';
import type { WorkerProgress, WorkerResult, WorkerTask } from '../jobs/workerMessages';
import { type RunningServer, startServer } from '../start';

/** A recognition that answers at once, for tests of everything around it. */
export const SPOKEN: WorkerResult = {
  durationMs: 8000,
  peaks: [0, 40, 80, 40],
  hasPlaybackCopy: false,
  model: 'english-tiny-1',
  asides: [],
  passages: [
    {
      ...{ startMs: 500, endMs: 4000, speaker: null, startsParagraph: true },
      words: 'I need to call Bram.'
        .split(' ')
        .map((text, i) => ({ startMs: 500 + i * 400, endMs: 800 + i * 400, text, confidence: 0.9 })),
    },
    {
      ...{ startMs: 5000, endMs: 7000, speaker: null, startsParagraph: true },
      words: 'The limes are thirsty.'
        .split(' ')
        .map((text, i) => ({ startMs: 5000 + i * 400, endMs: 5300 + i * 400, text, confidence: 0.4 })),
    },
  ],
  proposals: {
    kind: 'memo',
    ...{ title: 'Call Bram', otherTitles: ['Limes'], folderId: null, tags: ['limes'], project: null, people: [] },
    todos: [
      {
        text: 'Call Bram',
        who: 'me',
        due: null,
        repeat: null,
        project: null,
        quote: 'I need to call Bram.',
        sentence: 0,
        startMs: 500,
        sure: 0.9,
      },
    ],
    summary: [{ text: 'The limes are thirsty.', startMs: 5000, passage: 1 }],
  },
};

/** A pool under the test's control: `answer` decides what becomes of each task. */
export class ControlledPool implements RecognitionPool {
  readonly size = 2;
  readonly tasks: WorkerTask[] = [];
  /** Jobs that were held, and those that went on, in the order of time. */
  readonly held: string[] = [];
  readonly wentOn: string[] = [];
  /** Says how far a task is. */
  readonly progress = new Map<string, (progress: WorkerProgress) => void>();
  answer: (task: WorkerTask) => Promise<WorkerResult> = async () => SPOKEN;
  private readonly cancelled = new Map<string, (error: Error) => void>();

  run(task: WorkerTask, onProgress: (progress: WorkerProgress) => void): Promise<WorkerResult> {
    this.tasks.push(task);
    this.progress.set(task.jobId, onProgress);
    return Promise.race([
      this.answer(task),
      new Promise<WorkerResult>((_, reject) => this.cancelled.set(task.jobId, reject)),
    ]);
  }

  hold(jobId: string): void {
    this.held.push(jobId);
  }

  goOn(jobId: string): void {
    this.wentOn.push(jobId);
  }

  cancel(jobId: string): void {
    this.cancelled.get(jobId)?.(new Error('cancelled'));
  }

  async close(): Promise<void> {}
}

export const temporaryFolder = (): string => fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-server-'));

/** In the demo everybody shares the first account, so that most tests need no cookies. */
export const startTestServer = (dataFolder: string, pool: RecognitionPool, isDemo = true): Promise<RunningServer> =>
  startServer({ dataFolder, port: 0, pool, appFolder: null, isDemo });

/** Asks the interface with JSON, and gives the answer as it is. */
export async function askJson<T>(
  { address }: RunningServer,
  method: string,
  path: string,
  body?: unknown,
): Promise<{ status: number; body: T }> {
  const response = await fetch(`${address}/api${path}`, {
    method,
    ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
  });
  return { status: response.status, body: (await response.json()) as T };
}

/** Uploads bytes by the tus protocol in one piece and returns the recording's id. */
export async function upload(
  address: string,
  content: Buffer,
  fileName: string,
  metadata: Record<string, string> = {},
): Promise<{ recordingId: string; alreadyHere: string | null }> {
  const encoded = Object.entries({ filename: fileName, filetype: 'audio/wav', ...metadata })
    .map(([key, value]) => `${key} ${Buffer.from(value).toString('base64')}`)
    .join(',');
  const created = await fetch(`${address}/api/uploads`, {
    method: 'POST',
    headers: { 'Tus-Resumable': '1.0.0', 'Upload-Length': String(content.length), 'Upload-Metadata': encoded },
  });
  if (created.status !== 201) throw new Error(`The upload was refused: ${created.status}`);
  let last = created;
  if (content.length) {
    last = await fetch(new URL(created.headers.get('Location')!, address), {
      method: 'PATCH',
      headers: { 'Tus-Resumable': '1.0.0', 'Upload-Offset': '0', 'Content-Type': 'application/offset+octet-stream' },
      body: new Uint8Array(content),
    });
  }
  return { recordingId: last.headers.get('Immeld-Recording')!, alreadyHere: last.headers.get('Immeld-Already-Here') };
}

/** Asks again and again until `isDone`; rejects after 60 s with what it saw last. */
export async function until<T>(ask: () => Promise<T>, isDone: (value: T) => boolean): Promise<T> {
  const end = Date.now() + 60_000;
  for (;;) {
    const value = await ask();
    if (isDone(value)) return value;
    if (Date.now() > end) throw new Error(`Waited in vain; last: ${JSON.stringify(value)}`);
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
}
