import { PeakMeter } from '@immeld/core/audio/peaks';
import { SAMPLE_RATE_HZ, Transcriber, type TranscriberModels } from '@immeld/core/speech/transcriber';
import type { Passage, Word } from '@immeld/core/transcript/manuscript';
import { passagesFrom } from '@immeld/core/transcript/passages';
import { decodeSound } from './decodeSound';

export type FileProgress = { processedMs: number; durationMs: number | null; latestWords: string };
export type FileTranscript = { durationMs: number; peaks: number[]; passages: Passage[] };

/**
 * Decodes and recognises one sound file of any length and kind.
 * @param expectedMs the length when it is known beforehand; else what the file says of itself
 * @throws SoundError when there is nothing to hear; the signal's reason when cancelled
 */
export async function transcribeFile(
  file: string,
  models: TranscriberModels,
  {
    onProgress,
    signal,
    expectedMs = null,
  }: {
    onProgress?: (progress: FileProgress) => void;
    signal?: AbortSignal;
    expectedMs?: number | null;
  } = {},
): Promise<FileTranscript> {
  const meter = new PeakMeter();
  const words: Word[] = [];
  let durationMs = expectedMs;
  const sound = decodeSound(file, { signal, onDuration: (ms) => (durationMs ??= ms) });
  const metered = (async function* () {
    for await (const chunk of sound) {
      meter.push(chunk);
      yield chunk;
    }
  })();
  const report = (processedMs: number) =>
    onProgress?.({
      processedMs,
      durationMs,
      latestWords: words
        .slice(-14)
        .map((w) => w.text)
        .join(' '),
    });
  const pieces = new Transcriber(models).pieces(metered, {
    signal,
    onProgress: ({ processedMs }) => report(processedMs),
  });
  for await (const piece of pieces) {
    words.push(...piece.words.map((w) => (piece.isDoubtful ? { ...w, confidence: Math.min(w.confidence, 0.3) } : w)));
    report(piece.endMs);
  }
  return {
    durationMs: Math.round((meter.sampleCount / SAMPLE_RATE_HZ) * 1000),
    peaks: meter.peaks(),
    passages: passagesFrom(words),
  };
}
