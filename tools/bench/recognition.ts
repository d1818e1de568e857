/** The figures of recognition: words, times, speed, memory. Prints Markdown tables. */
import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { loadWorld } from '../../demo/src/world';
import { joinPassages, splitPassage } from '../../core/transcript/edit';
import { comparableWords, wordErrors } from '../../core/transcript/wordErrorRate';
import type { ModelSession } from '../../core/speech/session';
import { LiveTranscriber } from '../../core/speech/liveTranscriber';
import { SAMPLE_RATE_HZ, type TranscriberModels } from '../../core/speech/transcriber';
import { projectRoot } from '../../server/projectRoot';
import type { ToWorker, WorkerTask } from '../../server/jobs/workerMessages';
import { loadModels } from '../../server/recognition/modelFiles';
import { type FileTranscript, transcribeFile } from '../../server/recognition/transcribeFile';
import { withNumerals } from './scoring';

const root = projectRoot();
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-bench-'));
const LIBRIVOX = '/usr/share/pocketsphinx/test/data/librivox';
const MIXED_SECONDS = 600;
const LONG_HOURS = 5;

const rows: { figure: string; measured: string; aim: string; met: string }[] = [];
function note(figure: string, measured: string, aim: string, met: boolean | null): void {
  rows.push({ figure, measured, aim, met: met === null ? '' : met ? 'yes' : 'no' });
  process.stderr.write(`${figure}: ${measured} (${aim})\n`);
}
const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
const textOf = (t: FileTranscript) => t.passages.flatMap((p) => p.words.map((w) => w.text)).join(' ');
const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-y', '-loglevel', 'error', ...args]);
const cpuSeconds = (from: NodeJS.CpuUsage) => {
  const { user, system } = process.cpuUsage(from);
  return (user + system) / 1e6;
};

/** Word errors of five clips read by LibriVox volunteers, and of pocketsphinx on the same clips in the same run. */
async function librivox(models: TranscriberModels): Promise<void> {
  const known = fs
    .readFileSync(path.join(LIBRIVOX, 'transcription'), 'utf8')
    .trim()
    .split('\n')
    .map((l) => /<s> (.*) <\/s> \((.*)\)/.exec(l)!);
  let words = 0;
  let ours = 0;
  let theirs = 0;
  for (const [, text, name] of known) {
    const file = path.join(LIBRIVOX, `${name}.wav`);
    const reference = comparableWords(text!);
    const count = (hypothesis: string) => wordErrors(reference, comparableWords(hypothesis)).rate * reference.length;
    words += reference.length;
    ours += count(textOf(await transcribeFile(file, models)));
    const other = spawnSync('pocketsphinx_continuous', ['-infile', file, '-logfn', '/dev/null'], { encoding: 'utf8' });
    theirs += other.status === 0 ? count(other.stdout) : NaN;
  }
  note('Word errors, five LibriVox clips (71 words)', percent(ours / words), 'under 5 %', ours / words < 0.05);
  note('The same clips, pocketsphinx_continuous', percent(theirs / words), 'for comparison', null);
  note('Ours as a share of theirs', percent(ours / theirs), 'under 20 %', ours / theirs < 0.2);
}

type Timed = { word: string; startMs: number };

/** Ten minutes of mixed voices out of the demo world, with its text. */
function mixedFile(): { file: string; reference: string[] } {
  const ids = [
    'letter',
    'planning-call',
    'diary',
    'arborist',
    'quay-walk',
    'revision',
    'voice-message',
    'morning-memo',
    'wearable',
  ];
  const world = loadWorld(path.join(root, 'demo', 'world'));
  const inputs = ids.flatMap((id) => ['-i', soundOf(id)]);
  const file = path.join(folder, 'mixed.wav');
  ffmpeg(...inputs, '-filter_complex', `concat=n=${ids.length}:v=0:a=1`, '-ar', '16000', '-ac', '1', file);
  return {
    file,
    reference: ids.flatMap((id) =>
      comparableWords(
        world
          .find((s) => s.id === id)!
          .lines.map((l) => l.text)
          .join(' '),
      ),
    ),
  };
}
const soundOf = (id: string): string => {
  const name = fs.readdirSync(path.join(root, 'demo', 'sound')).find((f) => f.startsWith(`${id}.`))!;
  return path.join(root, 'demo', 'sound', name);
};

/** Counts the time inside the model's graphs. */
function timed(session: ModelSession, meter: { ms: number }): ModelSession {
  return {
    ...session,
    run: async (feeds) => {
      const started = performance.now();
      const result = await session.run(feeds);
      meter.ms += performance.now() - started;
      return result;
    },
  };
}

async function mixed(models: TranscriberModels): Promise<void> {
  const { file, reference } = mixedFile();
  const meter = { ms: 0 };
  const metered: TranscriberModels = {
    ...models,
    ...{ encoder: timed(models.encoder, meter), crossKeyValues: timed(models.crossKeyValues, meter) },
    ...{ step: timed(models.step, meter), detector: timed(models.detector, meter) },
  };
  const runs: { cpu: number; ratio: number; transcript: FileTranscript }[] = [];
  for (let i = 0; i < 3; i++) {
    meter.ms = 0;
    const started = performance.now();
    const from = process.cpuUsage();
    const transcript = await transcribeFile(file, metered);
    runs.push({
      cpu: cpuSeconds(from) / (transcript.durationMs / 1000),
      ratio: (performance.now() - started) / meter.ms,
      transcript,
    });
  }
  const median = (values: number[]) => [...values].sort((a, b) => a - b)[1]!;
  const { transcript } = runs[0]!;
  const rate = wordErrors(withNumerals(reference), withNumerals(comparableWords(textOf(transcript)))).rate;
  note(
    `Word errors, ${(transcript.durationMs / 60_000).toFixed(1)} minutes of mixed voices (numbers and spelling made alike)`,
    percent(rate),
    'under 4.5 %',
    rate < 0.045,
  );
  note('The same, as written', percent(wordErrors(reference, comparableWords(textOf(transcript))).rate), '', null);
  const cpu = median(runs.map((r) => r.cpu));
  note(
    'CPU seconds per second of sound (median of 3, decoding the file is a process of its own and not counted)',
    cpu.toFixed(4),
    'at most 0.045',
    cpu <= 0.045,
  );
  const ratio = median(runs.map((r) => r.ratio));
  note('Whole time against time inside the model (median of 3)', ratio.toFixed(3), 'at most 1.25', ratio <= 1.25);
}

/** What a worker is told beside the file. */
const TASK: Omit<WorkerTask, 'jobId' | 'soundFile'> = {
  ...{
    moreSoundFiles: [],
    expectedMs: null,
    playback: null,
    names: [],
    cleaning: null,
    quality: 'usual',
    asides: null,
  },
  ...{ pieceFile: null, draftedMs: 0 },
  filing: {
    ...{ startedAt: '2026-03-09T08:00:00', source: 'import', people: [], appointment: null, place: null },
    ...{ filed: [], folders: [], tags: [], projects: [], knownPeople: [], ownName: '' },
  },
};

/** Two files in two worker threads against one file in one, by the bundled worker. */
async function twoWorkers(): Promise<void> {
  const work = (jobId: string) =>
    new Promise<void>((resolve, reject) => {
      const worker = new Worker(path.join(root, 'server', 'dist', 'recognitionWorker.cjs'));
      worker.on('message', (m: { type: string }) => {
        if (m.type === 'progress') return;
        void worker.terminate();
        if (m.type === 'done') resolve();
        else reject(new Error(JSON.stringify(m)));
      });
      worker.postMessage({
        type: 'task',
        task: { ...TASK, jobId, soundFile: soundOf('lecture') },
      } satisfies ToWorker);
    });
  const time = async (run: () => Promise<unknown>) => {
    const started = performance.now();
    await run();
    return performance.now() - started;
  };
  const ratios: number[] = [];
  for (let i = 0; i < 3; i++) {
    const one = await time(() => work('one'));
    const two = await time(() => Promise.all([work('a'), work('b')]));
    ratios.push(two / one);
  }
  const ratio = [...ratios].sort((a, b) => a - b)[1]!;
  note('Two files in two workers against one in one (median of 3)', ratio.toFixed(2), 'at most 1.3', ratio <= 1.3);
}

const timesOf = (id: string): Timed[] =>
  JSON.parse(fs.readFileSync(path.join(root, 'demo', 'expected', `${id}.words.json`), 'utf8')) as Timed[];

/** Differences between the starts of words and the times the synthesiser gave them, matched by text. */
function startErrors(reference: readonly Timed[], found: readonly { text: string; startMs: number }[]): number[] {
  const spread = found.flatMap((w) =>
    comparableWords(w.text).map((text, i) => ({ text, startMs: w.startMs, isFirst: i === 0 })),
  );
  const { pairs } = wordErrors(
    reference.map((w) => w.word.toLowerCase()),
    spread.map((w) => w.text),
  );
  return pairs.flatMap(({ reference: r, hypothesis: h }) => {
    if (r === null || h === null || reference[r]!.word.toLowerCase() !== spread[h]!.text || !spread[h]!.isFirst)
      return [];
    return [spread[h]!.startMs - reference[r]!.startMs];
  });
}

function noteStarts(name: string, errors: readonly number[]): void {
  const sorted = errors.map(Math.abs).sort((a, b) => a - b);
  const mean = sorted.reduce((a, b) => a + b, 0) / sorted.length;
  const at = (share: number) => sorted[Math.floor(sorted.length * share)]!;
  const bias = [...errors].sort((a, b) => a - b)[errors.length >> 1]!;
  note(`${name} (${sorted.length} words), mean error`, `${mean.toFixed(0)} ms`, 'under 60 ms', mean < 60);
  note('The same, median error; median offset', `${at(0.5)} ms; ${bias} ms`, '', null);
  note('The same, 90th percentile', `${at(0.9)} ms`, 'under 120 ms', at(0.9) < 120);
}

async function wordStarts(models: TranscriberModels): Promise<void> {
  const errors: number[] = [];
  for (const id of ['lecture', 'letter', 'diary', 'revision', 'wearable', 'quay-walk']) {
    const { passages } = await transcribeFile(soundOf(id), models);
    const words = passages.flatMap((p) => p.words);
    errors.push(...startErrors(timesOf(id), words));
  }
  noteStarts('Word starts against known times', errors);
}

/** The same where sounds were added to a recording later, and after its passages were parted and joined again. */
async function joinedStarts(models: TranscriberModels): Promise<void> {
  const [first, ...more] = ['letter', 'diary', 'revision'];
  const { passages, seamsMs } = await transcribeFile(soundOf(first!), models, { more: more.map(soundOf) });
  const parted = passages.flatMap((p) => (p.words.length > 1 ? splitPassage(p, p.words.length >> 1) : [p]));
  const joined = parted.reduce<typeof parted>((all, p, i) => {
    if (i % 3 && all.length) all.push(joinPassages(all.pop()!, p));
    else all.push(p);
    return all;
  }, []);
  const words = joined.flatMap((p) => p.words);
  const known = [first!, ...more].flatMap((id, i) => {
    const from = i ? seamsMs![i - 1]! : 0;
    return timesOf(id).map((w) => ({ ...w, startMs: w.startMs + from }));
  });
  noteStarts('Word starts in three sounds joined, passages parted and joined', startErrors(known, words));
}

/** Word errors of the text while speaking, decoded at each step that a device without delay would take. */
async function liveWords(models: TranscriberModels): Promise<void> {
  let words = 0;
  let live = 0;
  let whole = 0;
  let workMs = 0;
  let soundMs = 0;
  const starts: number[] = [];
  for (const id of ['quay-walk', 'wearable', 'letter', 'diary', 'morning-memo']) {
    const reference = withNumerals(timesOf(id).flatMap((w) => comparableWords(w.word)));
    const count = (text: string) => wordErrors(reference, withNumerals(comparableWords(text))).rate * reference.length;
    words += reference.length;
    const transcript = await transcribeFile(soundOf(id), models);
    whole += count(textOf(transcript));
    const transcriber = new LiveTranscriber(models);
    const said: { text: string; startMs: number }[] = [];
    const started = performance.now();
    const go = async () => {
      for (let update = await transcriber.advance(); update; update = await transcriber.advance()) {
        said.push(...update.fixed);
      }
    };
    const raw = execFileSync(
      'ffmpeg',
      ['-loglevel', 'error', '-i', soundOf(id), '-f', 'f32le', '-ac', '1', '-ar', String(SAMPLE_RATE_HZ), '-'],
      { maxBuffer: 1 << 28 },
    );
    const samples = new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.length));
    for (let at = 0; at < samples.length; at += SAMPLE_RATE_HZ / 10) {
      transcriber.push(samples.subarray(at, at + SAMPLE_RATE_HZ / 10));
      await go();
    }
    transcriber.end();
    await go();
    workMs += performance.now() - started;
    soundMs += transcript.durationMs;
    const text = said.map((w) => w.text).join(' ');
    live += count(text);
    starts.push(...startErrors(timesOf(id), said));
    if (process.argv.includes('--show')) process.stderr.write(`${text}\n\n`);
  }
  note(`Word errors while speaking (${words} words of five memos)`, percent(live / words), 'measured', null);
  note('The same recordings as a whole', percent(whole / words), 'for comparison', null);
  noteStarts('Word starts while speaking', starts);
  note('Work while speaking, seconds per second of sound', (workMs / soundMs).toFixed(3), 'measured', null);
}

/** Largest resident memory of a process of its own that transcribes five hours. */
function fiveHours(): void {
  const file = path.join(folder, 'five-hours.ogg');
  const loops = Math.ceil((LONG_HOURS * 3600) / (MIXED_SECONDS + 15));
  ffmpeg(
    '-stream_loop',
    String(loops),
    '-i',
    soundOf('lecture'),
    '-t',
    String(LONG_HOURS * 3600),
    '-ar',
    '16000',
    '-ac',
    '1',
    file,
  );
  const script = `
    const { Worker } = require('node:worker_threads');
    const worker = new Worker(${JSON.stringify(path.join(root, 'server', 'dist', 'recognitionWorker.cjs'))});
    let most = 0;
    const look = setInterval(() => (most = Math.max(most, process.memoryUsage.rss())), 500);
    worker.on('message', (m) => {
      if (m.type === 'progress') return;
      clearInterval(look);
      console.log(JSON.stringify({ most: Math.max(most, process.resourceUsage().maxRSS * 1024), type: m.type, words: m.result?.passages.reduce((n, p) => n + p.words.length, 0) }));
      process.exit(0);
    });
    worker.postMessage(${JSON.stringify({ type: 'task', task: { ...TASK, jobId: 'long', soundFile: file } } satisfies ToWorker)});`;
  const started = performance.now();
  const run = spawnSync(process.execPath, ['-e', script], { encoding: 'utf8', maxBuffer: 1 << 28 });
  const { most, type, words } = JSON.parse(run.stdout) as { most: number; type: string; words: number };
  const gigabytes = most / 1e9;
  note(
    `Peak memory, ${LONG_HOURS} hours in one file (${words} words, ${type}, ${((performance.now() - started) / 60_000).toFixed(1)} min)`,
    `${gigabytes.toFixed(2)} GB`,
    'under 1.0 GB',
    gigabytes < 1,
  );
}

async function main(): Promise<void> {
  if (process.argv.includes('--live')) {
    const models = await loadModels();
    await liveWords(models);
    await joinedStarts(models);
  } else if (process.argv.includes('--workers')) await twoWorkers();
  else if (!process.argv.includes('--long')) {
    const models = await loadModels();
    await liveWords(models);
    await librivox(models);
    await wordStarts(models);
    await joinedStarts(models);
    await mixed(models);
    await twoWorkers();
  }
  if (!['--short', '--live', '--workers'].some((o) => process.argv.includes(o))) fiveHours();
  fs.rmSync(folder, { recursive: true });
  const machine = `${os.cpus().length} cores (${os.cpus()[0]!.model.trim()}), ${Math.round(os.totalmem() / 2 ** 30)} GiB, Node ${process.versions.node}`;
  const table = [
    '| figure | measured | aim | met |',
    '|---|---|---|---|',
    ...rows.map((r) => `| ${r.figure} | ${r.measured} | ${r.aim} | ${r.met} |`),
  ].join('\n');
  const report = `Machine: ${machine}\n\n${table}\n`;
  console.log(report);
  if (process.argv.includes('--write')) {
    const file = path.join(root, 'docs', 'benchmarks.md');
    const text = fs.readFileSync(file, 'utf8');
    fs.writeFileSync(file, text.replace(/(<!-- figures -->\n)[\s\S]*(<!-- end -->)/, `$1\n${report}\n$2`));
  }
}

void main();
