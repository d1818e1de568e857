import { once } from 'node:events';
import fs from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Cleaning } from '@immeld/core/audio/cleaning/cleaner';
import { Limiter, TARGET_LUFS } from '@immeld/core/audio/cleaning/leveller';
import { LoudnessMeter } from '@immeld/core/audio/loudness';
import { startFfmpeg } from '../media/ffmpeg';
import { projectRoot } from '../projectRoot';
import { cleanedChunks } from './cleanedChunks';
import { decodeSound } from './decodeSound';

const RATE_HZ = 48_000;
const LIMIT_MS = 60 * 60 * 1000;
/** Beyond this, what is brought to the loudness is mostly noise. */
const MAX_GAIN_DB = 30;

const cleanedSound = (source: string, cleaning: Cleaning) =>
  cleanedChunks(decodeSound(source, { rate: RATE_HZ }), RATE_HZ, cleaning);

/** What the cleaned sound has to be raised by to be as loud as EBU R 128 asks, in decibels. */
async function gainFor(source: string, cleaning: Cleaning): Promise<number> {
  if (cleaning.loudness === 0) return 0;
  const meter = new LoudnessMeter(RATE_HZ);
  for await (const chunk of cleanedSound(source, cleaning)) meter.push([chunk]);
  const loudness = meter.integrated();
  return loudness === -Infinity ? 0 : Math.min(MAX_GAIN_DB, TARGET_LUFS - loudness);
}

/**
 * Writes the cleaned sound of a file as AAC in an M4A file; even loudness ends at -23 LUFS.
 * Rejects with a SoundError when there is nothing to hear; the original is never touched.
 */
export async function writeCleanedCopy(source: string, target: string, cleaning: Cleaning): Promise<void> {
  const gain = 10 ** ((await gainFor(source, cleaning)) / 20);
  const limiter = new Limiter(RATE_HZ);
  const { program: encoder, closed } = await startFfmpeg(
    [],
    [
      ...['-y', '-f', 'f32le', '-ar', String(RATE_HZ), '-ac', '1', '-i', 'pipe:0'],
      ...['-c:a', 'aac', '-b:a', '96k', '-f', 'ipod', `file:${target}`],
    ],
    { stdin: 'pipe', limitMs: LIMIT_MS },
  );
  const input = encoder.stdin!;
  // The encoder's end is seen by its code, not by the pipe that broke.
  input.on('error', () => encoder.kill());
  try {
    for await (const chunk of cleanedSound(source, cleaning)) {
      const samples = cleaning.loudness === 0 ? chunk : chunk.map((v) => limiter.step(v * gain));
      const bytes = Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength);
      if (encoder.exitCode !== null) break;
      if (!input.write(bytes)) await Promise.race([once(input, 'drain'), closed]);
    }
  } catch (error) {
    encoder.kill();
    throw error;
  }
  input.end();
  if ((await closed) !== 0)
    throw new Error('The cleaned-up audio could not be saved. The recording is unchanged. Try again.');
}

const workerFile = () => path.join(projectRoot(), 'server', 'dist', 'cleaningWorker.cjs');

/** One at a time: a second one waits, so that recognition keeps its share of the machine. */
let before: Promise<unknown> = Promise.resolve();

/** The same beside the server's own thread; `signal` ends it. */
export function cleanInBackground(
  source: string,
  target: string,
  cleaning: Cleaning,
  signal: AbortSignal,
): Promise<void> {
  const run = async () => {
    signal.throwIfAborted();
    const worker = new Worker(workerFile(), { workerData: { source, target, cleaning } });
    const stop = () => void worker.terminate();
    signal.addEventListener('abort', stop, { once: true });
    try {
      const failure = await new Promise<string | null>((resolve, reject) => {
        worker.once('message', resolve);
        worker.once('error', reject);
        worker.once('exit', () =>
          reject(new Error('The audio could not be cleaned up completely. The recording is unchanged. Try again.')),
        );
      });
      if (failure) throw new Error(failure);
    } catch (error) {
      await fs.promises.rm(target, { force: true });
      throw error;
    } finally {
      signal.removeEventListener('abort', stop);
    }
  };
  const mine = before.then(run, run);
  before = mine.catch(() => undefined);
  return mine;
}
