/** A worker thread: recognises one file at a time with models that stay loaded. */
import os from 'node:os';
import { parentPort } from 'node:worker_threads';
import { withoutAsides } from '@immeld/core/transcript/withoutAsides';
import { knownNames } from '@immeld/core/speech/names/knownNames';
import { soundsEnglish } from '@immeld/core/speech/soundsEnglish';
import { type FilingContext, proposalsFor } from '@immeld/core/filing/proposals';
import { PACKS, type Quality } from '@immeld/core/speech/packs';
import type { TranscriberModels } from '@immeld/core/speech/transcriber';
import { SoundError } from '../recognition/decodeSound';
import { loadModels } from '../recognition/modelFiles';
import { writePlaybackCopy } from '../recognition/playbackCopy';
import { transcribeFile } from '../recognition/transcribeFile';
import { understandingModel } from '../understanding/model';
import type { FromWorker, ToWorker, WorkerTask } from './workerMessages';

const PROGRESS_EVERY_MS = 250;
/** People who read come first. On Linux this holds for the calling thread alone (setpriority(2), notes on NPTL). */
const NICENESS = 15;
if (process.platform === 'linux') os.setPriority(NICENESS);

/** One pack at a time: each takes some hundred megabytes. */
let loaded: { quality: Quality; models: Promise<TranscriberModels> } | null = null;
let running: { jobId: string; abort: AbortController } | null = null;

const say = (message: FromWorker) => parentPort!.postMessage(message);

/** What is called so in this person's house: people with all their names, then projects and folders. */
const namesIn = ({ people, ownName, knownPeople, projects, folders }: FilingContext) =>
  knownNames(
    [...people, ownName, ...knownPeople.flatMap((p) => [p.name, ...(p.otherNames ?? [])])],
    [...projects, ...folders].flatMap((p) => [p.name, ...(p.otherNames ?? [])]),
  );

async function work(task: WorkerTask, signal: AbortSignal): Promise<void> {
  const { quality } = task;
  if (loaded?.quality !== quality) loaded = { quality, models: loadModels(quality) };
  let lastReport = 0;
  const transcript = await transcribeFile(task.soundFile, await loaded.models, {
    signal,
    expectedMs: task.expectedMs,
    more: task.moreSoundFiles,
    names: task.names,
    known: namesIn(task.filing),
    cleaning: task.cleaning,
    onProgress: (progress) => {
      const now = performance.now();
      if (now - lastReport < PROGRESS_EVERY_MS) return;
      lastReport = now;
      say({ type: 'progress', jobId: task.jobId, progress });
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
  if (message.type === 'cancel') {
    if (running?.jobId === message.jobId) running.abort.abort(new Error('cancelled'));
    return;
  }
  const abort = new AbortController();
  running = { jobId: message.task.jobId, abort };
  work(message.task, abort.signal)
    .catch((error: unknown) => {
      if (!(error instanceof SoundError) && !abort.signal.aborted) loaded = null;
      const text = error instanceof Error ? error.message : String(error);
      say({ type: 'failed', jobId: message.task.jobId, message: text, isSoundProblem: error instanceof SoundError });
    })
    .finally(() => {
      running = null;
    });
});
