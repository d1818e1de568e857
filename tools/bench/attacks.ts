/** How the server bears bad requests, and how quick its everyday answers are with ten thousand recordings. */
import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { seeded } from '../../core/filing/evaluation/yearOfFilings';
import { asAccount } from '../../server/accounts/currentAccount';
import { FIRST_ACCOUNT } from '../../server/accounts/firstAccount';
import { badRequests } from '../../server/attacks/badRequests';
import { type FuzzedRequest, Fuzzer } from '../../server/attacks/fuzzer';
import { openDatabase } from '../../server/database';
import { PassageRow } from '../../server/models/passage';
import { Recording } from '../../server/models/recording';
import { TodoRow } from '../../server/models/todo';
import { projectRoot } from '../../server/projectRoot';

const isShort = process.argv.includes('--short');
const RECORDINGS = isShort ? 1000 : 10_000;
const TODOS = 500;
const FUZZED = isShort ? 5000 : 50_000;
const WORDS_AN_HOUR = 9000;

const sorted = (values: number[]): number[] => [...values].sort((a, b) => a - b);
const at = (values: number[], share: number): number =>
  sorted(values)[Math.min(values.length - 1, Math.floor(values.length * share))]!;
const ms = (value: number): string => `${Math.round(value)} ms`;
const rows: string[] = ['| figure | measured | aim | met |', '|---|---|---|---|'];
const row = (figure: string, measured: string, aim = '', isMet: boolean | null = null) =>
  rows.push(`| ${figure} | ${measured} | ${aim} | ${isMet === null ? '' : isMet ? 'yes' : 'no'} |`);

const WORDS = 'the limes along the quay need water before noon and Bram wants the drawing of the northern lock'.split(
  ' ',
);
const said = (count: number, from: number) =>
  Array.from({ length: count }, (_, i) => ({
    ...{ startMs: (from + i) * 400, endMs: (from + i) * 400 + 300, confidence: 0.9 },
    text: WORDS[(from + i) % WORDS.length]! + (i % 12 === 11 ? '.' : ''),
  }));

/** Two recordings with a sound that takes longer to recognise than the readers take to read. */
async function withSound(folder: string, recordings: readonly string[]): Promise<void> {
  fs.mkdirSync(path.join(folder, 'sound'), { recursive: true });
  const sound = path.join(projectRoot(), 'demo', 'sound', 'lecture.m4a');
  const target = path.join(folder, 'sound', 'long.m4a');
  const copied = spawnSync('ffmpeg', ['-v', 'error', '-stream_loop', '19', '-i', sound, '-c', 'copy', target]);
  if (copied.status !== 0) throw new Error(String(copied.stderr));
  const database = await openDatabase(folder);
  await Recording.update({ soundFile: 'long.m4a' }, { where: { id: [...recordings] } });
  await database.close();
}

async function fill(folder: string, count: number): Promise<{ hour: string; some: string[] }> {
  const database = await openDatabase(folder);
  const some: string[] = [];
  let hour = '';
  await asAccount(FIRST_ACCOUNT, async () => {
    for (let from = 0; from < count; from += 500) {
      const made = await Recording.bulkCreate(
        Array.from({ length: Math.min(500, count - from) }, (_, k) => {
          const i = from + k;
          return {
            ...{ title: `Memo ${i}`, fileName: `memo-${i}.m4a`, source: 'import' as const, mediaType: 'audio/mp4' },
            ...{ soundFile: `none-${i}.m4a`, playbackFile: null, sha256: String(i).padStart(64, '0'), sizeBytes: 1 },
            ...{ durationMs: 60_000, state: 'ready' as const, problem: null, folderId: null, filedAt: null },
            startedAt: new Date(Date.UTC(2020, 0, 1) + i * 5_000_000).toISOString().slice(0, 19),
            ...{ binnedAt: null, model: null, language: 'en', suggestion: { title: null, folderId: null, tags: [] } },
            peaks: Array.from({ length: 1500 }, (_v, p) => (p * i) % 100),
          };
        }),
      );
      some.push(...made.filter((_r, i) => i % Math.max(1, count / 20) === 0).map((r) => r.id));
      await PassageRow.bulkCreate(
        made.flatMap((r, k) =>
          [0, 1, 2].map((position) => {
            const words = said(40, (from + k) * 7 + position * 40);
            const text = words.map((w) => w.text).join(' ');
            const place = { recordingId: r.id, position, startMs: words[0]!.startMs, endMs: words.at(-1)!.endMs };
            return { ...place, speaker: null, startsParagraph: true, words, text };
          }),
        ),
      );
    }
    hour = some[0]!;
    await PassageRow.destroy({ where: { recordingId: hour } });
    await PassageRow.bulkCreate(
      Array.from({ length: WORDS_AN_HOUR / 60 }, (_, position) => {
        const words = said(60, position * 60);
        const place = { recordingId: hour, position, startMs: words[0]!.startMs, endMs: words.at(-1)!.endMs };
        return { ...place, speaker: null, startsParagraph: true, words, text: words.map((w) => w.text).join(' ') };
      }),
    );
    await TodoRow.bulkCreate(
      Array.from({ length: TODOS }, (_, i) => ({
        ...{ recordingId: some[i % some.length]!, text: `Water lime ${i}`, who: 'me', due: null, project: null },
        ...{ quote: null, startMs: 0, state: 'ink' as const, doneAt: null, binnedAt: null },
      })),
    );
  });
  await database.close();
  return { hour, some };
}

/** The built server as a process of its own, which tells its longest stall when it is asked. */
async function start(
  folder: string,
): Promise<{ server: ChildProcess; address: string; stallMs: () => Promise<number> }> {
  const watch = path.join(folder, 'watch.cjs');
  fs.writeFileSync(
    watch,
    `const { monitorEventLoopDelay } = require('node:perf_hooks');
     const delay = monitorEventLoopDelay({ resolution: 5 }); delay.enable();
     process.on('message', () => { process.send(delay.max / 1e6); delay.reset(); });`,
  );
  const server = spawn(process.execPath, ['--require', watch, path.join(projectRoot(), 'server', 'dist', 'main.cjs')], {
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
    env: { ...process.env, IMMELD_DATA: path.join(folder, 'data'), IMMELD_DEMO: '1', PORT: '0' },
  });
  const address = await new Promise<string>((resolve) => {
    let text = '';
    server.stdout!.on('data', (bytes) => {
      const found = /ready at (\S+)/.exec((text += String(bytes)));
      if (found) resolve(found[1]!);
    });
  });
  const stallMs = () =>
    new Promise<number>((resolve) => {
      server.once('message', (value) => resolve(Number(value)));
      server.send('tell');
    });
  return { server, address, stallMs };
}

async function ask(
  address: string,
  { method, path: at, headers = {}, body }: Partial<FuzzedRequest> & { path: string },
) {
  const gone = new AbortController();
  const started = performance.now();
  const response = await fetch(address + at, {
    ...{ method: method ?? 'GET', headers, signal: gone.signal },
    ...(body === undefined ? {} : { body }),
  });
  if (response.headers.get('content-type')?.includes('event-stream')) gone.abort();
  else await response.arrayBuffer();
  return { status: response.status, ms: performance.now() - started };
}

async function main(): Promise<void> {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-attacks-'));
  try {
    fs.mkdirSync(path.join(folder, 'data'));
    const { hour, some } = await fill(path.join(folder, 'data'), RECORDINGS);
    const recognised = some.slice(-2);
    await withSound(path.join(folder, 'data'), recognised);
    const { server, address, stallMs } = await start(folder);
    const many = async (at: string, count: number) => {
      const times: number[] = [];
      for (let i = 0; i < count; i++) times.push((await ask(address, { path: at })).ms);
      return times;
    };
    const api = (at: string) => `/api${at}`;
    const cards = api('/recordings?place=all&limit=50');
    await many(cards, 20);
    const page = await many(cards, 200);
    row(
      `A page of 50 cards of ${RECORDINGS.toLocaleString('en')} recordings, median`,
      ms(at(page, 0.5)),
      'under 20 ms',
      at(page, 0.5) < 20,
    );
    const cpu = () =>
      fs
        .readFileSync(`/proc/${server.pid}/stat`, 'utf8')
        .split(') ')[1]!
        .split(' ')
        .slice(11, 13)
        .map(Number)
        .reduce((a, b) => a + b, 0) / 100;
    const before = cpu();
    await Promise.all(Array.from({ length: 4 }, () => many(cards, 100)));
    const perSecond = 400 / (cpu() - before);
    row('The same, for each second of one core', `${Math.round(perSecond)}`, 'at least 100', perSecond >= 100);
    const todos = await many(api('/todos'), 100);
    row(`To-dos, ${TODOS} of them, median`, ms(at(todos, 0.5)), 'under 30 ms', at(todos, 0.5) < 30);
    const long = await many(api(`/recordings/${hour}`), 50);
    row('A recording of an hour, median', ms(at(long, 0.5)), 'under 40 ms', at(long, 0.5) < 40);
    const question = await many(api(`/ask?q=${encodeURIComponent('What does Bram want?')}`), 20);
    row('A question, median', ms(at(question, 0.5)));
    const json = { 'Content-Type': 'application/json' };
    for (const id of recognised) {
      const body = JSON.stringify({});
      const at = api(`/recordings/${id}/recognition`);
      const { status } = await ask(address, { method: 'POST', path: at, headers: json, body });
      if (status !== 200) throw new Error(`The recognition did not begin: ${status}.`);
    }
    await new Promise((resolve) => setTimeout(resolve, 5000));
    const cpuBefore = cpu();
    const readFrom = performance.now();
    await stallMs();
    const readers = await Promise.all(
      Array.from({ length: 50 }, async (_, i) => {
        const times: number[] = [];
        // People do not all press at the same instant.
        await new Promise((resolve) => setTimeout(resolve, i * 10));
        for (let n = 0; n < 10; n++) {
          times.push((await ask(address, { path: n % 2 ? cards : api(`/recordings/${some[i % some.length]}`) })).ms);
          await new Promise((resolve) => setTimeout(resolve, 500));
        }
        return times;
      }),
    );
    const busyCores = ((cpu() - cpuBefore) * 1000) / (performance.now() - readFrom);
    row(
      `50 readers at once, each twice a second, 95th percentile; two recognitions run (${busyCores.toFixed(1)} cores busy)`,
      ms(at(readers.flat(), 0.95)),
      'under 300 ms',
      at(readers.flat(), 0.95) < 300,
    );
    const { items } = (await (await fetch(address + api('/jobs'))).json()) as { items: { id: string }[] };
    for (const { id } of items) await ask(address, { method: 'POST', path: api(`/jobs/${id}/cancel`) });
    await new Promise((resolve) => setTimeout(resolve, 5000));
    await stallMs();
    const statuses: number[] = [];
    let isOver = false;
    const watching = (async () => {
      while (!isOver) {
        statuses.push((await ask(address, { path: api('/status') })).ms);
        await new Promise((resolve) => setTimeout(resolve, 20));
      }
    })();
    let errors = 0;
    let worst = { name: '', ms: 0 };
    for (const { name, method, path: at, body } of badRequests(hour)) {
      const sent =
        body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } };
      const answers = await Promise.all(
        Array.from({ length: 4 }, () => ask(address, { method, path: api(at), ...sent })),
      );
      errors += answers.filter((a) => a.status >= 500).length;
      const stall = await stallMs();
      if (stall > worst.ms) worst = { name, ms: stall };
    }
    isOver = true;
    await watching;
    row(
      `Longest stall of the server’s thread under ${badRequests(hour).length} kinds of bad requests, four of each at once (${worst.name})`,
      ms(worst.ms),
      'under 100 ms',
      worst.ms < 100,
    );
    row('The longest wait for its state meanwhile', ms(at(statuses, 1)), 'under 200 ms', at(statuses, 1) < 200);
    row('Errors of the server among them', String(errors), '0', errors === 0);
    server.kill();
    const small = path.join(folder, 'small');
    fs.mkdirSync(small);
    fs.mkdirSync(path.join(small, 'data'));
    const filled = await fill(path.join(small, 'data'), 5);
    const fuzzed = await start(small);
    const fuzzer = new Fuzzer(seeded(50), filled.some);
    let [failed, dropped] = [0, 0];
    for (let i = 0; i < FUZZED; i++) {
      const answer = await ask(fuzzed.address, fuzzer.next()).catch(() => null);
      if (!answer) dropped++;
      else if (answer.status >= 500) failed++;
    }
    row(
      `Errors of the server, and dropped, in ${FUZZED.toLocaleString('en')} fuzzed requests`,
      `${failed}, ${dropped}`,
      '0, 0',
      failed + dropped === 0,
    );
    fuzzed.server.kill();
    console.log(
      `\n## The server under attack, and its everyday answers\n\nMachine: ${os.cpus().length} cores (${os.cpus()[0]!.model}), Node ${process.versions.node}.\n\n${rows.join('\n')}\n`,
    );
  } finally {
    fs.rmSync(folder, { recursive: true, force: true });
  }
}

void main();
