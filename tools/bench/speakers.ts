/** Who speaks when: diarisation error on dialogues cut together from the demo's voices. Prints a Markdown table. */
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { type Turn, diarisationError } from '../../core/speech/speakers/diarisationError';
import { paragraphsOf } from '../../core/transcript/manuscript';
import { loadModels } from '../../server/recognition/modelFiles';
import { transcribeFile } from '../../server/recognition/transcribeFile';
import { type Clip, RATE, clipsOf, writeWav } from './voices';

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-speakers-'));
/** Numbers that look random and are the same every time (Park and Miller 1988). */
function random(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

type Mix = { name: string; aim: string; voices: [name: string, clips: Clip[]][]; gapMs: number; noiseDb?: number };

const sentences = (id: string, speaker: string) => clipsOf(id, speaker, 1500, 9000);
const shorts = (id: string, speaker: string) => clipsOf(id, speaker, 250, 900);
const tamsin = [...sentences('letter', 'Tamsin'), ...sentences('diary', 'Tamsin'), ...sentences('revision', 'Tamsin')];
const malmquist = sentences('lecture', 'Malmquist').slice(0, 40);
const jun = sentences('planning-call', 'Jun');
const petra = sentences('voice-message', 'Petra');
const shortOnes = [...shorts('letter', 'Tamsin'), ...shorts('diary', 'Tamsin'), ...shorts('quay-walk', 'Tamsin')];

const MIXES: Mix[] = [
  {
    name: 'Two clear voices',
    aim: 'under 6 %',
    gapMs: 500,
    voices: [
      ['a', tamsin],
      ['b', malmquist],
    ],
  },
  {
    name: 'Two other clear voices',
    aim: 'under 6 %',
    gapMs: 500,
    voices: [
      ['a', jun],
      ['b', malmquist],
    ],
  },
  {
    name: 'Three clear voices',
    aim: 'under 6 %',
    gapMs: 500,
    voices: [
      ['a', tamsin],
      ['b', malmquist],
      ['c', jun],
    ],
  },
  {
    name: 'A hard pair (one voice, raised by 1.2 semitones)',
    aim: 'reported',
    gapMs: 500,
    voices: [
      ['a', tamsin],
      ['b', petra],
    ],
  },
  {
    name: 'Turns that overlap by 0.6 s',
    aim: 'reported',
    gapMs: -600,
    voices: [
      ['a', tamsin],
      ['b', malmquist],
    ],
  },
  {
    name: 'Turns of one or two words between long ones',
    aim: 'reported',
    gapMs: 350,
    voices: [
      ['a', shortOnes],
      ['b', malmquist],
    ],
  },
  {
    name: 'Two clear voices in pink noise, 15 dB below',
    aim: 'reported',
    gapMs: 500,
    noiseDb: 15,
    voices: [
      ['a', tamsin],
      ['b', malmquist],
    ],
  },
];

/** Sixteen turns in changing order, with what is true of them. */
function build({ voices, gapMs, noiseDb }: Mix, seed: number): { samples: Float32Array; turns: Turn[] } {
  const next = random(seed);
  const turns: Turn[] = [];
  const placed: { at: number; samples: Float32Array }[] = [];
  let at = RATE / 2;
  let last = -1;
  for (let i = 0; i < 16; i++) {
    let voice = Math.floor(next() * voices.length);
    if (voice === last) voice = (voice + 1) % voices.length;
    last = voice;
    const [speaker, clips] = voices[voice]!;
    const { samples } = clips[Math.floor(next() * clips.length)]!;
    placed.push({ at, samples });
    turns.push({ speaker, startMs: (at / RATE) * 1000, endMs: ((at + samples.length) / RATE) * 1000 });
    at += samples.length + Math.round((gapMs / 1000) * RATE);
  }
  const sum = new Float32Array(at + 2 * RATE);
  for (const clip of placed) clip.samples.forEach((value, i) => (sum[Math.max(0, clip.at) + i]! += value * 0.7));
  if (noiseDb !== undefined) addPinkNoise(sum, noiseDb, next);
  return { samples: sum, turns };
}

/** Pink noise by Voss and McCartney: rows of random numbers that change half as often each. */
function addPinkNoise(samples: Float32Array, belowDb: number, next: () => number): void {
  const speech = Math.sqrt(samples.reduce((s, v) => s + v * v, 0) / samples.length);
  const rows = new Float64Array(12);
  const noise = samples.map((_, i) => {
    for (let row = 0; row < rows.length; row++) if (i % 2 ** row === 0) rows[row] = next() - 0.5;
    return rows.reduce((a, b) => a + b, 0);
  });
  const level = Math.sqrt(noise.reduce((s, v) => s + v * v, 0) / noise.length);
  const gain = (speech / level) * 10 ** (-belowDb / 20);
  samples.forEach((value, i) => (samples[i] = value + noise[i]! * gain));
}

async function main(): Promise<void> {
  const models = await loadModels();
  const lines = [
    '| dialogue of 16 turns | speakers found | diarisation error (two seeds) | confused | aim |',
    '|---|---|---|---|---|',
  ];
  for (const mix of MIXES) {
    const runs: { rate: number; confused: number; found: number }[] = [];
    for (const seed of [7, 1234]) {
      const { samples, turns } = build(mix, seed);
      const file = path.join(folder, 'mix.wav');
      writeWav(folder, file, samples);
      const { passages } = await transcribeFile(file, models);
      const found = paragraphsOf(passages.map((p) => ({ ...p, startsParagraph: false }))).flatMap((group) =>
        turnsOf(
          group[0]!.speaker ?? 'one',
          group.flatMap((p) => p.words),
        ),
      );
      const error = diarisationError(turns, found);
      const count = new Set(found.map((t) => t.speaker)).size;
      runs.push({ rate: error.rate, confused: error.confusedMs / error.speechMs, found: count });
    }
    const of = (value: (run: (typeof runs)[number]) => string) => runs.map(value).join(' and ');
    const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
    lines.push(
      `| ${mix.name} | ${of((r) => String(r.found))} of ${mix.voices.length} | ${of((r) => percent(r.rate))} | ${of((r) => percent(r.confused))} | ${mix.aim} |`,
    );
    process.stderr.write(`${lines.at(-1)}\n`);
  }
  console.log(lines.join('\n'));
  fs.rmSync(folder, { recursive: true, force: true });
}

/** Words with pauses of up to a second between them are one turn. */
function turnsOf(speaker: string, words: readonly { startMs: number; endMs: number }[]): Turn[] {
  const turns: Turn[] = [];
  for (const { startMs, endMs } of words) {
    const last = turns.at(-1);
    if (last && startMs - last.endMs < 1000) last.endMs = endMs;
    else turns.push({ speaker, startMs, endMs });
  }
  return turns;
}

void main();
