import fs from 'node:fs';
import type { RecordingCard } from '@immeld/core/contract/recordings';
import type { Immeld } from './immeld';

/** How often browser and server are killed; the bench does it more often. */
export const TIMES = Number(process.env['IMMELD_KILLS'] ?? 3);

const results = process.env['IMMELD_KILL_RESULTS'];
/** Keeps what was seen at one kill, for the bench. */
export const note = (line: object) => results && fs.appendFileSync(results, `${JSON.stringify(line)}\n`);

/** Numbers from 0 to 1 that are the same in every run (mulberry32, public domain). */
export function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** All recordings; none as long as the server does not answer. */
export const all = (immeld: Immeld) =>
  immeld
    .ask<{ total: number; items: RecordingCard[] }>('/recordings?limit=200')
    .catch(() => ({ total: -1, items: [] }));
