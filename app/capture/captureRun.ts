import type { GapFinder } from './gapFinder';
import type { JournalWriter } from './journalWriter';
import type { PieceWriter } from './pieceWriter';
import type { OpenSources } from './sources';

/** All that belongs to the recording under way. */
export type CaptureRun = {
  id: string;
  sources: OpenSources;
  recorder: MediaRecorder;
  pieces: PieceWriter;
  journal: JournalWriter;
  isThrownAway: boolean;
  isUnplugged: boolean;
  /** For how long every sample has been exactly 0. */
  nothingForMs: number;
  pausedAt: number | null;
  mutedAt: number | null;
  gaps: GapFinder;
  lastSpaceCheck: number;
  lastTextKept: number;
  watch: ReturnType<typeof setInterval>;
  letScreenGo: () => void;
  letPageGo: () => void;
  releaseLock: () => void;
};
