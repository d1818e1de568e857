/** Sound of one voice each, for the benches of who speaks. */
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { projectRoot } from '../../server/projectRoot';

/** Samples per second. */
export const RATE = 16_000;
const root = projectRoot();
type TimedWord = { speaker: string; word: string; startMs: number; endMs: number };
export type Clip = { samples: Float32Array };

/** A sound file as samples from -1 to 1. @param input arguments of ffmpeg that say what it is, where its name does not */
export function decoded(file: string, input: readonly string[] = []): Float32Array {
  const raw = execFileSync(
    'ffmpeg',
    ['-loglevel', 'error', ...input, '-i', file, '-ar', String(RATE), '-ac', '1', '-f', 'f32le', '-'],
    { maxBuffer: 1e9 },
  );
  return new Float32Array(new Uint8Array(raw).buffer);
}

/** A demo recording as samples from -1 to 1 at `RATE`. */
export function samplesOf(id: string): Float32Array {
  const name = fs.readdirSync(path.join(root, 'demo', 'sound')).find((n) => path.parse(n).name === id)!;
  return decoded(path.join(root, 'demo', 'sound', name));
}

/** What one person says in a recording, cut at pauses, in pieces of a wanted length. */
export function clipsOf(id: string, speaker: string, shortestMs: number, longestMs: number): Clip[] {
  const samples = samplesOf(id);
  const words = JSON.parse(
    fs.readFileSync(path.join(root, 'demo', 'expected', `${id}.words.json`), 'utf8'),
  ) as TimedWord[];
  const groups: TimedWord[][] = [];
  for (const word of words) {
    const last = groups.at(-1)?.at(-1);
    if (last?.speaker === word.speaker && word.startMs - last.endMs < 200) groups.at(-1)!.push(word);
    else groups.push([word]);
  }
  return groups
    .map((g) => ({ speaker: g[0]!.speaker, from: g[0]!.startMs, to: g.at(-1)!.endMs }))
    .filter((g) => g.speaker === speaker && g.to - g.from >= shortestMs && g.to - g.from <= longestMs)
    .map(({ from, to }) => ({ samples: samples.slice((from / 1000) * RATE, (to / 1000) * RATE) }));
}

/** Writes samples as a WAV file, by way of a raw file in the folder. */
export function writeWav(folder: string, file: string, samples: Float32Array): void {
  const raw = path.join(folder, 'raw.f32');
  fs.writeFileSync(raw, Buffer.from(samples.buffer));
  execFileSync('ffmpeg', [
    ...['-y', '-loglevel', 'error', '-f', 'f32le', '-ar', String(RATE), '-ac', '1', '-i', raw, file],
  ]);
}
