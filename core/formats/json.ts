import type { WrittenWord } from '../transcript/inverseTextNormalisation';
import { type Word, passageText } from '../transcript/manuscript';
import type { TranscriptDocument } from './document';

type TimedText = { startMs: number; endMs: number; text: string; confidence: number };

/** The documented JSON of a transcript; see docs/api/transcript.md. Times are integers in milliseconds. */
export type TranscriptJson = {
  file: string;
  durationMs: number;
  language: string;
  model: string;
  consent?: string[];
  passages: {
    startMs: number;
    endMs: number;
    speaker: string | null;
    text: string;
    /** `spoken` where a figure took the place of words: what was said, with its times. */
    words: (TimedText & { spoken?: TimedText[] })[];
  }[];
};

const timed = ({ startMs, endMs, text, confidence }: Word): TimedText => ({ startMs, endMs, text, confidence });

export const toTranscriptJson = (document: TranscriptDocument): TranscriptJson => ({
  file: document.file,
  durationMs: document.durationMs,
  language: document.language,
  model: document.model,
  ...(document.consent?.length ? { consent: document.consent } : {}),
  passages: document.passages.map((p) => ({
    startMs: p.startMs,
    endMs: p.endMs,
    speaker: p.speaker,
    text: passageText(p),
    words: p.words.map((word: WrittenWord) => ({
      ...timed(word),
      ...(word.spoken ? { spoken: word.spoken.map(timed) } : {}),
    })),
  })),
});

export const toJson = (document: TranscriptDocument): string =>
  `${JSON.stringify(toTranscriptJson(document), null, 2)}\n`;
