import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { type Page, test as base, expect } from '@playwright/test';
import type { Job } from '@immeld/core/contract/jobs';
import type { Recording, RecordingCard } from '@immeld/core/contract/recordings';

export const root = path.resolve(__dirname, '..');
export const demoSound = (name: string): string => path.join(root, 'demo', 'sound', name);

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = net.createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as net.AddressInfo;
      probe.close(() => resolve(port));
    });
  });

/** Where the data of the demo lie that every house begins with. */
const DEMO_TEMPLATE = path.join(root, '.immeld', 'demo-template');

/**
 * Makes the demo's day as of now, whatever was made before. What the demo leaves to be recognised while one watches is
 * recognised here, once for all tests.
 */
export async function makeDemoTemplate(): Promise<void> {
  fs.rmSync(DEMO_TEMPLATE, { recursive: true, force: true });
  const immeld = new Immeld();
  const program = path.join(root, 'demo', 'dist', 'makeDemoData.cjs');
  execFileSync(process.execPath, [program, immeld.dataFolder], { stdio: 'ignore' });
  await immeld.start();
  const isBusy = async () =>
    (await immeld.ask<{ items: Job[] }>('/jobs')).items.some((j) => j.state === 'waiting' || j.state === 'running');
  while (await isBusy()) await new Promise((resolve) => setTimeout(resolve, 200));
  await immeld.stop();
  fs.cpSync(immeld.dataFolder, DEMO_TEMPLATE, { recursive: true });
  immeld.remove();
}

/** The built server on a data folder of its own. */
export class Immeld {
  readonly folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-browser-'));
  readonly dataFolder = path.join(this.folder, 'data');
  address = '';
  private program: ChildProcess | null = null;

  /** @param isDemo in the demo everybody shares one account, so that tests can ask the server without a cookie */
  constructor(private readonly isDemo = true) {}

  private port = 0;

  /** A copy of the demo's day, which is made before all tests. */
  makeDemoData(): void {
    fs.cpSync(DEMO_TEMPLATE, this.dataFolder, { recursive: true });
  }

  async start(): Promise<void> {
    this.port ||= await freePort();
    this.address = `http://127.0.0.1:${this.port}`;
    this.program = spawn(process.execPath, [path.join(root, 'server', 'dist', 'main.cjs')], {
      stdio: 'ignore',
      env: {
        ...process.env,
        IMMELD_DATA: this.dataFolder,
        PORT: String(this.port),
        IMMELD_DEMO: this.isDemo ? '1' : '0',
      },
    });
    for (let i = 0; i < 200; i++) {
      if (
        await fetch(`${this.address}/api/status`).then(
          (r) => r.ok,
          () => false,
        )
      )
        return;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error('The server did not start.');
  }

  kill(): void {
    this.program?.kill('SIGKILL');
  }

  /** Ends the server as one does who switches it off: everything is on the disk then. */
  async stop(): Promise<void> {
    const ended = new Promise((resolve) => this.program?.once('exit', resolve));
    this.program?.kill('SIGTERM');
    await ended;
  }

  remove(): void {
    this.kill();
    fs.rmSync(this.folder, { recursive: true, force: true });
  }

  /** @param body sent as JSON */
  async ask<T>(address: string, method = 'GET', body?: object): Promise<T> {
    const sent = body && { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) };
    return (await (await fetch(`${this.address}/api${address}`, { method, ...sent })).json()) as T;
  }

  /** Converts a shipped sound into another file of this test. */
  convert(source: string, name: string, ...args: string[]): string {
    const target = path.join(this.folder, name);
    execFileSync('ffmpeg', ['-y', '-loglevel', 'error', '-i', source, ...args, target]);
    return target;
  }
}

/** The server of the file whose tests are running. */
class House {
  private file = '';
  private immeld: Immeld | null = null;

  async of(file: string): Promise<Immeld> {
    if (this.immeld && this.file === file) return this.immeld;
    this.immeld?.remove();
    this.file = file;
    this.immeld = new Immeld();
    this.immeld.makeDemoData();
    await this.immeld.start();
    return this.immeld;
  }

  close(): void {
    this.immeld?.remove();
  }
}

/** A test with the demo world on a server of its own, shared by the tests of a file. */
export const test = base.extend<{ immeld: Immeld }, { house: House }>({
  house: [
    async ({}, use) => {
      const house = new House();
      await use(house);
      house.close();
    },
    { scope: 'worker' },
  ],
  immeld: [async ({ house }, use, info) => use(await house.of(info.file)), { timeout: 120_000 }],
});

/** Brings files in by the real picker. */
export async function bringIn(
  page: Page,
  files: string | string[] | { name: string; mimeType: string; buffer: Buffer },
): Promise<void> {
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Import audio files' }).first().click();
  await (await chooser).setFiles(files);
}

/** What waits in the tray, newest first. */
export const tray = async (immeld: Pick<Immeld, 'ask'>): Promise<RecordingCard[]> =>
  (await immeld.ask<{ items: RecordingCard[] }>('/recordings?place=tray&limit=200')).items;

/** A recording of the demo by the name of its file. */
export async function recordingNamed(immeld: Pick<Immeld, 'ask'>, fileName: string) {
  const { items } = await immeld.ask<{ items: RecordingCard[] }>('/recordings?place=all&limit=200');
  const { id } = items.find((r) => r.fileName === fileName)!;
  return { id, get: () => immeld.ask<Recording>(`/recordings/${id}`) };
}

/** Has a recording of the demo heard by the recogniser here and now, instead of what was kept of it. */
export async function heardForReal(immeld: Immeld, fileName: string): Promise<string> {
  const { id, get } = await recordingNamed(immeld, fileName);
  const sent = await fetch(`${immeld.address}/api/recordings/${id}/recognition`, {
    ...{ method: 'POST', headers: { 'Content-Type': 'application/json' }, body: '{}' },
  });
  expect(sent.ok).toBe(true);
  const isBusy = async () =>
    (await immeld.ask<{ items: Job[] }>('/jobs')).items.some(
      (j) => j.recordingId === id && (j.state === 'waiting' || j.state === 'running'),
    );
  await expect.poll(isBusy, { timeout: 150_000, intervals: [500] }).toBe(false);
  expect((await get()).state).toBe('ready');
  return id;
}

/** Selects the words of a paragraph from one to another as a mouse does. */
export async function selectWords(page: Page, first: number, last: number, paragraph = 0): Promise<void> {
  const words = page.getByRole('article').nth(paragraph).locator('[data-word]');
  const [from, to] = [await words.nth(first).boundingBox(), await words.nth(last).boundingBox()];
  await page.mouse.move(from!.x + 2, from!.y + from!.height / 2);
  await page.mouse.down();
  await page.mouse.move(to!.x + to!.width - 2, to!.y + to!.height / 2, { steps: 8 });
  await page.mouse.up();
}

/** WCAG 2.2 A and AA by axe: nothing may be found once everything that fades in is there. */
export async function expectAccessible(page: Page): Promise<void> {
  const found = async () => {
    const { violations } = await new AxeBuilder({ page })
      .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
      .analyze();
    return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`);
  };
  await expect.poll(found, { timeout: 40_000, intervals: [500, 2000] }).toEqual([]);
}

/** What can be pressed or typed into is at least this large, but for words in a running text (WCAG 2.2, 2.5.5 and 2.5.8). */
const TARGET = 48;

/** Expects that nothing on the page is too small for a thumb. */
export async function expectLargeTargets(page: Page): Promise<void> {
  const small = () =>
    page.evaluate((least) => {
      const kinds = ['button', 'link', 'tab', 'checkbox', 'radio', 'switch', 'menuitem', 'option'];
      const all = `a[href], button, input, select, textarea, ${kinds.map((k) => `[role=${k}]`).join(', ')}`;
      return [...document.querySelectorAll(all)].flatMap((e) => {
        const { width, height } = e.getBoundingClientRect();
        const { visibility, display, pointerEvents } = getComputedStyle(e);
        const isShown = width > 1 && height > 1 && visibility !== 'hidden' && pointerEvents !== 'none';
        if (!isShown || display === 'inline' || e.closest('[aria-hidden=true]')) return [];
        // Half a pixel is lost where lengths are rounded.
        if (Math.min(width, height) >= least - 0.5) return [];
        return [`${e.getAttribute('aria-label') ?? e.textContent}: ${Math.round(width)} by ${Math.round(height)}`];
      });
    }, TARGET);
  await expect.poll(small, { timeout: 10_000 }).toEqual([]);
}

export { expect };
