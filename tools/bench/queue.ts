/** How long somebody waits for the words of a short memo while hours of other sound are being transcribed. */
import { execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Recording } from '@immeld/core/contract/recordings';
import { projectRoot } from '../../server/projectRoot';
import { upload } from '../../server/testing/testServer';

const MEMOS = 5;
const HOURS = 5;
const AIM_S = 20;
const MEMO_SECONDS = 30;
const PREPARING_MS = 15_000;

const sound = (name: string) => path.join(projectRoot(), 'demo', 'sound', name);
const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const ffmpeg = (...rest: string[]) => execFileSync('ffmpeg', ['-y', '-loglevel', 'error', ...rest]);

const seconds = (value: number): string => `${value.toFixed(1)} s`;
const row = (figure: string, measured: string, aim = 'measured', isMet: boolean | null = null) =>
  console.log(`| ${figure} | ${measured} | ${aim} | ${isMet === null ? '' : isMet ? 'yes' : 'no'} |`);

async function main(): Promise<void> {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-queue-'));
  const server = spawn(process.execPath, [path.join(projectRoot(), 'server', 'dist', 'main.cjs')], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, IMMELD_DATA: path.join(folder, 'data'), IMMELD_DEMO: '1', PORT: '0' },
  });
  try {
    const address = await new Promise<string>((resolve) => {
      let text = '';
      server.stdout.on('data', (bytes) => {
        const found = /ready at (\S+)/.exec((text += String(bytes)));
        if (found) resolve(found[1]!);
      });
    });
    // Two files of hours, so that every worker has one.
    for (const n of [1, 2]) {
      const file = path.join(folder, `hours-${n}.m4a`);
      const loop = ['-stream_loop', '-1', '-i', sound('lecture.m4a'), '-t', String(HOURS * 3600 - n)];
      ffmpeg(...loop, '-c', 'copy', file);
      await upload(address, fs.readFileSync(file), `hours-${n}.m4a`);
    }
    await sleep(PREPARING_MS);
    const waits: number[] = [];
    let wordsOfLong = 0;
    for (let i = 0; i < MEMOS; i++) {
      const memo = path.join(folder, `memo-${i}.wav`);
      const part = ['-ss', String(i * 3), '-t', String(MEMO_SECONDS), '-i', sound('morning-memo.m4a')];
      ffmpeg(...part, '-ar', '16000', '-ac', '1', memo);
      const started = performance.now();
      const { recordingId } = await upload(address, fs.readFileSync(memo), `memo-${i}.wav`, {
        durationMs: String(MEMO_SECONDS * 1000),
      });
      for (;;) {
        const recording = (await (await fetch(`${address}/api/recordings/${recordingId}`)).json()) as Recording;
        if (recording.state === 'ready') break;
        if (recording.state === 'failed') throw new Error(recording.problem ?? 'It failed.');
        await sleep(100);
      }
      waits.push((performance.now() - started) / 1000);
    }
    const { items } = (await (await fetch(`${address}/api/recordings?place=all`)).json()) as {
      items: { id: string; fileName: string }[];
    };
    for (const { id } of items.filter((r) => r.fileName.startsWith('hours'))) {
      const { passages } = (await (await fetch(`${address}/api/recordings/${id}`)).json()) as Recording;
      wordsOfLong += passages.reduce((sum, p) => sum + p.words.length, 0);
    }
    waits.sort((a, b) => a - b);
    const longest = waits.at(-1)!;
    const middle = waits[Math.floor(MEMOS / 2)]!;
    console.log('| The queue | measured | aim | met |\n|---|---|---|---|');
    row(
      `Text of a memo of ${MEMO_SECONDS} s behind two files of ${HOURS} hours, after (median of ${MEMOS})`,
      seconds(middle),
    );
    row('The same, the longest', seconds(longest), `under ${AIM_S} s`, longest < AIM_S);
    row('Words of the long files that could be read meanwhile', String(wordsOfLong), 'some', wordsOfLong > 0);
  } finally {
    server.kill('SIGKILL');
    fs.rmSync(folder, { recursive: true, force: true });
  }
}

void main();
