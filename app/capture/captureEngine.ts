import type { MarkKind, NewSlip } from '@immeld/core/contract/slips';
import type { TranscribedWord } from '@immeld/core/speech/transcriber';
import { v4 as newId } from 'uuid';
import type { CaptureStore } from '../offline/captureStore';
import { localTime } from '../ui/dates';
import {
  asksBeforeLeaving,
  captureLock,
  heldLock,
  isRecordingElsewhere,
  keepScreenOn,
  roomToRecord,
} from './recordingLocks';
import { type Gap, GapFinder, gapWords } from './gapFinder';
import { levelWord } from './levels';
import { type CaptureNow, IDLE } from './captureNow';
import type { CaptureRun } from './captureRun';
import type { LiveText } from './liveText';
import { type OpenSources, type SourceChoice, SourceProblem, openSources } from './sources';
import { JournalWriter } from './journalWriter';
import { PieceWriter } from './pieceWriter';
import { BITS_PER_SECOND, openRecorder } from './recorder';
import { openPcmStream } from './pcmStream';
import { Listeners } from '../state/listeners';

/** So often what was recorded goes to the disk: with what the encoder holds back, a crash costs less than two seconds. */
const PIECE_MS = 250;
const SHOWN_PEAKS = 600;
const WATCH_MS = 1000;
/** A recorder that has given nothing after this time gives nothing at all. */
const SILENT_RECORDER_MS = 5000;
const wordsOf = ({ state }: LiveText): TranscribedWord[] => [...state.fixed, ...state.tentative];
/** So often the words are saved, and so often when there are so many that writing them takes its time. */
const TEXT_KEPT_EVERY_MS = 2000;
const LONG_TEXT_KEPT_EVERY_MS = 10_000;
const LONG_TEXT_WORDS = 3000;
const SPACE_ASKED_EVERY_MS = 15_000;

export type StartOptions = {
  sources: SourceChoice;
  details?: Record<string, string>;
  appointment?: { title: string; people: readonly string[] };
};

/**
 * Records: opens the sources, keeps what was recorded on the disk, listens to the level, collects slips, and notices what
 * goes wrong. Knows nothing of screens.
 */
export class CaptureEngine {
  private now: CaptureNow = IDLE;
  private running: CaptureRun | null = null;
  private writes: Promise<void> = Promise.resolve();
  private readonly pictures = new Map<string, Blob>();
  private readonly listeners = new Listeners();

  constructor(
    private readonly store: CaptureStore,
    private readonly live: LiveText,
    private readonly onFinished: (captureId: string) => void,
    private readonly open: typeof openSources = openSources,
    /** Told the last words of a recording that was sent before they were there. */
    private readonly onLateWords: (captureId: string, words: TranscribedWord[]) => Promise<void> = async () =>
      undefined,
  ) {}

  get state(): CaptureNow {
    return this.now;
  }

  readonly subscribe = this.listeners.subscribe;

  async start({ sources: choice, details = {}, appointment }: StartOptions): Promise<void> {
    if (this.now.stage !== 'idle') return;
    this.set({ ...IDLE, stage: 'starting' });
    if (await isRecordingElsewhere()) {
      return this.set({ ...IDLE, problem: 'Another tab is recording already. Finish that recording first.' });
    }
    try {
      const sources = await this.open(choice);
      try {
        await this.run(sources, details);
        this.set({
          people: appointment?.people ?? [],
          appointment: appointment?.title ?? null,
          addedTo: details['appendTo'] ?? null,
        });
      } catch (error) {
        sources.close();
        throw error;
      }
    } catch (error) {
      this.set({
        ...IDLE,
        problem:
          error instanceof SourceProblem
            ? error.message
            : 'The recording could not start. Try again, or import an audio file instead.',
      });
    }
  }

  pause(): void {
    const { running } = this;
    if (!running || this.now.stage !== 'recording') return;
    running.recorder.pause();
    running.journal.pause();
    this.markGap(running.gaps.settle());
    running.pausedAt = performance.now();
    this.set({ stage: 'paused' });
  }

  resume(): void {
    const { running } = this;
    if (!running || running.pausedAt === null) return;
    const minutes = Math.round((performance.now() - running.pausedAt) / 60_000);
    running.pausedAt = null;
    running.gaps.restart();
    running.recorder.resume();
    running.journal.run();
    this.set({ stage: 'recording' });
    this.addSlip({ kind: 'seam', text: minutes ? `Paused for ${minutes} min` : 'Paused briefly' });
  }

  finish(): void {
    this.end(false);
  }

  /** Ends it and sends it nowhere; on this device it can be had back for thirty days. */
  throwAway(): void {
    this.end(true);
  }

  /** Resolves when this recording is complete on the device; at once when it is not the one under way. */
  ended(captureId: string): Promise<void> {
    return new Promise((resolve) => {
      const look = () => {
        if (this.now.captureId === captureId) return;
        stop();
        resolve();
      };
      const stop = this.subscribe(look);
      look();
    });
  }

  /** Whether spoken commands are to be done in what is being recorded. */
  dictate(isDictation: boolean): void {
    const { captureId } = this.now;
    if (!captureId) return;
    this.set({ isDictation });
    this.write(async () => {
      const details = (await this.store.get(captureId))?.details ?? {};
      await this.store.change(captureId, { details: { ...details, dictation: isDictation ? '1' : '' } });
    });
  }

  /** Makes one of two mixed sources louder or softer, from this moment on; factors from 0 to 2. */
  setGains(microphone: number, screen: number): void {
    this.running?.sources.setGains(microphone, screen);
  }

  /** Plays a sound aloud so that everybody hears it, and the recording too. Throws when it cannot be played. */
  async announce(sound: ArrayBuffer): Promise<void> {
    if (!this.running) throw new Error('Nothing is being recorded.');
    await this.running.sources.announce(sound);
  }

  closeProblem(): void {
    this.set({ problem: null });
  }

  /** Puts something into the margin at this second, or at the one that is given. */
  addSlip(
    slip: Pick<NewSlip, 'kind'> &
      Partial<Pick<NewSlip, 'text' | 'startMs' | 'endMs' | 'page' | 'words'>> & { mark?: MarkKind },
    picture: Blob | null = null,
  ): NewSlip | null {
    const { captureId } = this.now;
    if (!captureId) return null;
    const made: NewSlip = {
      id: newId(),
      kind: slip.kind,
      mark: slip.mark ?? null,
      startMs: Math.round(slip.startMs ?? this.now.elapsedMs),
      endMs: slip.endMs ?? null,
      text: slip.text ?? '',
      ...(slip.page ? { page: slip.page } : {}),
      ...(slip.words ? { words: slip.words } : {}),
    };
    this.set({ slips: [...this.now.slips, made] });
    if (picture) this.pictures.set(made.id, picture);
    this.write(() => this.store.keepSlip(captureId, made, picture));
    return made;
  }

  changeSlip(id: string, part: Partial<Pick<NewSlip, 'mark' | 'text' | 'startMs'>>): void {
    const { captureId } = this.now;
    const known = this.now.slips.find((s) => s.id === id);
    if (!captureId || !known) return;
    const changed = { ...known, ...part };
    this.set({ slips: this.now.slips.map((s) => (s.id === id ? changed : s)) });
    this.write(() => this.store.keepSlip(captureId, changed, this.pictures.get(id) ?? null));
  }

  removeSlip(id: string): void {
    const { captureId } = this.now;
    if (!captureId) return;
    this.set({ slips: this.now.slips.filter((s) => s.id !== id) });
    this.write(() => this.store.dropSlip(captureId, id));
  }

  /** One after the other: what was changed last is what is kept. */
  private write(change: () => Promise<void>): void {
    this.writes = this.writes.then(change).catch(() => undefined);
  }

  private async run(sources: OpenSources, details: Record<string, string>): Promise<void> {
    const { audio } = sources;
    const { recorder, extension } = openRecorder(sources.stream);
    const id = newId();
    const releaseLock = await heldLock(captureLock(id));
    const startedAt = localTime(new Date());
    await this.store.begin({
      id,
      name: `Recording ${startedAt.slice(0, 10)} ${startedAt.slice(11, 16).replace(':', '.')}.${extension}`,
      mediaType: recorder.mimeType,
      startedAt,
      ...{ source: 'speak', state: 'recording', durationMs: null, sizeBytes: 0, isRecovered: false },
      ...{ thrownAt: null, uploadAddress: null, sha256: null, recordingId: null, hereSince: null, problem: null },
      details,
    });
    const journal = new JournalWriter(id, audio.sampleRate);
    const tap = await openPcmStream(sources, journal.port);
    const clock = performance.now();
    const running: CaptureRun = {
      ...{ id, sources, recorder, journal, isThrownAway: false, isUnplugged: false, nothingForMs: 0 },
      pieces: new PieceWriter(this.store, id, () => this.storageIsFull(running)),
      ...{ pausedAt: null, mutedAt: null, gaps: new GapFinder(), lastSpaceCheck: -Infinity, lastTextKept: clock },
      watch: setInterval(() => this.watch(running), WATCH_MS),
      ...{ letScreenGo: keepScreenOn(), letPageGo: asksBeforeLeaving() },
      releaseLock,
    };
    this.running = running;
    tap((samples, rate) => this.hear(running, samples, rate));
    recorder.ondataavailable = ({ data }) => running.pieces.add(data, this.now.elapsedMs);
    recorder.onerror = () =>
      this.set({
        problem: 'The browser stopped recording. Everything up to that moment is saved.',
      });
    recorder.onstop = () => void this.complete(running);
    for (const track of sources.tracks) {
      track.addEventListener('ended', () => {
        if (this.running !== running) return;
        running.isUnplugged = sources.isMicrophone;
        this.end(false);
        if (!running.isUnplugged)
          this.set({ problem: 'The tab or screen is no longer shared. Everything up to that moment is saved.' });
      });
      track.addEventListener('mute', () => (running.mutedAt ??= this.now.elapsedMs));
      track.addEventListener('unmute', () => this.endOfMute(running));
    }
    recorder.start(PIECE_MS);
    journal.run();
    this.live.begin();
    void audio.resume();
    this.set({
      ...IDLE,
      stage: 'recording',
      captureId: id,
      warning: this.store.isLasting
        ? null
        : 'This browser cannot save anything for Immeld, perhaps because this is a private window. Keep this page open until the recording is sent.',
    });
  }

  private hear(running: CaptureRun, samples: Float32Array, rate: number): void {
    if (this.running !== running || this.now.stage !== 'recording') return;
    const soundMs = (samples.length / rate) * 1000;
    this.markGap(running.gaps.add(soundMs, this.now.elapsedMs));
    let peak = 0;
    for (const value of samples) peak = Math.max(peak, Math.abs(value));
    running.nothingForMs = peak === 0 ? running.nothingForMs + soundMs : 0;
    const peaks = [...this.now.peaks.slice(-SHOWN_PEAKS + 1), Math.min(100, Math.round(peak * 100))];
    const elapsedMs = this.now.elapsedMs + soundMs;
    this.set({ peaks, elapsedMs, level: levelWord(peaks, running.nothingForMs) });
    this.live.push(samples, rate);
  }

  private storageIsFull(running: CaptureRun): void {
    if (this.running !== running) return;
    this.end(false);
    this.set({
      problem:
        'This device is full, so the recording has ended. All of it is safe in this page. Keep the page open until it is sent.',
    });
  }

  private end(isThrownAway: boolean): void {
    const { running } = this;
    if (!running || this.now.stage === 'finishing') return;
    running.isThrownAway = isThrownAway;
    // Written down at once: a page that is closed before the recorder has ended must not bring it back.
    if (isThrownAway) this.write(() => this.store.change(running.id, { thrownAt: Date.now() }).then(() => undefined));
    this.endOfMute(running);
    this.markGap(running.gaps.settle());
    this.set({ stage: 'finishing' });
    if (running.recorder.state === 'inactive') void this.complete(running);
    else running.recorder.stop();
  }

  private async complete(running: CaptureRun): Promise<void> {
    if (this.running !== running) return;
    clearInterval(running.watch);
    const { elapsedMs, problem } = this.now;
    running.sources.close();
    running.letScreenGo();
    running.letPageGo();
    await Promise.all([running.pieces.done(), this.writes]);
    const { bytes } = running.pieces;
    this.pictures.clear();
    // The sound is complete before anything waits for the last words; those that are on the screen are there at once.
    const shown = wordsOf(this.live);
    if (shown.length) await this.store.keepText(running.id, shown);
    const state = running.isThrownAway ? 'thrown' : running.isUnplugged ? 'stopped' : 'waiting';
    const capture = await this.store.change(running.id, {
      ...(bytes > 0 ? { state } : {}),
      ...{ durationMs: Math.round(elapsedMs), sizeBytes: bytes, thrownAt: running.isThrownAway ? Date.now() : null },
      ...(running.isUnplugged ? { stoppedAt: Date.now() } : {}),
    });
    const closed = running.journal.close({ isKept: bytes === 0 });
    if (bytes === 0) {
      // The recorder gave nothing: what the sound thread wrote down is the recording.
      await closed;
      const back = await this.store.bringBack(capture);
      if (back) await this.store.change(back.id, { state });
    }
    running.releaseLock();
    this.running = null;
    const unplugged = running.isUnplugged && !running.isThrownAway ? running.id : null;
    this.set({ ...IDLE, problem: problem ?? this.now.problem, unplugged });
    this.onFinished(running.id);
    const words = [...(await this.live.end())];
    const kept = await this.store.get(running.id);
    if (!words.length || !kept) return;
    if (kept.state === 'sent') await this.onLateWords(running.id, words);
    else await this.store.keepText(running.id, words);
  }

  private watch(running: CaptureRun): void {
    const clock = performance.now();
    if (running.sources.audio.state === 'suspended') void running.sources.audio.resume();
    if (running.pieces.bytes === 0 && this.now.elapsedMs > SILENT_RECORDER_MS) {
      this.set({
        warning: 'No audio has arrived from the browser yet. Finish and record again. The last half minute is saved.',
      });
    }
    const words = wordsOf(this.live);
    const every = words.length > LONG_TEXT_WORDS ? LONG_TEXT_KEPT_EVERY_MS : TEXT_KEPT_EVERY_MS;
    if (words.length && clock - running.lastTextKept > every) {
      running.lastTextKept = clock;
      void this.store.keepText(running.id, words);
    }
    if (clock - running.lastSpaceCheck > SPACE_ASKED_EVERY_MS) {
      running.lastSpaceCheck = clock;
      void this.checkSpace(running);
    }
  }

  private async checkSpace(running: CaptureRun): Promise<void> {
    const room = await roomToRecord(BITS_PER_SECOND);
    if (this.running !== running) return;
    if (room.state === 'none') {
      this.end(false);
      this.set({
        problem: 'This device is full, so the recording has ended. All of it is saved. Free up space, then continue.',
      });
    } else if (room.state === 'little') {
      this.set({ warning: `This device is almost full: about ${room.minutes} more minutes fit.` });
    }
  }

  private markGap(gap: Gap | null): void {
    if (gap) this.addSlip({ kind: 'gap', startMs: gap.atMs, text: gapWords(gap) });
  }

  private endOfMute(running: CaptureRun): void {
    if (running.mutedAt === null) return;
    const startMs = Math.round(running.mutedAt);
    running.mutedAt = null;
    this.addSlip({
      ...{ kind: 'gap', startMs, endMs: Math.round(this.now.elapsedMs) },
      text: 'Nothing was recorded here because the system muted the microphone.',
    });
  }

  private set(part: Partial<CaptureNow>): void {
    this.now = { ...this.now, ...part };
    this.listeners.tell();
  }
}
