import { v4 as newId } from 'uuid';
import { localTime } from '../ui/dates';

/**
 * recording: sound is still coming in · stopped: cut off a short while ago, and may go on · waiting: complete, to be sent
 * · sending · refused: sending again is of no use · thrown: thrown away, for thirty days · sent: the server has confirmed
 * the hash, the sound is no longer kept here.
 */
export type CaptureState = 'recording' | 'stopped' | 'waiting' | 'sending' | 'refused' | 'thrown' | 'sent';

/** A sound on this device that the server does not have for certain yet. */
export type Capture = {
  id: string;
  name: string;
  mediaType: string;
  /** Local time: `2026-03-09T07:40:12`. */
  startedAt: string;
  source: 'speak' | 'import';
  state: CaptureState;
  durationMs: number | null;
  sizeBytes: number;
  /** It was cut off, and came back by itself. */
  isRecovered: boolean;
  /** When it was thrown away; milliseconds since 1970. */
  thrownAt: number | null;
  /** When its microphone was disconnected; milliseconds since 1970. */
  stoppedAt?: number;
  uploadAddress: string | null;
  sha256: string | null;
  recordingId: string | null;
  /** When the same sound had come in before; local time. */
  hereSince: string | null;
  problem: string | null;
  /** What the server is told beside the sound, such as the appointment it belongs to. */
  details: Record<string, string>;
};

/** So long after its end a recording that was cut off may go on; after that it is finished. */
const MAY_GO_ON_MS = 10 * 60_000;

/** Whether a recording was cut off so lately that its person may want to go on. */
export const mayGoOn = (capture: Capture): boolean => Date.now() < goesOnUntil(capture);

/** Until when its person is asked whether it goes on, in milliseconds since 1970. */
export const goesOnUntil = ({ startedAt, durationMs, stoppedAt }: Capture): number =>
  (stoppedAt ?? +new Date(startedAt) + (durationMs ?? 0)) + MAY_GO_ON_MS;

/** A file that the person chose, as a capture to be sent. */
export const captureOf = (file: File, details: Record<string, string> = {}): Capture => ({
  id: newId(),
  name: file.name,
  mediaType: file.type,
  startedAt: localTime(new Date(file.lastModified || Date.now())),
  ...{ source: 'import', state: 'waiting', durationMs: null, sizeBytes: file.size, isRecovered: false },
  ...{ thrownAt: null, uploadAddress: null, sha256: null, recordingId: null, hereSince: null, problem: null },
  details,
});
