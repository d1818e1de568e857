import { passageText } from '../transcript/manuscript';
import type { TranscriptDocument } from './document';

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
    words: { startMs: number; endMs: number; text: string; confidence: number }[];
  }[];
};

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
    words: p.words.map(({ startMs, endMs, text, confidence }) => ({ startMs, endMs, text, confidence })),
  })),
});

export const toJson = (document: TranscriptDocument): string =>
  `${JSON.stringify(toTranscriptJson(document), null, 2)}\n`;
