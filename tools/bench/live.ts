/** The figures of capture in Chromium: words while speaking, the pack, and what kills cost. Prints Markdown tables. */
import { spawnSync } from 'node:child_process';
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
  const noteWords = (when: string, { heard, sound }: Spied) => {
    const all = latencies({ heard, sound });
    const median = quantile(all, 0.5);
    const p95 = quantile(all, 0.95);
    note(
      `Words while speaking, ${when} (${all.length} in 80 s): end of the word to its appearance, median`,
      ...([seconds(median), 'under 2 s', median < 2000] as const),
    );
    note('The same, 95th percentile', seconds(p95), 'under 3.5 s', p95 < 3500);
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
  while (!(await isAllDone())) await page.waitForTimeout(1000);
  await page.goto(immeld.address);
  noteWords('Speak pressed the moment the page is there', await record(80_000));
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
    'at most 2 s',
    Math.max(...lost) <= 2000,
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
