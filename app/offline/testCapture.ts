import { v4 as newId } from 'uuid';
import type { Capture } from './captures';

/** A capture for tests. */
export const testCapture = (part: Partial<Capture> = {}): Capture => ({
  id: newId(),
  name: 'Spoken.webm',
  mediaType: 'audio/webm',
  startedAt: '2026-03-09T07:40:12',
  source: 'speak',
  state: 'recording',
  durationMs: null,
  sizeBytes: 0,
  isRecovered: false,
  thrownAt: null,
  uploadAddress: null,
  sha256: null,
  recordingId: null,
  hereSince: null,
  problem: null,
  details: {},
  ...part,
});

export const bytes = (...values: number[]): ArrayBuffer => Uint8Array.from(values).buffer;
