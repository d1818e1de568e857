import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { NO_CLEANING } from '@immeld/core/audio/cleaning/cleaner';
import { LoudnessMeter } from '@immeld/core/audio/loudness';
import { projectRoot } from '../projectRoot';
import { temporaryFolder } from '../testing/testServer';
import { writeCleanedCopy } from './cleanedCopy';
import { decodeSound } from './decodeSound';

const folder = temporaryFolder();
afterAll(() => fs.rmSync(folder, { recursive: true }));

const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-y', '-loglevel', 'error', ...args]);
const at = (name: string) => path.join(folder, name);
const speech = path.join(projectRoot(), 'demo', 'sound', 'voice-message.ogg');

/** Integrated loudness by ffmpeg's ebur128 filter (EBU R 128), an implementation that is not ours. */
function loudnessByFfmpeg(file: string): number {
  const { stderr } = spawnSync('ffmpeg', ['-i', file, '-af', 'ebur128', '-f', 'null', '-'], {
    encoding: 'utf8',
  });
  return Number(/Summary:[\s\S]*?I:\s+(-?[\d.]+) LUFS/.exec(stderr)![1]);
}

async function lengthOf(file: string): Promise<number> {
  let samples = 0;
  for await (const chunk of decodeSound(file)) samples += chunk.length;
  return samples / 16_000;
}

it('is as loud as EBU R 128 asks, as long as the original, which stays as it was', async () => {
  const quiet = at('quiet.wav');
  ffmpeg('-i', speech, '-af', 'volume=-18dB', '-ar', '48000', '-ac', '1', quiet);
  const before = fs.readFileSync(quiet);
  await writeCleanedCopy(quiet, at('even.m4a'), { ...NO_CLEANING, loudness: 1 });
  expect(Math.abs(loudnessByFfmpeg(at('even.m4a')) + 23)).toBeLessThan(0.6);
  expect(Math.abs((await lengthOf(at('even.m4a'))) - (await lengthOf(quiet)))).toBeLessThan(0.06);
  expect(fs.readFileSync(quiet).equals(before)).toBe(true);
});

it('measures speech as ffmpeg does', async () => {
  const wav = at('speech.wav');
  ffmpeg('-i', speech, '-ar', '48000', '-ac', '1', wav);
  const meter = new LoudnessMeter(48_000);
  for await (const chunk of decodeSound(wav, { rate: 48_000 })) meter.push([chunk]);
  expect(Math.abs(meter.integrated() - loudnessByFfmpeg(wav))).toBeLessThan(0.15);
});

it('says what is wrong with a sound that cannot be heard, and leaves nothing behind', async () => {
  fs.writeFileSync(at('text.mp3'), 'only text '.repeat(50));
  await expect(writeCleanedCopy(at('text.mp3'), at('none.m4a'), { ...NO_CLEANING, noise: 1 })).rejects.toThrow(
    'could not be read as audio',
  );
});
