import { SpeechSegmenter, DEFAULT_SEGMENTATION_RULES, type Span } from './speechSegmenter';
import type { PreparedNames } from './names/nameCandidates';
import type { RecognitionModels } from './decoder';
import { inModernSpelling } from './modernSpelling';
import { Recogniser, type RecognisedWord } from './recogniser';
import { SampleWindow } from './sampleWindow';
import type { ModelSession } from './session';
import type { Diarizer } from './speakers/diarizer';
import { BLOCK_SAMPLES, FRAME_SAMPLES, FRAME_SECONDS, SpeechDetector } from './speechDetector';

export const SAMPLE_RATE_HZ = 16000;

export type TranscriberModels = RecognitionModels & { detector: ModelSession };

/** A recognised piece with absolute times in milliseconds. */
export type TranscribedPiece = {
  startMs: number;
  endMs: number;
  isDoubtful: boolean;
  words: TranscribedWord[];
};

/** A word with absolute times and a confidence from 0 to 1. */
export type TranscribedWord = {
  text: string;
  startMs: number;
  endMs: number;
  confidence: number;
  others?: string[];
};

export type TranscriberProgress = { processedMs: number };

/** What was recognised in a piece; its words have times from the beginning of the piece. */
export type RecognisedSpeech = { words: TranscribedWord[]; isDoubtful: boolean };

/** The pieces of one sound that are recognised already, so that a transcription that was broken off goes on where it was. */
export interface RecognisedPieces {
  /** @param span in frames of the speech detector from the beginning of the sound */
  find(span: Span): RecognisedSpeech | undefined;
  add(span: Span, speech: RecognisedSpeech): void;
}

/** Word times run only over frames with at least this probability of speech. */
const VOICED = 0.1;

/** From a stream of samples to a stream of recognised pieces, in memory that does not grow with the sound. */
export class Transcriber {
  constructor(private readonly models: TranscriberModels) {}

  /**
   * @param source 16 kHz mono samples in [-1, 1] in chunks of any size
   * @param onProgress called after each piece and each block with the time up to which the sound is done
   * @param names that a person has listed
   * @param known names that are known without being listed
   * @param earlier pieces that need not be recognised again, and where new ones are added
   * @param speakers hears every word, in the order in which they are given out
   * @param signal ends the work between two pieces; the stream then throws the signal's reason
   */
  async *pieces(
    source: AsyncIterable<Float32Array>,
    {
      onProgress,
      signal,
      speakers,
      names = [],
      known = [],
      earlier,
    }: {
      earlier?: RecognisedPieces | undefined;
      names?: PreparedNames;
      known?: PreparedNames;
      onProgress?: (progress: TranscriberProgress) => void;
      signal?: AbortSignal;
      speakers?: Diarizer;
    } = {},
  ): AsyncGenerator<TranscribedPiece> {
    const detector = new SpeechDetector(this.models.runtime, this.models.detector);
    const recogniser = new Recogniser(this.models);
    const cutter = new SpeechSegmenter(DEFAULT_SEGMENTATION_RULES);
    const sound = new SampleWindow();
    const speech = new SampleWindow();

    const hear = async (span: Span, samples: Float32Array): Promise<RecognisedSpeech> => {
      const isVoiced = voicedDuration(speech.slice(span.start, span.end));
      const { words, isDoubtful } = await recogniser.recognise(samples, isVoiced, { names, known, wantsOthers: true });
      const heard = { words: inModernSpelling(words.map((w) => wordWithAbsoluteTime(w, 0))), isDoubtful };
      earlier?.add(span, heard);
      return heard;
    };
    const recognise = async (span: Span): Promise<TranscribedPiece> => {
      signal?.throwIfAborted();
      const samples = sound.slice(span.start * FRAME_SAMPLES, span.end * FRAME_SAMPLES);
      const { words: said, isDoubtful } = earlier?.find(span) ?? (await hear(span, samples));
      speakers?.push(samples, said);
      const startMs = toMs(span.start * FRAME_SECONDS);
      onProgress?.({ processedMs: toMs(span.end * FRAME_SECONDS) });
      return {
        startMs,
        endMs: startMs + toMs(samples.length / SAMPLE_RATE_HZ),
        isDoubtful,
        words: said.map((w) => ({ ...w, startMs: startMs + w.startMs, endMs: startMs + w.endMs })),
      };
    };

    for await (const block of inBlocks(source, BLOCK_SAMPLES)) {
      signal?.throwIfAborted();
      sound.append(block);
      const probabilities = await detector.push(block);
      speech.append(probabilities);
      for (const span of cutter.push(probabilities)) yield await recognise(span);
      sound.dropBefore(cutter.neededFrom * FRAME_SAMPLES);
      speech.dropBefore(cutter.neededFrom);
      onProgress?.({ processedMs: toMs(cutter.neededFrom * FRAME_SECONDS) });
    }
    for (const span of cutter.finish()) yield await recognise(span);
  }
}

const toMs = (seconds: number): number => Math.round(seconds * 1000);

/** Whether speech was detected at a second of a piece, from the piece's frame probabilities. */
export function voicedDuration(probabilities: Float32Array): (second: number) => boolean {
  return (second) => {
    const frame = Math.floor(second / FRAME_SECONDS);
    return (probabilities[frame] ?? 0) >= VOICED || (probabilities[frame + 1] ?? 0) >= VOICED;
  };
}

/** A recognised word moved to where its piece begins. */
export const wordWithAbsoluteTime = (word: RecognisedWord, pieceStartMs: number): TranscribedWord => ({
  text: word.text,
  startMs: pieceStartMs + toMs(word.startSeconds),
  endMs: pieceStartMs + toMs(word.endSeconds),
  confidence: Math.round(word.confidence * 1000) / 1000,
  ...(word.others ? { others: [...word.others] } : {}),
});

async function* inBlocks(source: AsyncIterable<Float32Array>, size: number): AsyncGenerator<Float32Array> {
  let block = new Float32Array(size);
  let filled = 0;
  for await (let chunk of source) {
    while (chunk.length) {
      const taken = Math.min(chunk.length, size - filled);
      block.set(chunk.subarray(0, taken), filled);
      filled += taken;
      chunk = chunk.subarray(taken);
      if (filled === size) {
        yield block;
        block = new Float32Array(size);
        filled = 0;
      }
    }
  }
  if (filled) yield block.subarray(0, filled);
}
