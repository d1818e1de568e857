import fs from 'node:fs';
import { isCleaning } from '@immeld/core/audio/cleaning/cleaner';
import type { SoundOptions } from '@immeld/core/contract/exportEndpoints';
import { containerOf } from '../media/container';
import { inputArguments, startFfmpeg } from '../media/ffmpeg';
import { cleanInBackground } from '../recognition/cleanedCopy';

const CODECS = {
  m4a: ['-c:a', 'aac', '-b:a', '96k', '-f', 'ipod'],
  mp3: ['-c:a', 'libmp3lame', '-q:a', '4', '-f', 'mp3'],
  wav: ['-c:a', 'pcm_s16le', '-f', 'wav'],
} as const;

const LIMIT_MS = 60 * 60 * 1000;

export type Stretch = { startMs: number; endMs: number };

/** The ending of the file that a wish leads to; the original keeps its own. */
export const soundEnding = ({ format, cleaning, marksOnly }: SoundOptions, original: string): string =>
  format !== 'original' ? `.${format}` : marksOnly || (cleaning && isCleaning(cleaning)) ? '.m4a' : original;

/**
 * Writes a sound as it is wanted; the source is never changed.
 * @param marks what of it is wanted, in order; the whole where it is null
 */
export async function writeSound(
  source: string,
  target: string,
  { format, cleaning }: SoundOptions,
  marks: readonly Stretch[] | null,
  signal: AbortSignal,
): Promise<void> {
  const isCleaned = cleaning !== null && isCleaning(cleaning);
  if (format === 'original' && !isCleaned && !marks) return fs.promises.copyFile(source, target);
  const cleaned = `${target}.cleaned.m4a`;
  try {
    if (isCleaned) await cleanInBackground(source, cleaned, cleaning, signal);
    const codec = CODECS[format === 'original' ? 'm4a' : format];
    if (isCleaned && !marks && codec === CODECS.m4a) return await fs.promises.rename(cleaned, target);
    await encode(isCleaned ? cleaned : source, target, codec, marks, signal);
  } finally {
    await fs.promises.rm(cleaned, { force: true });
  }
}

async function encode(
  source: string,
  target: string,
  codec: readonly string[],
  marks: readonly Stretch[] | null,
  signal: AbortSignal,
): Promise<void> {
  signal.throwIfAborted();
  const wanted = marks?.map(({ startMs, endMs }) => `between(t,${startMs / 1000},${endMs / 1000})`).join('+');
  const filter = wanted ? ['-af', `aselect='${wanted}',asetpts=N/SR/TB`] : [];
  const container = await containerOf(source);
  if (!container) throw new Error('The sound could not be read.');
  const args = ['-y', ...inputArguments(container, 3), '-map', '0:a:0', '-vn', ...filter, ...codec, `file:${target}`];
  const { closed } = await startFfmpeg([{ file: source, container }], args, { limitMs: LIMIT_MS, signal });
  const code = await closed;
  signal.throwIfAborted();
  if (code !== 0) throw new Error('The audio could not be saved in this format. Choose another format.');
}
