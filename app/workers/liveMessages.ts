import type { LiveUpdate } from '@immeld/core/speech/liveTranscriber';
import type { ListedName } from '@immeld/core/speech/names/nameCandidates';

/** What the page tells the worker that recognises speech on the device. */
export type ToLiveWorker =
  | { type: 'load'; files: { name: string; address: string }[]; glue: string }
  /** Sound of a session; `rate` in hertz. A new session number begins a new text. */
  | { type: 'sound'; session: number; samples: Float32Array; rate: number }
  | { type: 'end'; session: number }
  /** Names and terms to expect in the sessions that begin from now on. */
  | { type: 'names'; names: readonly ListedName[] };

/** What the worker tells the page. `lagMs` is how far the text is behind the sound. */
export type FromLiveWorker =
  | { type: 'ready'; loadMs: number }
  | ({ type: 'text'; session: number; lagMs: number } & LiveUpdate)
  | { type: 'ended'; session: number }
  | { type: 'problem'; message: string };

export const PACK_CACHE = 'immeld-packs-1';
