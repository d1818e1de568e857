import type { Pack } from '@immeld/core/contract/captures';
import type { ListedName } from '@immeld/core/speech/names/nameCandidates';
import type { TranscribedWord } from '@immeld/core/speech/transcriber';
import type { FromLiveWorker, ToLiveWorker } from '../workers/liveMessages';
import { Listeners } from '../state/listeners';

export type LiveTextState = {
  /** off: no pack is on this device · loading · on · failed */
  state: 'off' | 'loading' | 'on' | 'failed';
  fixed: readonly TranscribedWord[];
  tentative: readonly TranscribedWord[];
  /** How far the text is behind the sound. */
  lagMs: number;
  problem: string | null;
};

const NOTHING: LiveTextState = { state: 'off', fixed: [], tentative: [], lagMs: 0, problem: null };
const GLUE = '/workers/runtime.mjs';
/** Two minutes, in tenths of a second. */
const MAX_EARLY = 1200;

type WorkerLike = Pick<Worker, 'postMessage' | 'terminate' | 'addEventListener'>;

/** The words while somebody speaks, from the worker that recognises on this device. One worker for all recordings. */
export class LiveText {
  private worker: WorkerLike | null = null;
  private now: LiveTextState = NOTHING;
  private session = 0;
  private isOpen = false;
  private readonly listeners = new Listeners();
  private ended: (() => void) | null = null;
  private names: readonly ListedName[] = [];
  /** Sound from before the pack was there, so that the first words are not missing. */
  private early: { samples: Float32Array; rate: number }[] = [];

  constructor(
    private readonly makeWorker: () => WorkerLike = () => new Worker('/workers/liveWorker.js', { type: 'module' }),
  ) {}

  get state(): LiveTextState {
    return this.now;
  }

  /** Whether a session is open: somebody speaks, or is about to. */
  get isListening(): boolean {
    return this.isOpen;
  }

  readonly subscribe = this.listeners.subscribe;

  /** Loads a pack that is on this device; does nothing when one is loaded already. */
  load(pack: Pack): void {
    if (this.worker) return;
    try {
      this.worker = this.makeWorker();
    } catch {
      this.set({
        state: 'failed',
        problem: 'This browser cannot transcribe on its own. The server transcribes the recording later.',
      });
      return;
    }
    this.worker.addEventListener('message', (event) => this.hear((event as MessageEvent<FromLiveWorker>).data));
    this.worker.addEventListener('error', () => this.fail('This device could not transcribe the audio.'));
    this.set({ state: 'loading', problem: null });
    const files = pack.files.map(({ address }) => ({ name: address.slice(address.lastIndexOf('/') + 1), address }));
    this.send({ type: 'load', files, glue: GLUE });
    this.send({ type: 'names', names: this.names });
    const waiting = this.early;
    this.early = [];
    for (const { samples, rate } of waiting) this.push(samples, rate);
  }

  /** Takes the loaded pack out of memory, for instance because it was removed from the device. */
  unload(): void {
    this.worker?.terminate();
    this.worker = null;
    this.set(NOTHING);
  }

  /** Names and terms that a person has listed: expected in what is recorded from now on. */
  expectNames(names: readonly ListedName[]): void {
    this.names = names;
    this.send({ type: 'names', names });
  }

  begin(): void {
    this.session++;
    this.isOpen = true;
    this.early = [];
    this.set({ fixed: [], tentative: [], lagMs: 0 });
  }

  /** Adds sound of the running session. */
  push(samples: Float32Array, rate: number): void {
    if (!this.isOpen) return;
    if (this.worker) this.send({ type: 'sound', session: this.session, samples, rate });
    else if (this.now.state === 'off' && this.early.length < MAX_EARLY) this.early.push({ samples, rate });
  }

  /** Ends the session; resolves when its last words are there, at once when nothing listens. */
  async end(longestMs = 4000): Promise<readonly TranscribedWord[]> {
    this.isOpen = false;
    this.early = [];
    if (this.worker && this.now.state === 'on') {
      await new Promise<void>((resolve) => {
        this.ended = resolve;
        setTimeout(resolve, longestMs);
        this.send({ type: 'end', session: this.session });
      });
    }
    return [...this.now.fixed, ...this.now.tentative];
  }

  private send(message: ToLiveWorker): void {
    this.worker?.postMessage(message);
  }

  private hear(message: FromLiveWorker): void {
    if (message.type === 'ready') this.set({ state: 'on' });
    else if (message.type === 'problem') this.fail(message.message);
    else if (message.session !== this.session) return;
    else if (message.type === 'ended') this.ended?.();
    else {
      const { fixed, tentative, lagMs } = message;
      this.set({ fixed: fixed.length ? [...this.now.fixed, ...fixed] : this.now.fixed, tentative, lagMs });
    }
  }

  /** The sound goes on being recorded: only the words on this device are missing. */
  private fail(problem: string): void {
    this.worker?.terminate();
    this.worker = null;
    this.ended?.();
    this.set({ state: 'failed', problem });
  }

  private set(part: Partial<LiveTextState>): void {
    this.now = { ...this.now, ...part };
    this.listeners.tell();
  }
}
