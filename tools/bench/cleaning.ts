/** What cleaning does to recognition: word errors per kind of noise, with the sound as it is and with each step. */
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { type Cleaning, NO_CLEANING } from '../../core/audio/cleaning/cleaner';
import { comparableWords, wordErrors } from '../../core/transcript/wordErrorRate';
import { projectRoot } from '../../server/projectRoot';
import { loadModels } from '../../server/recognition/modelFiles';
import { transcribeFile } from '../../server/recognition/transcribeFile';
import { withNumerals } from './scoring';

const root = projectRoot();
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-bench-'));
const SOUNDS = ['letter', 'diary', 'revision'];

/** Filters of ffmpeg that add a noise of this kind; levels are against speech at about -20 dB of full scale. */
const NOISES: [name: string, mix: string | null][] = [
  ['as recorded', null],
  ['white, 10 dB below speech', 'anoisesrc=c=white:a=0.09:r=16000:s=5'],
  ['pink, 10 dB below speech', 'anoisesrc=c=pink:a=0.16:r=16000:s=5'],
  ['rumble (brown under 80 Hz), as loud as speech', 'anoisesrc=c=brown:a=0.9:r=16000:s=5,lowpass=f=80,volume=6dB'],
  ['hum of 50 Hz, as loud as speech', 'sine=f=50:r=16000,volume=-3dB'],
  ['30 dB too quiet', 'volume=0'],
];
const STEPS: [name: string, cleaning: Partial<Cleaning>][] = [
  ['as it is', {}],
  ['rumble cut', { lowCut: 1 }],
  ['less noise, some', { noise: 0.4 }],
  ['less noise, most', { noise: 1 }],
  ['even loudness', { loudness: 1 }],
];

function noisy(sound: string, [name, mix]: (typeof NOISES)[number]): string {
  const source = fs.readdirSync(path.join(root, 'demo', 'sound')).find((f) => f.startsWith(`${sound}.`))!;
  const target = path.join(folder, `${sound}-${NOISES.findIndex((n) => n[0] === name)}.wav`);
  const speech = ['-i', path.join(root, 'demo', 'sound', source)];
  const out = ['-ar', '16000', '-ac', '1', target];
  const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-y', '-loglevel', 'error', ...args]);
  if (name === '30 dB too quiet') ffmpeg(...speech, '-af', 'volume=-30dB', ...out);
  else if (mix === null) ffmpeg(...speech, ...out);
  else {
    const mixed = `[0:a]aresample=16000[s];[1:a]anull[n];[s][n]amix=inputs=2:duration=first:normalize=0`;
    ffmpeg(...speech, '-f', 'lavfi', '-i', mix, '-filter_complex', mixed, ...out);
  }
  return target;
}

async function main(): Promise<void> {
  const models = await loadModels();
  const lines = [
    `| word errors | ${STEPS.map(([name]) => name).join(' | ')} |`,
    `|---|${STEPS.map(() => '---|').join('')}`,
  ];
  for (const noise of NOISES) {
    const cells: string[] = [];
    for (const [, cleaning] of STEPS) {
      let words = 0;
      let errors = 0;
      for (const sound of SOUNDS) {
        const timed = JSON.parse(
          fs.readFileSync(path.join(root, 'demo', 'expected', `${sound}.words.json`), 'utf8'),
        ) as { word: string }[];
        const reference = withNumerals(timed.flatMap((w) => comparableWords(w.word)));
        const { passages } = await transcribeFile(noisy(sound, noise), models, {
          cleaning: { ...NO_CLEANING, ...cleaning },
        });
        const heard = withNumerals(comparableWords(passages.flatMap((p) => p.words.map((w) => w.text)).join(' ')));
        words += reference.length;
        errors += wordErrors(reference, heard).rate * reference.length;
      }
      cells.push(`${((errors / words) * 100).toFixed(1)} %`);
    }
    lines.push(`| ${noise[0]} | ${cells.join(' | ')} |`);
    process.stderr.write(`${lines.at(-1)}\n`);
  }
  console.log(lines.join('\n'));
  fs.rmSync(folder, { recursive: true, force: true });
}

void main();
