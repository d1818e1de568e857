/**
 * One person speaks: in how many of ten recordings of one voice, of 1 to 15 minutes, one speaker is found. Voices of the demo,
 * of Debian's flite, and the human one of Debian's asterisk-core-sounds-en-g722. Prints a Markdown table.
 */
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import { loadModels } from '../../server/recognition/modelFiles';
import { transcribeFile } from '../../server/recognition/transcribeFile';
import { RATE, clipsOf, decoded, writeWav } from './voices';

const HUMAN = '/usr/share/asterisk/sounds/en';
const TEXTS = '/usr/share/doc/asterisk-core-sounds-en/core-sounds-en.txt.gz';
/** Shorter clips are words for a telephone, not talk. */
const MIN_CLIP_BYTES = 12_000;
const ONE_IN = 10;

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-monologues-'));

function* over<T>(values: readonly T[]): Generator<T> {
  for (;;) yield* values;
}

/** Clips one after the other, from the first again where they do not suffice, with pauses of 0.4 to 1.6 s. */
function joined(clips: readonly Float32Array[], minutes: number): Float32Array {
  if (clips.length === 0) throw new Error('There are no clips of this voice.');
  const sum = new Float32Array(minutes * 60 * RATE);
  let at = RATE / 2;
  let count = 0;
  for (const clip of over(clips)) {
    if (at + clip.length > sum.length) return sum;
    sum.set(clip, at);
    at += clip.length + Math.round((0.4 + (count++ % 4) * 0.4) * RATE);
  }
  return sum;
}

const demo = (speaker: string, ...ids: string[]): Float32Array[] =>
  ids.flatMap((id) => clipsOf(id, speaker, 1200, 12_000)).map(({ samples }) => samples);

const human = (from: number): Float32Array[] =>
  fs
    .readdirSync(HUMAN)
    .filter((name) => name.endsWith('.g722') && fs.statSync(path.join(HUMAN, name)).size > MIN_CLIP_BYTES)
    .sort()
    .filter((_, i) => i % 3 === from)
    .map((name) => decoded(path.join(HUMAN, name), ['-f', 'g722']));

/** What flite reads: the texts of the human clips, a sentence each. */
const sentences = (): string[] =>
  gunzipSync(fs.readFileSync(TEXTS))
    .toString('utf8')
    .split('\n')
    .filter((line) => line && !line.startsWith(';'))
    .map((line) => line.slice(line.indexOf(': ') + 2).replace(/[[(].*?[\])]/g, ''))
    .filter((text) => text.split(/\s+/).length > 6);

function flite(voice: string, from: number): Float32Array[] {
  return sentences()
    .filter((_, i) => i % 6 === from)
    .map((text) => {
      const file = path.join(folder, 'said.wav');
      execFileSync('flite', ['-voice', voice, '-t', text, '-o', file]);
      return decoded(file);
    });
}

type Monologue = { name: string; minutes: number; clips: () => Float32Array[] };
const MONOLOGUES: Monologue[] = [
  { name: 'A person, telephone studio', minutes: 1, clips: () => human(0) },
  { name: 'The same person, other sentences', minutes: 5, clips: () => human(1) },
  { name: 'The same person, others again', minutes: 15, clips: () => human(2) },
  { name: 'Tamsin (demo)', minutes: 4, clips: () => demo('Tamsin', 'letter', 'diary', 'revision', 'morning-memo') },
  { name: 'Malmquist (demo)', minutes: 10, clips: () => demo('Malmquist', 'lecture') },
  { name: 'Jun (demo)', minutes: 2, clips: () => demo('Jun', 'planning-call') },
  { name: 'flite, slt', minutes: 3, clips: () => flite('slt', 0) },
  { name: 'flite, awb', minutes: 6, clips: () => flite('awb', 1) },
  { name: 'flite, rms', minutes: 12, clips: () => flite('rms', 2) },
  { name: 'flite, kal', minutes: 1, clips: () => flite('kal', 3) },
];

async function main(): Promise<void> {
  for (const needed of [HUMAN, TEXTS])
    if (!fs.existsSync(needed)) throw new Error('apt-get install asterisk-core-sounds-en-g722 flite');
  const models = await loadModels();
  const lines = ['| one voice | length | speakers found |', '|---|---|---|'];
  let right = 0;
  for (const { name, minutes, clips } of MONOLOGUES) {
    const file = path.join(folder, 'one.wav');
    writeWav(folder, file, joined(clips(), minutes));
    const { passages } = await transcribeFile(file, models);
    const found = new Set(passages.map((p) => p.speaker)).size;
    if (found === 1) right++;
    lines.push(`| ${name} | ${minutes} min | ${found} |`);
    process.stderr.write(`${lines.at(-1)}\n`);
  }
  const aim = `at least ${ONE_IN - 1} of ${ONE_IN}`;
  console.log(`${lines.join('\n')}\n\nOne speaker in ${right} of ${MONOLOGUES.length} (aim: ${aim}).`);
  fs.rmSync(folder, { recursive: true, force: true });
}

void main();
