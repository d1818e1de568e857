/**
 * How well both packs hear a person: every third of the clips of Debian's asterisk-core-sounds-en-g722 (CC BY-SA) whose text
 * has at least seven words, one by one, joined with pauses, and in pink noise at 10 dB. Prints a Markdown table.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import { comparableWords, wordErrors } from '../../core/transcript/wordErrorRate';
import { QUALITIES } from '../../core/speech/packs';
import { loadModels } from '../../server/recognition/modelFiles';
import { transcribeFile } from '../../server/recognition/transcribeFile';

const SOUNDS = '/usr/share/asterisk/sounds/en';
const TEXTS = '/usr/share/doc/asterisk-core-sounds-en/core-sounds-en.txt.gz';
const MIN_WORDS = 7;
const EVERY = 3;
const PAUSE_S = 0.6;

if (!fs.existsSync(TEXTS)) {
  console.log('The human clips are missing: apt-get install asterisk-core-sounds-en-g722.');
  process.exit(0);
}
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-human-'));
const ffmpeg = (...args: string[]): void => void execFileSync('ffmpeg', ['-y', '-loglevel', 'error', ...args]);

type Clip = { text: string; file: string };
const clips = gunzipSync(fs.readFileSync(TEXTS))
  .toString('utf8')
  .split('\n')
  .flatMap((line): { name: string; text: string }[] => {
    const at = line.indexOf(': ');
    const text = line
      .slice(at + 2)
      .replace(/[[(].*?[\])]/g, '')
      .trim();
    return at > 0 && !line.startsWith(';') && text.split(/\s+/).length >= MIN_WORDS
      ? [{ name: line.slice(0, at), text }]
      : [];
  })
  .filter(({ name }) => fs.existsSync(path.join(SOUNDS, `${name}.g722`)))
  .filter((_, i) => i % EVERY === 0)
  .map(({ name, text }, i): Clip => {
    const file = path.join(folder, `${i}.wav`);
    ffmpeg('-f', 'g722', '-i', path.join(SOUNDS, `${name}.g722`), '-ar', '16000', file);
    return { text, file };
  });

/** Loudness by ffmpeg's own meter, in dB of full scale. */
const meanVolume = (file: string): number =>
  Number(
    /mean_volume: (-?[\d.]+)/.exec(
      spawnSync('ffmpeg', ['-i', file, '-af', 'volumedetect', '-f', 'null', '-'], { encoding: 'utf8' }).stderr,
    )?.[1] ?? -30,
  );

const noisy = clips.map(({ text, file }, i): Clip => {
  const target = path.join(folder, `noisy${i}.wav`);
  const noise = path.join(folder, 'noise.wav');
  ffmpeg('-f', 'lavfi', '-i', `anoisesrc=color=pink:seed=${i + 1}:duration=60:amplitude=0.3:sample_rate=16000`, noise);
  const gain = meanVolume(file) - 10 - meanVolume(noise);
  ffmpeg(
    '-i',
    file,
    '-i',
    noise,
    '-filter_complex',
    `[1]volume=${gain}dB[n];[0][n]amix=inputs=2:duration=first:normalize=0`,
    target,
  );
  return { text, file: target };
});

const joined = path.join(folder, 'joined.wav');
const silence = path.join(folder, 'silence.wav');
ffmpeg('-f', 'lavfi', '-i', `anullsrc=r=16000:cl=mono:d=${PAUSE_S}`, silence);
const list = path.join(folder, 'list.txt');
fs.writeFileSync(list, clips.flatMap(({ file }) => [`file '${file}'`, `file '${silence}'`]).join('\n'));
ffmpeg('-f', 'concat', '-safe', '0', '-i', list, joined);
const whole: Clip[] = [{ text: clips.map((c) => c.text).join(' '), file: joined }];

console.log(
  `\n## A person, clip by clip\n\n${clips.length} clips, ${clips.reduce((n, c) => n + comparableWords(c.text).length, 0)} words.\n`,
);
console.log(
  '| word errors | one by one | joined | in pink noise at 10 dB | CPU seconds per second of sound |\n|---|---|---|---|---|',
);
async function main(): Promise<void> {
  for (const quality of QUALITIES) {
    const models = await loadModels(quality);
    let [seconds, cpu] = [0, 0];
    const measure = async (set: readonly Clip[]): Promise<string> => {
      let [errors, words] = [0, 0];
      for (const { text, file } of set) {
        const before = process.cpuUsage();
        const { passages, durationMs } = await transcribeFile(file, models);
        const { user, system } = process.cpuUsage(before);
        seconds += durationMs / 1000;
        cpu += (user + system) / 1e6;
        const heard = passages.flatMap((p) => p.words.map((w) => w.text)).join(' ');
        const found = wordErrors(comparableWords(text), comparableWords(heard));
        if (process.argv.includes('--mistakes') && found.substitutions + found.deletions + found.insertions > 2)
          console.log(`  ${text}\n  ${heard}`);
        errors += found.substitutions + found.deletions + found.insertions;
        words += found.referenceWords;
      }
      return `${((100 * errors) / words).toFixed(1)} %`;
    };
    const row = [await measure(clips), await measure(whole), await measure(noisy)];
    console.log(`| ${quality} | ${row.join(' | ')} | ${(cpu / seconds).toFixed(3)} |`);
  }
  fs.rmSync(folder, { recursive: true });
}
void main();
