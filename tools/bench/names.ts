/**
 * Names and terms: how many of 20 invented names are right before and after they are listed, and how often a listed name
 * is put where nobody said it. Half of the names are for choosing the settings (`--tuning`), half for the figure. Needs
 * Debian's flite for the voices. Prints a Markdown table.
 */
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { loadWorld } from '../../demo/src/world';
import { comparableWords, wordErrors } from '../../core/transcript/wordErrorRate';
import { projectRoot } from '../../server/projectRoot';
import { loadModels } from '../../server/recognition/modelFiles';
import { type FileTranscript, transcribeFile } from '../../server/recognition/transcribeFile';

const root = projectRoot();
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-names-'));
const VOICES = ['slt', 'awb', 'rms'];

/** The first ten for choosing the settings, the others untouched until the figure is taken. */
const NAMES = [
  ...[
    'Harrowmere',
    'Okwuosa',
    'Vantongeren',
    'Tamsin',
    'Ottoline',
    'Fairweather',
    'Corvane',
    'Teldrin',
    'Bexhollow',
    'Yarrick',
  ],
  ...[
    'Malmquist',
    'Ingersby',
    'Quillan',
    'Dovrenna',
    'Pashkova',
    'Almerand',
    'Zellwick',
    'Brannoch',
    'Hestrale',
    'Osgarth',
  ],
];
const FRAMES = [
  (n: string) => `Please send the drawing to ${n} before the meeting on Friday.`,
  (n: string) => `Yesterday ${n} asked me about the trees by the harbour.`,
  (n: string) => `We talked for an hour, and then ${n} wrote everything down.`,
  (n: string) => `I have to call ${n} about the water pipe this afternoon.`,
  (n: string) => `The letter from ${n} came in the morning.`,
  (n: string) => `In the end ${n} agreed that we should wait until spring.`,
];

const say = (voice: string, text: string): string => {
  const file = path.join(folder, 'said.wav');
  execFileSync('flite', ['-voice', voice, '-t', text, '-o', file]);
  return file;
};
const textOf = (t: FileTranscript) => t.passages.flatMap((p) => p.words.map((w) => w.text)).join(' ');
const has = (text: string, name: string) => new RegExp(`(?<!\\p{L})${name}(?!\\p{L})`, 'u').test(text);
const percent = (share: number) => `${(share * 100).toFixed(0)} %`;

async function main(): Promise<void> {
  const isTuning = process.argv.includes('--tuning');
  const models = await loadModels();
  const names = isTuning ? NAMES.slice(0, 10) : NAMES;
  const listed = names.map((text) => ({ text, soundsLike: [] }));
  let [before, after, count, changedElsewhere] = [0, 0, 0, 0];
  let [halfAfter, halfCount] = [0, 0];
  const cpu = { plain: 0, listed: 0 };
  for (const [i, name] of names.entries()) {
    for (const [v, voice] of VOICES.entries()) {
      const sentence = FRAMES[(i + 2 * v) % FRAMES.length]!;
      const file = say(voice, sentence(name));
      let start = process.cpuUsage();
      const plain = textOf(await transcribeFile(file, models));
      let used = process.cpuUsage(start);
      cpu.plain += used.user + used.system;
      start = process.cpuUsage();
      const biased = textOf(await transcribeFile(file, models, { names: listed }));
      used = process.cpuUsage(start);
      cpu.listed += used.user + used.system;
      count++;
      before += Number(has(plain, name));
      after += Number(has(biased, name));
      if (i >= 10) {
        halfCount++;
        halfAfter += Number(has(biased, name));
      }
      const others = names.filter((other) => other !== name && has(biased, other));
      changedElsewhere += others.length;
      if (process.argv.includes('--show'))
        process.stderr.write(`${has(biased, name) ? ' ' : '✗'} ${name} [${voice}] ${plain} → ${biased}\n`);
    }
  }

  // Speech without any of the names: the demo's recordings and its texts read by another voice.
  let [spoken, invented, wordsBefore, wordsAfter, reference] = [0, 0, 0, 0, 0];
  const absent = NAMES.filter(
    (n) => !['Harrowmere', 'Okwuosa', 'Vantongeren', 'Tamsin', 'Ottoline', 'Fairweather', 'Malmquist'].includes(n),
  );
  const wanted = [...absent, 'Lindquay', 'Orsolant', 'Pellamy', 'Stavenger', 'Whitcombe', 'Ravelin', 'Kessandra'];
  const decoys = wanted.map((text) => ({ text, soundsLike: [] }));
  for (const script of isTuning ? [] : loadWorld(path.join(root, 'demo', 'world'))) {
    const text = script.lines.map((l) => l.text).join(' ');
    const sound = path.join(root, 'demo', 'sound', script.id + path.extname(script.file));
    const read = path.join(folder, 'read.wav');
    execFileSync('ffmpeg', ['-y', '-loglevel', 'error', '-i', say('slt', text), '-ar', '16000', read]);
    for (const file of [sound, read]) {
      const plain = textOf(await transcribeFile(file, models));
      const biased = textOf(await transcribeFile(file, models, { names: decoys }));
      const truth = comparableWords(text);
      spoken += truth.length;
      reference += truth.length;
      for (const name of wanted) invented += biased.split(new RegExp(`(?<!\\p{L})${name}(?!\\p{L})`, 'u')).length - 1;
      wordsBefore += wordErrors(truth, comparableWords(plain)).rate * truth.length;
      wordsAfter += wordErrors(truth, comparableWords(biased)).rate * truth.length;
    }
  }
  console.log(
    [
      '| names and terms | measured | aim |',
      '|---|---|---|',
      `| ${names.length} invented names, ${count} sentences, voices ${VOICES.join(', ')}: right without a list | ${before} (${percent(before / count)}) | |`,
      `| the same, listed without hints of how they sound | ${after} (${percent(after / count)}) | 80 % |`,
      ...(isTuning
        ? []
        : [
            `| of these the names that the settings were not chosen on | ${halfAfter} of ${halfCount} (${percent(halfAfter / halfCount)}) | 80 % |`,
          ]),
      `| another listed name in these sentences | ${changedElsewhere} | |`,
      `| CPU with the list, times without | ${(cpu.listed / cpu.plain).toFixed(2)} | |`,
      ...(isTuning
        ? []
        : [
            `| listed names put into ${spoken} words in which nobody says them (${wanted.length} names) | ${invented} (${((invented / spoken) * 1000).toFixed(2)} in 1,000) | at most 1 in 1,000 |`,
            `| word errors of these, without and with the list | ${((wordsBefore / reference) * 100).toFixed(2)} and ${((wordsAfter / reference) * 100).toFixed(2)} % | |`,
          ]),
    ].join('\n'),
  );
  fs.rmSync(folder, { recursive: true, force: true });
}

void main();
