/**
 * Makes the demo's sound files from the scripts in demo/world with free synthetic voices. Only needed when a script
 * changes: the results are in the repository. Needs Debian's festival, festvox-us-slt-hts, flite and sox.
 */
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { projectRoot } from '@immeld/server/projectRoot';
import { type DemoScript, loadWorld } from './world';

type Voice = { engine: 'festival' | 'awb' | 'rms'; effects: string[]; tempo: number };
type TimedWord = { speaker: string; word: string; startMs: number; endMs: number };

/** Voices: effects are those of sox; `tempo` tells how they change times. */
export const CAST: Record<string, Voice> = {
  Tamsin: { engine: 'festival', effects: [], tempo: 1 },
  Jun: { engine: 'festival', effects: ['pitch', '250', 'tempo', '-s', '1.06'], tempo: 1.06 },
  Malmquist: { engine: 'festival', effects: ['pitch', '-450'], tempo: 1 },
  Bram: { engine: 'awb', effects: [], tempo: 1 },
  Ottoline: { engine: 'festival', effects: ['pitch', '180'], tempo: 1 },
  Petra: { engine: 'festival', effects: ['pitch', '120', 'tempo', '-s', '1.03'], tempo: 1.03 },
};

const SENTENCE_GAP = 0.42;
const TURN_GAP = 0.55;
const PARAGRAPH_GAP = 1.9;
const RATE = 16000;

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-voices-'));
const run = (program: string, ...args: string[]) =>
  execFileSync(program, args, { stdio: ['ignore', 'pipe', 'ignore'] }).toString();

/** One sentence as 16 kHz samples, with its words where the engine tells their times. */
function speak(
  voice: Voice,
  text: string,
): { samples: Int16Array; words: { word: string; start: number; end: number }[] } {
  const raw = path.join(folder, 'raw.wav');
  let words: { word: string; start: number; end: number }[] = [];
  if (voice.engine === 'festival') {
    const scheme = path.join(folder, 'say.scm');
    const quoted = (s: string) => `"${s.replace(/[\\"]/g, '\\$&')}"`;
    fs.writeFileSync(
      scheme,
      `(voice_cmu_us_slt_arctic_hts)
(set! u (utt.synth (eval (list 'Utterance 'Text ${quoted(text)}))))
(mapcar (lambda (w) (format t "%s\\t%.3f\\t%.3f\\n" (item.name w) (item.feat w "word_start") (item.feat w "word_end")))
  (utt.relation.items u 'Word))
(utt.save.wave u ${quoted(raw)} 'riff)`,
    );
    words = run('festival', '-b', scheme)
      .trim()
      .split('\n')
      .map((line) => line.split('\t'))
      .map(([word, start, end]) => ({
        word: word!,
        start: Number(start) / voice.tempo,
        end: Number(end) / voice.tempo,
      }));
  } else run('flite', '-voice', voice.engine, '-t', text, '-o', raw);
  const out = path.join(folder, 'out.raw');
  run(
    'sox',
    '-R',
    raw,
    '-r',
    String(RATE),
    '-c',
    '1',
    '-b',
    '16',
    '-e',
    'signed',
    '-t',
    'raw',
    out,
    'gain',
    '-6',
    ...voice.effects,
    'norm',
    '-3',
  );
  const bytes = fs.readFileSync(out);
  return { samples: new Int16Array(bytes.buffer, bytes.byteOffset, bytes.length >> 1).slice(), words };
}

function make(script: DemoScript): { samples: Int16Array; words: TimedWord[] } {
  const parts: Int16Array[] = [];
  const words: TimedWord[] = [];
  let length = 0;
  const add = (part: Int16Array) => {
    parts.push(part);
    length += part.length;
  };
  const pause = (seconds: number) => {
    // A quiet room is never quite silent.
    let seed = length + 1;
    add(
      Int16Array.from(
        { length: Math.round(seconds * RATE) },
        () => ((seed = (seed * 1103515245 + 12345) & 0x7fffffff) % 9) - 4,
      ),
    );
  };
  pause(0.4);
  for (const { speaker, text, startsParagraph } of script.lines) {
    if (parts.length > 1) pause(startsParagraph ? PARAGRAPH_GAP : TURN_GAP);
    text.split(/(?<=[.?!]) /).forEach((sentence, i) => {
      if (i) pause(SENTENCE_GAP);
      const spoken = speak(CAST[speaker]!, sentence);
      const offset = length / RATE;
      for (const w of spoken.words) {
        const ms = (s: number) => Math.round((offset + s) * 1000);
        words.push({ speaker, word: w.word, startMs: ms(w.start), endMs: ms(w.end) });
      }
      add(spoken.samples);
    });
  }
  pause(0.6);
  const samples = new Int16Array(length);
  let at = 0;
  for (const part of parts) {
    samples.set(part, at);
    at += part.length;
  }
  return { samples, words };
}

const demo = path.join(projectRoot(), 'demo');
const only = process.argv.slice(2);
for (const script of loadWorld(path.join(demo, 'world'))) {
  if (only.length && !only.includes(script.id)) continue;
  const { samples, words } = make(script);
  const raw = path.join(folder, 'whole.raw');
  fs.writeFileSync(raw, Buffer.from(samples.buffer));
  const extension = path.extname(script.file);
  const target = path.join(demo, 'sound', script.id + extension);
  const codec =
    extension === '.m4a'
      ? ['-c:a', 'aac', '-b:a', '32k', '-movflags', '+faststart']
      : ['-c:a', 'libopus', '-b:a', '24k'];
  run('ffmpeg', '-y', '-f', 's16le', '-ar', String(RATE), '-ac', '1', '-i', raw, ...codec, target);
  fs.writeFileSync(
    path.join(demo, 'expected', `${script.id}.words.json`),
    `[\n${words.map((w) => JSON.stringify(w)).join(',\n')}\n]\n`,
  );
  console.log(`${script.id}: ${(samples.length / RATE).toFixed(1)} s, ${words.length} timed words`);
}
fs.rmSync(folder, { recursive: true });
