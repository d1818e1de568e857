import type { Passage } from '../transcript/manuscript';

/** What every export format is made from. `startedAt` is local time, `2026-03-09T07:40`. */
export type TranscriptDocument = {
  file: string;
  title: string | null;
  durationMs: number;
  language: string;
  model: string;
  passages: Passage[];
  /** Who agreed to the recording and how, one sentence each; left out of an export unless wanted. */
  consent?: string[];
  /** What stands in the margin, for formats that can hold it beside the words. */
  notes?: { startMs: number; text: string }[];
};
