/**
 * How well slides find their places, and what a large deck takes.
 * Usage: npx tsx tools/bench/slides.ts
 */
import { fork } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { readSlides } from '../../demo/src/world';
import { sentencesOf } from '../../core/language/sentences';
import { type SlideWords, placeSlides } from '../../core/slides/placeSlides';
import type { Word } from '../../core/transcript/manuscript';
import { plainSlidesPdf } from '../../server/slides/plainSlides';
import { DEFAULT_PASSAGE_RULES, passagesFrom } from '../../core/transcript/passages';

const NEAR_MS = 10_000;
const root = path.join(__dirname, '..', '..');
type Talk = { slides: (SlideWords & { startMs: number | null })[]; words: Word[] };

/** The demo's lecture: the words as they were recognised, the true seconds from its synthesiser. */
function demoLecture(): Talk {
  const read = (file: string) => JSON.parse(fs.readFileSync(path.join(root, 'demo', file), 'utf8')) as unknown;
  const spoken = read('expected/lecture.words.json') as { word: string; startMs: number }[];
  const plain = (text: string) => text.toLowerCase().match(/[\p{L}\p{N}']+/gu)!;
  const said = spoken.map(({ word }) => plain(word)[0]);
  const slides = readSlides(path.join(root, 'demo/slides/lecture.txt')).map(({ title, from, lines }) => {
    const opening = plain(from);
    const at = said.findIndex((_, i) => opening.every((word, k) => said[i + k] === word));
    if (at < 0) throw new Error(`Nobody says “${from}”.`);
    return { title, text: [title, ...lines].join('\n'), startMs: spoken[at]!.startMs };
  });
  const { passages } = read('expected/lecture.transcript.json') as { passages: { words: Word[] }[] };
  return { slides, words: passages.flatMap((p) => p.words) };
}

/** A lecture that was written, not spoken: 150 words a minute, a short pause after each sentence. */
function writtenLecture(file: string): Talk {
  const blocks = fs
    .readFileSync(path.join(__dirname, 'slides', file), 'utf8')
    .split(/^(?=[#!] )/m)
    .slice(1);
  const words: Word[] = [];
  let now = 0;
  const slides = blocks.map((block) => {
    const [title, ...lines] = block.trim().split('\n') as [string, ...string[]];
    const shown = lines.filter((l) => l.startsWith('- ')).map((l) => l.slice(2));
    const startMs = title.startsWith('!') ? null : now;
    for (const text of lines
      .filter((l) => !l.startsWith('- '))
      .join(' ')
      .split(/\s+/)
      .filter(Boolean)) {
      words.push({ text, startMs: now, endMs: now + 340, confidence: 1 });
      now += /[.?!]$/.test(text) ? 1000 : 400;
    }
    return { title: title.slice(2), text: [title.slice(2), ...shown].join('\n'), startMs };
  });
  return { slides, words };
}

for (const [name, { slides, words }] of [
  ['demo lecture, as it was recognised', demoLecture()],
  ['lecture about an orchard, as it was written', writtenLecture('orchard.txt')],
] as const) {
  const sentences = sentencesOf(passagesFrom(words, DEFAULT_PASSAGE_RULES));
  const begun = performance.now();
  const places = placeSlides(slides, sentences);
  const took = performance.now() - begun;
  const shown = slides.map((s, i) => ({ ...s, place: places[i]! })).filter((s) => s.startMs !== null);
  const near = shown.filter((s) => s.place !== null && Math.abs(s.place - s.startMs!) <= NEAR_MS);
  const unshown = slides.filter((s) => s.startMs === null).length;
  const passed = slides.filter((s, i) => s.startMs === null && places[i] === null).length;
  console.log(
    `${name}: ${near.length} of ${shown.length} slides within 10 s (${((100 * near.length) / shown.length).toFixed(0)} %); ` +
      `${passed} of ${unshown} that were not shown are passed over; ${took.toFixed(0)} ms`,
  );
  if (process.argv.includes('--each'))
    for (const { title, startMs, place } of shown)
      console.log(`  ${title}: ${startMs! / 1000} s, placed ${place === null ? 'nowhere' : `${place / 1000} s`}`);
}

/** A deck of 200 slides in the process of its own in which the server reads it; its peak of memory by the system's count. */
async function largeDeck(): Promise<void> {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-deck-'));
  const file = path.join(folder, 'deck.pdf');
  const slides = readSlides(path.join(root, 'demo/slides/lecture.txt'));
  fs.writeFileSync(file, await plainSlidesPdf(Array.from({ length: 10 }, () => slides).flat()));
  const begun = performance.now();
  const child = fork(path.join(root, 'server/dist/heavyProcess.cjs'), [], {
    ...{ serialization: 'advanced', stdio: ['ignore', 'ignore', 'ignore', 'ipc'] },
    execArgv: ['--max-old-space-size=900'],
  });
  let peak = 0;
  const watch = setInterval(() => {
    const status = fs.readFileSync(`/proc/${child.pid}/status`, 'utf8');
    peak = Math.max(peak, Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? 0));
  }, 50);
  const read = await new Promise<{ slides: { picture: string | null }[] }>((resolve, reject) => {
    child.on('message', (message: { result?: never; problem?: string }) => {
      if (message.result) resolve(message.result);
      else if (message.problem) reject(new Error(message.problem));
    });
    child.send({ kind: 'deck', file, form: 'pdf', folder });
  });
  clearInterval(watch);
  child.kill();
  const drawn = read.slides.filter((s) => s.picture).length;
  const seconds = (performance.now() - begun) / 1000;
  console.log(
    `a deck of ${read.slides.length} slides, ${drawn} drawn: ${seconds.toFixed(1)} s, ${Math.round(peak / 1024)} MB`,
  );
  fs.rmSync(folder, { recursive: true });
}
void largeDeck();
