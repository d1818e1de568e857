/** The figures of capture in Chromium: words while speaking, the pack, and what kills cost. Prints Markdown tables. */
import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Pack } from '@immeld/core/contract/captures';
import { Immeld } from '../../e2e/immeld';
import { Talker } from '../../e2e/talker';
import { projectRoot } from '../../server/projectRoot';

type Heard = { at: number; type: string; loadMs?: number; fixed?: Word[]; tentative?: Word[] };
type Word = { text: string; startMs: number; endMs: number };
type Spied = { heard: Heard[]; sound: { at: number; endMs: number }[] };

const KILLS = Number(process.env['IMMELD_KILLS'] ?? 200);
const rows: string[] = ['| figure | measured | aim | met |', '|---|---|---|---|'];
function note(figure: string, measured: string, aim: string, met: boolean | null): void {
  rows.push(`| ${figure} | ${measured} | ${aim} | ${met === null ? '' : met ? 'yes' : 'no'} |`);
  process.stderr.write(`${figure}: ${measured} (${aim})\n`);
}
const sorted = (values: number[]) => [...values].sort((a, b) => a - b);
const quantile = (values: number[], share: number) => sorted(values)[Math.floor((values.length - 1) * share)] ?? NaN;
const seconds = (ms: number) => `${(ms / 1000).toFixed(2)} s`;

/** Notes what goes to the worker and what comes back, with the page's clock. */
function spy(): void {
  const spied: Spied = { heard: [], sound: [] };
  Object.assign(window, { spied });
  const Real = window.Worker;
  window.Worker = class extends Real {
    constructor(...args: ConstructorParameters<typeof Real>) {
      super(...args);
      this.addEventListener('message', ({ data }) => spied.heard.push({ at: performance.now(), ...data }));
    }
    override postMessage(message: { type: string; samples?: Float32Array; rate?: number }): void {
      if (message.type === 'sound') {
        const before = spied.sound.at(-1)?.endMs ?? 0;
        const endMs = before + (message.samples!.length / message.rate!) * 1000;
        spied.sound.push({ at: performance.now(), endMs });
      }
      super.postMessage(message);
    }
  };
}

/** From the end of each word in the sound to the message that shows it first. */
function latencies({ heard, sound }: Spied): number[] {
  const found: number[] = [];
  let shownTo = 0;
  for (const { at, fixed = [], tentative = [] } of heard.filter((h) => h.type === 'text')) {
    for (const word of [...fixed, ...tentative]) {
      if (word.endMs <= shownTo) continue;
      shownTo = word.endMs;
      const said = sound.find((s) => s.endMs >= word.endMs);
      if (said) found.push(at - said.at);
    }
  }
  return found;
}

/** From the beginning of the sound to the first message with words, less what was silent before the first of them. */
function firstWordsMs({ heard, sound }: Spied): number {
  const first = heard.find(({ fixed = [], tentative = [] }) => fixed.length + tentative.length > 0);
  const word = [...(first?.fixed ?? []), ...(first?.tentative ?? [])][0];
  return first && word && sound[0] ? first.at - sound[0].at - word.startMs : NaN;
}

/** Programs that keep every core busy, at the usual priority. @returns ends them */
function busyCores(): () => void {
  const busy = os.cpus().map(() => spawn(process.execPath, ['-e', 'for (;;);'], { stdio: 'ignore' }));
  return () => busy.forEach((program) => program.kill('SIGKILL'));
}

const PAGES = ['/', '/tray', '/shelves', '/todos', '/find', '/settings', '/weeks', '/templates', '/links', '/history'];

/** Each page once with a network, then without one: from the beginning of the navigation to its first heading. */
async function pagesOffline(immeld: Immeld, { page }: Talker): Promise<void> {
  const { items } = await immeld.ask<{ items: { id: string }[] }>('/recordings?place=all&limit=3');
  const pages = [...PAGES, ...items.map(({ id }) => `/recordings/${id}`)];
  const open = async (at: string) => {
    const began = performance.now();
    await page.goto(immeld.address + at, { waitUntil: 'commit' });
    await page.getByRole('heading', { level: 1 }).first().waitFor({ timeout: 20_000 });
    return performance.now() - began;
  };
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  for (const at of pages) {
    await open(at);
    await page.waitForTimeout(1000);
  }
  await page.context().setOffline(true);
  const times: number[] = [];
  for (const at of pages) times.push(await open(at));
  await page.context().setOffline(false);
  const slowest = Math.max(...times);
  note(
    `${pages.length} pages opened without a network: the slowest (${pages[times.indexOf(slowest)]!.replace(/[0-9a-f-]{20,}/, '…')})`,
    ...([seconds(slowest), 'under 1 s', slowest < 1000] as const),
  );
  note('The same, median', seconds(quantile(times, 0.5)), 'measured', null);
}

async function words(): Promise<void> {
  const immeld = new Immeld();
  await immeld.start();
  const talker = await Talker.open(immeld);
  const { page } = talker;
  await page.addInitScript(spy);
  await page.goto(`${immeld.address}/settings`);
  const { items } = await immeld.ask<{ items: Pack[] }>('/packs');
  const size = (of: (f: Pack['files'][number]) => number) => items[0]!.files.reduce((n, f) => n + of(f), 0) / 2 ** 20;
  note('Pack: bytes over the line (gzip)', `${size((f) => f.sentBytes).toFixed(1)} MB`, 'told before', null);
  note('Pack: bytes kept on the device', `${size((f) => f.sizeBytes).toFixed(1)} MB`, 'told before', null);
  const began = Date.now();
  await page.getByRole('button', { name: 'Download' }).click();
  await page.getByRole('button', { name: 'Remove from this device' }).waitFor({ timeout: 120_000 });
  note('Pack: fetched, checked and kept, from the same machine', seconds(Date.now() - began), 'measured', null);

  const spied = () => page.evaluate(() => (window as unknown as { spied: Spied }).spied);
  const isLoaded = () =>
    page.waitForFunction(
      () => (window as unknown as { spied: Spied }).spied.heard.some(({ type }) => type === 'ready'),
      null,
      { timeout: 60_000 },
    );
  const loadMs = async () => (await spied()).heard.find(({ type }) => type === 'ready')!.loadMs!;
  const record = async (forMs: number): Promise<Spied> => {
    await page.getByRole('button', { name: 'Speak' }).click();
    await page.waitForTimeout(forMs);
    const now = await spied();
    await page.getByRole('button', { name: 'Finish' }).click();
    await page.waitForTimeout(1500);
    return now;
  };
  /** @param times how much longer it may take than on an idle machine */
  const noteWords = (when: string, spiedOn: Spied, times = 1) => {
    const all = latencies(spiedOn);
    const first = firstWordsMs(spiedOn);
    const median = quantile(all, 0.5);
    note(
      `${when}: from the beginning of the first word to its appearance`,
      ...([seconds(first), `under ${3 * times} s`, first < 3000 * times] as const),
    );
    note(
      `The same: end of each word (${all.length} in 80 s) to its appearance, median`,
      ...([seconds(median), `under ${(1.2 * times).toFixed(1)} s`, median < 1200 * times] as const),
    );
    note('The same, 95th percentile', seconds(quantile(all, 0.95)), 'measured', null);
  };
  await page.goto(immeld.address);
  await isLoaded();
  note('Pack: loaded in a browser that has just started (cold)', seconds(await loadMs()), 'measured', null);
  await page.goto(immeld.address);
  await isLoaded();
  note('Pack: loaded again in a new page (warm)', seconds(await loadMs()), 'measured', null);
  noteWords('Speak pressed once the page has loaded its pack', await record(80_000));
  // The server recognises what was just recorded, on the same two cores: that is not what is measured here.
  const isAllDone = async () =>
    (await immeld.ask<{ items: { state: string }[] }>('/recordings?limit=200')).items.every(
      ({ state }) => state === 'ready' || state === 'failed',
    );
  const idle = async () => {
    while (!(await isAllDone())) await page.waitForTimeout(1000);
  };
  await idle();
  await page.goto(immeld.address);
  noteWords('Speak pressed the moment the page is there', await record(80_000));
  await idle();
  const letGo = busyCores();
  await page.goto(immeld.address);
  noteWords('The same with every core busy with something else', await record(80_000), 2);
  letGo();
  await idle();
  await pagesOffline(immeld, talker);
  await talker.close();
  immeld.remove();
}

/** Kills browser and server as the browser tests do, only more often, and sums up what they note. */
function kills(): void {
  const results = path.join(fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-kills-')), 'kills.jsonl');
  const run = spawnSync(
    process.execPath,
    [
      path.join(projectRoot(), 'node_modules', '.bin', 'playwright'),
      'test',
      '--config',
      'e2e/playwright.config.ts',
      'Kills',
    ],
    {
      cwd: projectRoot(),
      stdio: ['ignore', 2, 2],
      env: { ...process.env, IMMELD_KILLS: String(KILLS), IMMELD_KILL_RESULTS: results },
    },
  );
  const notes = fs
    .readFileSync(results, 'utf8')
    .trim()
    .split('\n')
    .map(
      (line) =>
        JSON.parse(line) as { kind: string; elapsedMs: number; lostMs: number; arrivedBytes: number; of: number },
    );
  const lost = notes.filter((n) => n.kind === 'browser').map((n) => n.lostMs);
  const cut = notes.filter((n) => n.kind === 'server' && n.arrivedBytes > 0 && n.arrivedBytes < n.of);
  note(
    `Browser killed ${lost.length} times while recording: most that was lost`,
    seconds(Math.max(...lost)),
    'at most 1 s',
    Math.max(...lost) <= 1000,
  );
  note('The same: lost in the median', seconds(quantile(lost, 0.5)), 'measured', null);
  note(
    `Server killed ${notes.filter((n) => n.kind === 'server').length} times during an upload (${cut.length} of them with part of it on the disk): missing, doubled or changed`,
    run.status === 0 ? 'none' : 'see the output',
    'none',
    run.status === 0,
  );
}

async function main(): Promise<void> {
  await words();
  if (!process.argv.includes('--short')) kills();
  const processor = os.cpus()[0]?.model ?? 'unknown processor';
  const machine = `Machine: ${os.availableParallelism()} cores (${processor}), ${Math.round(os.totalmem() / 2 ** 30)} GiB, Node ${process.versions.node}`;
  const table = `${machine}\n\n${rows.join('\n')}\n`;
  console.log(table);
  if (process.argv.includes('--write')) {
    const file = path.join(projectRoot(), 'docs', 'benchmarks.md');
    const text = fs.readFileSync(file, 'utf8');
    fs.writeFileSync(
      file,
      text.replace(
        /<!-- live figures -->[\s\S]*?<!-- end of live figures -->/,
        `<!-- live figures -->\n\n${table}\n<!-- end of live figures -->`,
      ),
    );
  }
}

main().then(
  () => process.exit(0),
  (error: unknown) => {
    console.error(error);
    process.exit(1);
  },
);
