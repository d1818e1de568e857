/**
 * A worker thread: recognises files with models that stay loaded. It works on one at a time; one that is held after a
 * piece keeps all it has until it may go on.
 */
import { parentPort } from 'node:worker_threads';
import type { Word } from '@immeld/core/transcript/manuscript';
import { passagesFrom } from '@immeld/core/transcript/passages';
import { withoutAsides } from '@immeld/core/transcript/withoutAsides';
import { knownNames } from '@immeld/core/speech/names/knownNames';
import { soundsEnglish } from '@immeld/core/speech/soundsEnglish';
import { type FilingContext, proposalsFor } from '@immeld/core/filing/proposals';
import { PACKS, type Quality } from '@immeld/core/speech/packs';
import type { TranscriberModels } from '@immeld/core/speech/transcriber';
import { SoundError } from '../recognition/decodeSound';
import { PieceFile } from '../recognition/pieceFile';
import { loadModels } from '../recognition/modelFiles';
import { writePlaybackCopy } from '../recognition/playbackCopy';
import { type FileProgress, transcribeFile } from '../recognition/transcribeFile';
import { NICENESS, lowerThisThread } from '../tasks/niceness';
import { understandingModel } from '../understanding/model';
import type { FromWorker, ToWorker, WorkerTask } from './workerMessages';

const PROGRESS_EVERY_MS = 250;
lowerThisThread(NICENESS.recognition);

/** One pack at a time: each takes some hundred megabytes. */
let loaded: { quality: Quality; models: Promise<TranscriberModels> } | null = null;

/** A task of this thread: it works, or is held after one of its pieces until it may go on. */
type Running = { abort: AbortController; isHeld: boolean; goOn: () => void };
const running = new Map<string, Running>();

/** Of a sound that is done sooner nothing is read before it is done. */
const DRAFT_EVERY_MS = 8000;

const say = (message: FromWorker) => parentPort!.postMessage(message);

/** What is called so in this person's house: people with all their names, then projects and folders. */
const namesIn = ({ people, ownName, knownPeople, projects, folders }: FilingContext) =>
  knownNames(
    [...people, ownName, ...knownPeople.flatMap((p) => [p.name, ...(p.otherNames ?? [])])],
    [...projects, ...folders].flatMap((p) => [p.name, ...(p.otherNames ?? [])]),
  );

/** Resolves when this task may go on with its next piece; rejects when it is cancelled meanwhile. */
async function turn(task: Running): Promise<void> {
  const { signal } = task.abort;
  while (task.isHeld && !signal.aborted) {
    await new Promise<void>((resolve) => {
      task.goOn = resolve;
      signal.addEventListener('abort', () => resolve(), { once: true });
    });
  }
  signal.throwIfAborted();
}

async function work(task: WorkerTask, own: Running): Promise<void> {
  const { signal } = own.abort;
  const { quality } = task;
  if (loaded?.quality !== quality) loaded = { quality, models: loadModels(quality) };
  let lastReport = 0;
  let lastDraft = performance.now();
  let unread: Word[] = [];
  let latest: FileProgress = { processedMs: 0, durationMs: task.expectedMs, latestWords: '' };
  /** What has been done since the last time, to be read while the rest is under way. */
  const sendDraft = (peaks: number[]) => {
    lastDraft = performance.now();
    const draft = { passages: passagesFrom(unread), peaks };
    unread = [];
    say({ type: 'progress', jobId: task.jobId, progress: { ...latest, draft } });
  };
  const { soundFile, moreSoundFiles, names, cleaning } = task;
  const known = namesIn(task.filing);
  const made = { soundFile, moreSoundFiles, names, known, cleaning, model: PACKS[quality] };
  const transcript = await transcribeFile(task.soundFile, await loaded.models, {
    earlier: task.pieceFile ? new PieceFile(task.pieceFile, made) : undefined,
    signal,
    expectedMs: task.expectedMs,
    more: moreSoundFiles,
    names,
    known,
    cleaning,
    onProgress: (progress) => {
      latest = progress;
      const now = performance.now();
      if (now - lastReport < PROGRESS_EVERY_MS) return;
      lastReport = now;
      say({ type: 'progress', jobId: task.jobId, progress: { ...progress, draft: null } });
    },
    onPiece: async ({ words, peaks }) => {
      unread.push(...words.filter((w) => w.startMs >= task.draftedMs));
      if (unread.length && (own.isHeld || performance.now() - lastDraft > DRAFT_EVERY_MS)) sendDraft(peaks());
      await turn(own);
    },
  });
  const hasPlaybackCopy = task.playback
    ? await writePlaybackCopy(task.soundFile, task.playback.target, {
        isWebm: task.playback.isWebm,
        more: task.moreSoundFiles,
      })
    : false;
  const { passages, asides } = withoutAsides(transcript.passages, task.asides);
  // Of words that were guessed nothing is proposed.
  const isEnglish = soundsEnglish(passages.flatMap((p) => p.words));
  const proposals = proposalsFor(isEnglish ? passages : [], task.filing, understandingModel());
  say({
    type: 'done',
    jobId: task.jobId,
    result: { ...transcript, passages, asides, proposals, hasPlaybackCopy, model: PACKS[quality] },
  });
}

parentPort!.on('message', (message: ToWorker) => {
  if (message.type === 'task') return begin(message.task);
  const task = running.get(message.jobId);
  if (!task) return;
  if (message.type === 'cancel') return task.abort.abort(new Error('cancelled'));
  task.isHeld = message.type === 'hold';
  task.goOn();
});

function begin(task: WorkerTask): void {
  const own: Running = { abort: new AbortController(), isHeld: false, goOn: () => undefined };
  running.set(task.jobId, own);
  work(task, own)
    .catch((error: unknown) => {
      if (!(error instanceof SoundError) && !own.abort.signal.aborted) loaded = null;
      const text = error instanceof Error ? error.message : String(error);
      say({ type: 'failed', jobId: task.jobId, message: text, isSoundProblem: error instanceof SoundError });
    })
    .finally(() => running.delete(task.jobId));
}
