import type { Cleaning } from '@immeld/core/audio/cleaning/cleaner';
import type { FilingContext, Proposals } from '@immeld/core/filing/proposals';
import type { Aside, AsidePhrases } from '@immeld/core/language/asides';
import type { Passage } from '@immeld/core/transcript/manuscript';
import type { Quality } from '@immeld/core/speech/packs';
import type { ListedName } from '@immeld/core/speech/names/nameCandidates';
import type { FileProgress, FileTranscript } from '../recognition/transcribeFile';

/** What the server asks of a recognition worker. */
export type WorkerTask = {
  jobId: string;
  soundFile: string;
  /** Sounds that were added later, in their order. */
  moreSoundFiles: string[];
  expectedMs: number | null;
  /** Where recognised pieces are kept, so that it goes on where it was after a new start of the server; null for nowhere. */
  pieceFile: string | null;
  /** Words that begin before this are among those that can be read already. */
  draftedMs: number;
  playback: { target: string; isWebm: boolean } | null;
  filing: FilingContext;
  /** Names and terms that the person has listed. */
  names: ListedName[];
  /** How the sound is cleaned first; null for as it is. */
  cleaning: Cleaning | null;
  /** Which pack transcribes. */
  quality: Quality;
  /** The phrases of asides, or null where none are listened for. */
  asides: AsidePhrases | null;
};

export type WorkerResult = FileTranscript & {
  proposals: Proposals;
  asides: Aside[];
  hasPlaybackCopy: boolean;
  /** The pack that made it. */
  model: string;
};

export type ToWorker =
  | { type: 'task'; task: WorkerTask }
  | { type: 'cancel'; jobId: string }
  /** To pause after the piece that it is at, and to go on from there. */
  | { type: 'hold'; jobId: string }
  | { type: 'go-on'; jobId: string };

/** How far a recognition is, with what can be read of it since the last time. */
export type WorkerProgress = FileProgress & { draft: { passages: Passage[]; peaks: number[] } | null };

export type FromWorker =
  | { type: 'progress'; jobId: string; progress: WorkerProgress }
  | { type: 'done'; jobId: string; result: WorkerResult }
  | { type: 'failed'; jobId: string; message: string; isSoundProblem: boolean };
