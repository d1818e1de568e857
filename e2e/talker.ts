import { type BrowserContext, type Page, chromium } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { demoSound, type Immeld } from './immeld';
import config from './playwright.config';

/** A browser with a profile of its own and a microphone that hears a shipped voice; it can be killed and comes back. */
export class Talker {
  private readonly profile = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-profile-'));
  private context: BrowserContext | null = null;
  page!: Page;

  private constructor(
    private readonly voice: string,
    private readonly flags: string[],
  ) {}

  /** @param cut arguments of ffmpeg that choose a part of the sound */
  static async open(
    immeld: Immeld,
    { sound = 'quay-walk.ogg', cut = [] as string[], flags = [] as string[] } = {},
  ): Promise<Talker> {
    const voice = immeld.convert(demoSound(sound), 'voice.wav', ...cut, '-ar', '48000', '-ac', '1');
    const talker = new Talker(voice, flags);
    await talker.launch();
    return talker;
  }

  async launch(): Promise<Page> {
    const { launchOptions, viewport } = config.use!;
    this.context = await chromium.launchPersistentContext(this.profile, {
      ...launchOptions,
      viewport: viewport!,
      serviceWorkers: 'allow',
      args: [
        ...launchOptions!.args!,
        '--use-fake-device-for-media-stream',
        '--use-fake-ui-for-media-stream',
        `--use-file-for-fake-audio-capture=${this.voice}`,
        ...this.flags,
      ],
    });
    this.page = this.context.pages()[0] ?? (await this.context.newPage());
    return this.page;
  }

  /** As a crash or an empty battery would: every process of the browser at once, without a goodbye. */
  async crash(): Promise<void> {
    const closed = new Promise((resolve) => this.context!.once('close', resolve));
    try {
      execFileSync('pkill', ['-KILL', '-f', this.profile]);
    } catch {
      // pkill answers 1 when some of the processes were gone before it came to them.
    }
    await closed;
  }

  async close(): Promise<void> {
    await this.context?.close();
    fs.rmSync(this.profile, { recursive: true, force: true });
  }

  get network() {
    return this.context!;
  }

  /** Milliseconds of sound recorded so far, or null when nothing is being recorded. */
  async elapsedMs(): Promise<number | null> {
    return this.page.evaluate(() => {
      const bar = document.querySelector<HTMLElement>('[data-elapsed]');
      return bar ? Number(bar.dataset['elapsed']) : null;
    });
  }
}

/** How many of the longer words of a demo recording stand in a text: live recognition words single ones differently each time. */
export function wordsHeard(text: string, sound = 'quay-walk'): number {
  const file = path.join(__dirname, '..', 'demo', 'expected', `${sound}.words.json`);
  const known = (JSON.parse(fs.readFileSync(file, 'utf8')) as { word: string }[]).map((w) => w.word.toLowerCase());
  const heard = new Set(text.toLowerCase().match(/\p{L}+/gu));
  return new Set(known.filter((word) => word.length > 3 && heard.has(word))).size;
}
