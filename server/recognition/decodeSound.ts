import fs from 'node:fs';
import type { Readable } from 'node:stream';
import { clockTime } from '@immeld/core/formats/times';
import { SAMPLE_RATE_HZ } from '@immeld/core/speech/transcriber';
import { type Container, containerOf } from '../media/container';
import { type Source, inputArguments, startFfmpeg } from '../media/ffmpeg';
import { BoxError } from '../media/moovFirst';
import { statedLength } from '../media/statedLength';
import { type FileTags, tagsFrom } from './fileTags';

export type SoundProblem = 'empty' | 'not-sound' | 'no-sound-track';

/** A file that cannot be heard, with a sentence for the person who brought it. */
export class SoundError extends Error {
  constructor(
    readonly problem: SoundProblem,
    message: string,
  ) {
    super(message);
    this.name = 'SoundError';
  }
}

/** Less than this is what encoders leave out, or count for more than there is. */
const CUT_OFF_MS = 2000;

/**
 * A sentence about a file that ends before the length that it states, null for one that is whole. A picture may go on
 * after the sound of a video, and lengths may be guessed from the size of the file: both are no proof.
 */
function cutOffFrom(
  report: string,
  { readMs, statedMs, hasVideo }: { readMs: number; statedMs: number | null; hasVideo: boolean },
): string | null {
  if (statedMs === null || statedMs - readMs < CUT_OFF_MS) return null;
  const isProof = !hasVideo && !/Estimating duration from bitrate/.test(report);
  if (!isProof && !/partial file/.test(report)) return null;
  return `This file is cut off: ${clockTime(readMs)} of ${clockTime(statedMs)} could be read. That part is saved.`;
}

/** A decoder that hangs is ended. It waits for the recogniser, and a long sound may pause for shorter ones on its way. */
const DECODER_LIMIT_MS = 24 * 60 * 60 * 1000;
/** Nobody records longer in one piece; a small file may claim, or unpack to, far more. */
const MAX_SECONDS = 24 * 3600;

/** Characters of the decoder's report that are kept: of its last words, and of all that it says before it begins. */
const MAX_REPORT = 20_000;
const MAX_HEAD = 1_000_000;

/** Only the first sound track, as raw samples. */
const outputArguments = (rate: number): string[] => [
  ...['-map', '0:a:0', '-vn', '-sn', '-dn', '-t', String(MAX_SECONDS)],
  ...['-ac', '1', '-ar', String(rate), '-f', 'f32le', 'pipe:1'],
];

const notSound = () =>
  new SoundError(
    'not-sound',
    'This file could not be read as audio. It may be damaged, or its name may not match its contents. The original file is unchanged.',
  );

/** What a file is. Throws SoundError where its bytes are not those of a sound or video. */
async function heardContainer(file: string): Promise<Container> {
  const container = await containerOf(file);
  if (!container || container.kind === 'picture') throw notSound();
  return container;
}

/** Starts the decoder of a file. Throws SoundError where the index of the file is damaged. */
async function decoderOf(source: Source, rate: number, signal: AbortSignal | undefined) {
  const options = { limitMs: DECODER_LIMIT_MS, signal, stdout: 'pipe', loglevel: 'info' } as const;
  return startFfmpeg([source], [...inputArguments(source.container, 3), ...outputArguments(rate)], options).catch(
    (error: unknown) => {
      throw error instanceof BoxError ? notSound() : error;
    },
  );
}

/**
 * Decodes any sound or video file to one channel, in chunks, without holding the file in memory.
 * A file that breaks off yields what could be read. Throws SoundError when there is nothing to hear.
 * @param rate samples per second, 16 kHz unless said otherwise
 * @param onDuration told the length that the file states, if it does
 * @param onCutOff told, after its last chunk, a sentence about a file that ends before its stated length
 * @param onTags told its title and when it was made, as far as it says so; at the latest after the last chunk
 */
export async function* decodeSound(
  file: string,
  {
    signal,
    onDuration,
    onTags,
    onCutOff,
    rate = SAMPLE_RATE_HZ,
  }: {
    signal?: AbortSignal | undefined;
    onDuration?: (durationMs: number) => void;
    onTags?: (tags: FileTags) => void;
    onCutOff?: (sentence: string) => void;
    rate?: number;
  } = {},
): AsyncGenerator<Float32Array> {
  const { size } = await fs.promises.stat(file);
  if (size === 0) throw new SoundError('empty', 'This file is empty: it contains no audio. Nothing was changed.');
  const container = await heardContainer(file);
  let statedMs = await statedLength(file, container);
  if (statedMs !== null) onDuration?.(statedMs);
  const { program: decoder, closed } = await decoderOf({ file, container }, rate, signal);
  let report = '';
  let tags: FileTags | null = null;
  // Sound and report come by two ways: the first samples may be here before the decoder has said what they are of.
  const tell = () => {
    if (tags) return;
    tags = tagsFrom(report);
    onTags?.(tags);
  };
  decoder.stderr!.on('data', (text: Buffer) => {
    report += text.toString('utf8');
    if (/^Stream mapping:/m.test(report)) tell();
    if (tags || report.length > MAX_HEAD) report = report.slice(-MAX_REPORT);
    const stated = /Duration: (\d+):(\d\d):(\d\d\.\d+)/.exec(report);
    if (stated && statedMs === null) {
      statedMs = Math.round((Number(stated[1]) * 3600 + Number(stated[2]) * 60 + Number(stated[3])) * 1000);
      onDuration?.(statedMs);
    }
  });
  let bytes = 0;
  try {
    for await (const chunk of floats(decoder.stdout!)) {
      bytes += chunk.byteLength;
      yield chunk;
    }
    await closed;
    signal?.throwIfAborted();
    if (bytes === 0) throw soundErrorFrom(report);
    tell();
    const hasVideo = tags!.hasVideo;
    const sentence = cutOffFrom(report, { readMs: (bytes / 4 / rate) * 1000, statedMs, hasVideo });
    if (sentence) onCutOff?.(sentence);
  } finally {
    decoder.kill('SIGKILL');
  }
}

/** Samples from the decoder's output; a sample cut in two by the pipe is put together again. */
async function* floats(output: Readable): AsyncGenerator<Float32Array> {
  let rest = Buffer.alloc(0);
  for await (const data of output) {
    const bytes = rest.length ? Buffer.concat([rest, data as Buffer]) : (data as Buffer);
    const whole = bytes.length - (bytes.length % 4);
    rest = Buffer.from(bytes.subarray(whole));
    if (whole) yield new Float32Array(Uint8Array.from(bytes.subarray(0, whole)).buffer);
  }
}

function soundErrorFrom(report: string): SoundError {
  if (/Stream map '0:a:0' matches no streams|does not contain any stream/.test(report)) {
    return new SoundError(
      'no-sound-track',
      'This file has no audio track, so there is nothing to transcribe. Import a file with audio.',
    );
  }
  return notSound();
}
