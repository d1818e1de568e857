import type { Cleaning } from '@immeld/core/audio/cleaning/cleaner';
import { PeakMeter } from '@immeld/core/audio/peaks';
import { type ListedName, prepareNames } from '@immeld/core/speech/names/nameCandidates';
import { soundsEnglish } from '@immeld/core/speech/soundsEnglish';
import {
  type RecognisedPieces,
  SAMPLE_RATE_HZ,
  Transcriber,
  type TranscriberModels,
} from '@immeld/core/speech/transcriber';
import type { Passage, Word } from '@immeld/core/transcript/manuscript';
import { type DiarizedVoice, Diarizer } from '@immeld/core/speech/speakers/diarizer';
import { DEFAULT_PASSAGE_RULES, passagesFrom } from '@immeld/core/transcript/passages';
import { cleanedChunks } from './cleanedChunks';
import { decodeSound } from './decodeSound';
import type { FileTags } from './fileTags';

const NOT_ENGLISH = 'This does not sound like English, or the noise is too loud. The words may be wrong.';

export type FileProgress = { processedMs: number; durationMs: number | null; latestWords: string };
/** A piece that has been recognised, and the loudness of the sound up to here. */
export type FilePiece = { words: readonly Word[]; peaks: () => number[] };
export type FileTranscript = {
  durationMs: number;
  peaks: number[];
  passages: Passage[];
  /** The voices that were told apart, none where one person speaks. */
  voices?: DiarizedVoice[];
  /** Where each further sound begins. */
  seamsMs?: number[];
  /** What the first file says of itself. */
  tags?: FileTags;
  /** A sentence about a sound that ends before the length it states, or is no English; null where nothing is wrong. */
  problem?: string | null;
};

/**
 * Decodes and recognises one sound file of any length and kind.
 * @param cleaning of the sound before it is recognised; null for the sound as it is
 * @param names and terms that a person has listed
 * @param known names of people, projects and folders, which nobody had to list
 * @param earlier pieces of these sounds that were recognised before
 * @param onPiece called after each piece; what it resolves with is waited for before the next
 * @param more further sounds that go on where the file ends
 * @param expectedMs the length when it is known beforehand; else what the file says of itself
 * @throws SoundError when there is nothing to hear; the signal's reason when cancelled
 */
export async function transcribeFile(
  file: string,
  models: TranscriberModels,
  {
    onProgress,
    onPiece,
    signal,
    expectedMs = null,
    more = [],
    names = [],
    known = [],
    cleaning = null,
    earlier,
  }: {
    earlier?: RecognisedPieces | undefined;
    cleaning?: Cleaning | null | undefined;
    names?: readonly ListedName[];
    known?: readonly ListedName[];
    onProgress?: (progress: FileProgress) => void;
    onPiece?: (piece: FilePiece) => Promise<void>;
    signal?: AbortSignal;
    expectedMs?: number | null;
    more?: readonly string[];
  } = {},
): Promise<FileTranscript> {
  const meter = new PeakMeter();
  const words: Word[] = [];
  let durationMs = expectedMs;
  const seamsMs: number[] = [];
  let cutOff: string | null = null;
  let tags: FileTags = { title: null, createdAt: null, place: null, hasVideo: false };
  const metered = (async function* () {
    for (const [i, source] of [file, ...more].entries()) {
      if (i) seamsMs.push(toMs(meter.sampleCount));
      const onDuration = (ms: number) => {
        if (more.length === 0) durationMs ??= ms;
      };
      for await (const chunk of decodeSound(source, {
        signal,
        onDuration,
        onCutOff: (sentence) => (cutOff ??= sentence),
        ...(i ? {} : { onTags: (t: FileTags) => (tags = t) }),
      })) {
        meter.push(chunk);
        yield chunk;
      }
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
  const finder = new Diarizer();
  const pieces = new Transcriber(models).pieces(cleaning ? cleanedChunks(metered, SAMPLE_RATE_HZ, cleaning) : metered, {
    signal,
    speakers: finder,
    names: prepareNames(names),
    known: prepareNames(known),
    earlier,
    onProgress: ({ processedMs }) => report(processedMs),
  });
  for await (const piece of pieces) {
    const heard = piece.words.map((w) => (piece.isDoubtful ? { ...w, confidence: Math.min(w.confidence, 0.3) } : w));
    words.push(...heard);
    report(piece.endMs);
    await onPiece?.({ words: heard, peaks: () => meter.peaks() });
  }
  const { speakers, voices } = finder.find();
  return {
    durationMs: toMs(meter.sampleCount),
    ...{ seamsMs, tags, voices, problem: cutOff ?? (soundsEnglish(words) ? null : NOT_ENGLISH) },
    peaks: meter.peaks(),
    passages: passagesFrom(words, DEFAULT_PASSAGE_RULES, speakers),
  };
}

const toMs = (samples: number): number => Math.round((samples / SAMPLE_RATE_HZ) * 1000);
