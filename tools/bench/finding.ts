/** Finding in large archives, filing by what was filed before, and asking the demo world. */
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { DemoWorldAsked } from '../../core/find/evaluation/askDemoWorld';
import * as questions from '../../core/find/evaluation/questions';
import { filingMetrics } from '../../core/filing/evaluation/filingMetrics';
import { type FiledMemo, seeded, withLongOnes, yearOfFilings } from '../../core/filing/evaluation/yearOfFilings';
import { recordingsToAsk, shippedVectors } from '../../demo/src/askedWorld';
import { loadWorld } from '../../demo/src/world';
import { asAccount } from '../../server/accounts/currentAccount';
import { FIRST_ACCOUNT } from '../../server/accounts/firstAccount';
import { openDatabase } from '../../server/database';
import { projectRoot } from '../../server/projectRoot';

const PASSAGES = 5;
const WORDS_A_PASSAGE = 30;
/** As many as are spoken in an hour at 150 a minute. */
const WORDS_AN_HOUR = 9000;
const ROUNDS = 150;

const sorted = (values: number[]): number[] => [...values].sort((a, b) => a - b);
const at = (values: number[], share: number): number =>
  sorted(values)[Math.min(values.length - 1, Math.floor(values.length * share))]!;
const ms = (value: number) => `${Math.round(value)} ms`;
const percent = (value: number) => `${(value * 100).toFixed(0)} %`;

/** Words as they are frequent in English, and the demo's own among them: sentences of no sense, but with real frequencies. */
function wordSource(random: () => number): () => string {
  const common = fs
    .readFileSync(path.join(projectRoot(), 'server', 'find', 'vectors', 'words.txt'), 'utf8')
    .split('\n')
    .slice(0, 30_000);
  const demo = loadWorld(path.join(projectRoot(), 'demo', 'world')).flatMap((s) =>
    s.lines.flatMap((l) => l.text.split(/\s+/)),
  );
  // Zipf's law: the word of rank r comes with a probability of about 1 / r.
  return () =>
    random() < 0.15
      ? demo[Math.floor(random() * demo.length)]!
      : common[Math.min(common.length - 1, Math.floor(Math.exp(random() * Math.log(common.length))))]!;
}

async function makeArchive(folder: string, recordings: number): Promise<void> {
  const database = await openDatabase(folder);
  const random = seeded(recordings);
  const word = wordSource(random);
  const text = (n: number) => Array.from({ length: n }, word).join(' ');
  const escape = (value: string) => `'${value.replaceAll("'", "''")}'`;
  await asAccount(FIRST_ACCOUNT, async () => {
    for (let from = 0; from < recordings; from += 500) {
      const rows: string[] = [];
      const passages: string[] = [];
      for (let i = from; i < Math.min(recordings, from + 500); i++) {
        const id = `00000000-0000-4000-9000-${i.toString(16).padStart(12, '0')}`;
        const day = new Date(Date.UTC(2020, 0, 1) + Math.floor(random() * 2200) * 86_400_000)
          .toISOString()
          .slice(0, 10);
        rows.push(
          `('${id}', '${FIRST_ACCOUNT}', ${escape(text(4))}, 'memo-${i}.m4a', 'speak', 'audio/mp4', 'x', '${i}', 1, 60000, '${day}T09:00:00', 'ready', '{"title":null,"folderId":null,"tags":[]}', '[]', datetime('now'), datetime('now'), datetime('now'))`,
        );
        for (let p = 0; p < PASSAGES; p++) {
          passages.push(
            `('${id}', ${p}, ${p * 12_000}, ${p * 12_000 + 11_000}, 1, '[]', ${escape(text(WORDS_A_PASSAGE))}, '')`,
          );
        }
      }
      await database.query(
        `INSERT INTO recordings (id, account_id, title, file_name, source, media_type, sound_file, sha256, size_bytes, duration_ms, started_at, state, suggestion, peaks, filed_at, created_at, updated_at) VALUES ${rows.join(',')}`,
      );
      await database.query(
        `INSERT INTO passages (recording_id, position, start_ms, end_ms, starts_paragraph, words, text, written) VALUES ${passages.join(',')}`,
      );
    }
  });
  await database.query('PRAGMA wal_checkpoint(TRUNCATE)');
  await database.close();
}

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = net.createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as net.AddressInfo;
      probe.close(() => resolve(port));
    });
  });

async function indexBytes(folder: string): Promise<number> {
  const database = await openDatabase(folder);
  const [[row]] = (await database.query(
    "SELECT sum(pgsize) AS bytes FROM dbstat WHERE name LIKE 'found%' OR name LIKE 'places%'",
  )) as unknown as [[{ bytes: number | null }]];
  await database.close();
  return row.bytes ?? 0;
}

async function searchTimes(
  recordings: number,
): Promise<{ twoWords: number[]; prefixes: number[]; questions: number[]; bytesAnHour: number | null }> {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-archive-'));
  const data = path.join(folder, 'data');
  fs.mkdirSync(data);
  await makeArchive(data, recordings);
  const hours = (recordings * PASSAGES * WORDS_A_PASSAGE) / WORDS_AN_HOUR;
  const bytesAnHour = await indexBytes(data).then(
    (bytes) => bytes / hours,
    () => null,
  );
  const port = await freePort();
  const server = spawn(process.execPath, [path.join(projectRoot(), 'server', 'dist', 'main.cjs')], {
    stdio: 'ignore',
    env: { ...process.env, IMMELD_DATA: data, PORT: String(port), IMMELD_DEMO: '1' },
  });
  const address = `http://127.0.0.1:${port}/api`;
  for (let i = 0; i < 600 && !(await fetch(`${address}/status`).catch(() => null)); i++)
    await new Promise((r) => setTimeout(r, 100));
  const random = seeded(5);
  const word = wordSource(random);
  const timed = async (place: string, q: string): Promise<number> => {
    const began = performance.now();
    await (await fetch(`${address}/${place}?q=${encodeURIComponent(q)}`)).json();
    return performance.now() - began;
  };
  const plain = () => {
    for (;;) {
      const w = word()
        .replace(/[^a-z]/gi, '')
        .toLowerCase();
      if (w.length > 3) return w;
    }
  };
  for (let i = 0; i < 10; i++) await timed('find', `${plain()} ${plain()}`);
  const twoWords: number[] = [];
  const prefixes: number[] = [];
  const asked: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    twoWords.push(await timed('find', `${plain()} ${plain()}`));
    const w = plain();
    for (let length = 1; length <= Math.min(5, w.length); length++)
      prefixes.push(await timed('find', w.slice(0, length)));
  }
  for (const { question } of [...questions.QUESTIONS_DEV_SET, ...questions.QUESTIONS_TEST_SET])
    asked.push(await timed('ask', question));
  server.kill();
  fs.rmSync(folder, { recursive: true, force: true });
  return { twoWords, prefixes, questions: asked, bytesAnHour };
}

async function main(): Promise<void> {
  const rows: string[][] = [];
  for (const recordings of process.argv.includes('--short') ? [10_000] : [10_000, 100_000]) {
    const name = `${recordings.toLocaleString('en-GB')} recordings, ${((recordings * PASSAGES * WORDS_A_PASSAGE) / 1e6).toFixed(1)} million words`;
    const { twoWords, prefixes, questions: asked, bytesAnHour } = await searchTimes(recordings);
    const isAim = recordings === 10_000;
    rows.push([
      `${name}: two words, median and 95th percentile at the HTTP edge`,
      `${ms(at(twoWords, 0.5))} and ${ms(at(twoWords, 0.95))}`,
      isAim ? 'p95 under 100 ms' : 'how it grows',
    ]);
    rows.push([
      'the same: as one types, one to five letters',
      `${ms(at(prefixes, 0.5))} and ${ms(at(prefixes, 0.95))}`,
      isAim ? 'p95 under 60 ms' : 'how it grows',
    ]);
    rows.push(['the same: a question answered', `${ms(at(asked, 0.5))} and ${ms(at(asked, 0.95))}`, 'reported']);
    rows.push([
      'the same: index for each hour of speech',
      bytesAnHour === null ? 'not to be had from this SQLite' : `${(bytesAnHour / 1024).toFixed(0)} kB`,
      'reported',
    ]);
  }
  const seeds = [1, 2, 3];
  const figures = (year: FiledMemo[]) =>
    filingMetrics(
      year.map((m) => ({ ...m, folderId: m.folder, project: null, place: null })),
      30,
    );
  const filing = seeds.map((seed) => figures(yearOfFilings(400, seed)));
  const mixed = seeds.map((seed) => figures(withLongOnes(yearOfFilings(400, seed), seed)));
  const shares = (of: (f: (typeof filing)[number]) => number) => filing.map((f) => percent(of(f))).join(', ');
  rows.push([
    'A made-up year of 400 filings, three seeds: right folder first, after 30',
    shares((f) => f.folderFirst),
    'at least 85 %',
  ]);
  rows.push(['the same: the folder used most so far', shares((f) => f.mostFrequentFirst), 'for comparison']);
  rows.push(['the same: of the tags given, among the first three named', shares((f) => f.tagRecall), 'at least 80 %']);
  rows.push(['the same: of the tags named, given', shares((f) => f.tagPrecision), 'reported']);
  rows.push([
    'with every sixth thirty times as long: right folder first; of the tags given, named',
    `${mixed.map((f) => percent(f.folderFirst)).join(', ')}; ${mixed.map((f) => percent(f.tagRecall)).join(', ')}`,
    'at least 85 %; at least 80 %',
  ]);
  const today = new Date(2026, 2, 12);
  const world = new DemoWorldAsked(recordingsToAsk(today), shippedVectors(), '2026-03-12');
  const right = (list: readonly questions.ExampleQuestion[]) => list.filter((q) => world.placeOfRight(q) > 0).length;
  const refused = (list: readonly string[]) => list.filter((q) => world.ask(q).quotes.length === 0).length;
  const [work, figure] = [right(questions.QUESTIONS_DEV_SET), right(questions.QUESTIONS_TEST_SET)];
  rows.push([
    '60 questions to the demo world: right passage among the first three',
    `${work + figure} of 60 (${percent((work + figure) / 60)})`,
    'at least 85 %',
  ]);
  rows.push(['of these the 30 on which nothing was selected', `${figure} of 30 (${percent(figure / 30)})`, '']);
  rows.push([
    '10 questions without an answer, on which nothing was chosen: refused',
    `${refused(questions.UNANSWERABLE_TEST_SET)} of 10`,
    'at least 8',
  ]);
  rows.push([
    '25 others without an answer',
    `${refused([...questions.UNANSWERABLE_DEV_SET, ...questions.MORE_UNANSWERABLE_DEV_SET])} of 25`,
    'reported',
  ]);
  const table = ['| figure | measured | aim |', '|---|---|---|', ...rows.map((r) => `| ${r.join(' | ')} |`)].join('\n');
  const cpu = os.cpus();
  console.log(`\nMachine: ${cpu.length} cores (${cpu[0]!.model}), Node ${process.versions.node}\n\n${table}\n`);
}

void main();
