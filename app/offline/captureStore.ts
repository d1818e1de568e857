import { waveFile } from '@immeld/core/audio/wave';
import { webmEnd } from '@immeld/core/audio/webmEnd';
import type { NewSlip } from '@immeld/core/contract/slips';
import type { TranscribedWord } from '@immeld/core/speech/transcriber';
import { type Capture, mayGoOn } from './captures';
import { missingEnd, readJournal, removeJournalsBut } from './journal';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { Listeners } from '../state/listeners';

type Piece = { captureId: string; sequence: number; content: ArrayBuffer | Blob; elapsedMs: number };
export type KeptSlip = { captureId: string; slip: NewSlip; picture: Blob | null };
/** A video that stays on this device: only its sound was sent. */
export type KeptVideo = { captureId: string; recordingId: string | null; name: string; video: Blob };
export type KeptText = { captureId: string; words: TranscribedWord[] };

interface Tables extends DBSchema {
  captures: { key: string; value: Capture };
  pieces: { key: [string, number]; value: Piece };
  slips: { key: [string, string]; value: KeptSlip };
  texts: { key: string; value: KeptText };
  videos: { key: string; value: KeptVideo };
}

const VERSION = 2;
/** So long what was thrown away can be had back. */
const KEPT_THROWN_MS = 30 * 24 * 3600 * 1000;
/** A file this large is not copied into the browser's storage: it is sent from where it lies. */
const MAX_COPIED = 300 * 1024 ** 2;
/** So often a recording is written through to the disk, not only given to the system. */
const FLUSH_EVERY_MS = 10_000;
const everythingOf = (id: string) => IDBKeyRange.bound([id], [id, []]);

/**
 * Sound, slips and text of captures in IndexedDB, written so that a crash of the browser or the device loses no more
 * than the piece that was being recorded. Where the browser keeps nothing, it lives in this page only, and says so.
 */
export class CaptureStore {
  private readonly channel: BroadcastChannel | null;
  private readonly listeners = new Listeners();
  /** When pieces were last written through to the disk, by a clock that never jumps. */
  private flushedAt = -Infinity;
  /** What could not be stored, by capture: it is sent from memory. */
  private readonly inPage = new Map<string, { pieces: Piece[]; file: Blob | null }>();

  private constructor(
    private readonly database: IDBPDatabase<Tables> | null,
    private readonly memory: Map<string, Capture>,
    private readonly memorySlips: Map<string, KeptSlip>,
  ) {
    this.channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('immeld-captures');
    this.channel?.addEventListener('message', () => this.listeners.tell());
  }

  static async open(name = 'immeld'): Promise<CaptureStore> {
    let database: IDBPDatabase<Tables> | null = null;
    try {
      database = await openDB<Tables>(name, VERSION, {
        upgrade(fresh, from) {
          fresh.createObjectStore('videos', { keyPath: 'captureId' });
          if (from > 0) return;
          fresh.createObjectStore('captures', { keyPath: 'id' });
          fresh.createObjectStore('pieces', { keyPath: ['captureId', 'sequence'] });
          fresh.createObjectStore('slips', { keyPath: ['captureId', 'slip.id'] });
          fresh.createObjectStore('texts', { keyPath: 'captureId' });
        },
      });
    } catch {
      // Private windows of some browsers refuse: what is recorded then lives in this page only.
    }
    return new CaptureStore(database, new Map(), new Map());
  }

  /** Whether what is recorded outlives this page. */
  get isLasting(): boolean {
    return this.database !== null;
  }

  close(): void {
    this.channel?.close();
    this.database?.close();
  }

  /** Calls `listener` after every change, in whatever tab it was made. */
  readonly subscribe = this.listeners.subscribe;

  async list(): Promise<Capture[]> {
    const all = this.database ? await this.database.getAll('captures') : [];
    return [...all, ...this.memory.values()].sort((a, b) => a.startedAt.localeCompare(b.startedAt));
  }

  async get(id: string): Promise<Capture | undefined> {
    return this.memory.get(id) ?? this.database?.get('captures', id);
  }

  async begin(capture: Capture): Promise<void> {
    await this.put(capture);
  }

  async change(id: string, part: Partial<Capture>): Promise<Capture> {
    const known = await this.get(id);
    if (!known) throw new Error(`There is no capture ${id}.`);
    const changed = { ...known, ...part };
    await this.put(changed);
    return changed;
  }

  /**
   * Keeps the next piece of a recording; resolves when the system has it, so that a browser that crashes loses nothing of it.
   * Every ten seconds, first after ten, it resolves only when the disk has it too, and all before it: that is for a battery
   * that ends. What comes next waits for the disk meanwhile, and a crash would cost it, so it is not done more often.
   * @returns false when the storage is full: the piece is then kept in this page
   */
  addPiece(captureId: string, sequence: number, content: ArrayBuffer, elapsedMs: number): Promise<boolean> {
    return this.addPieces([{ captureId, sequence, content, elapsedMs }]);
  }

  /** The same for several, all or none of them. */
  async addPieces(pieces: readonly Piece[]): Promise<boolean> {
    try {
      if (!this.database) throw new Error('Nothing is stored here.');
      const now = performance.now();
      if (pieces.some(({ sequence }) => sequence === 0)) this.flushedAt = now;
      const isForTheDisk = now - this.flushedAt >= FLUSH_EVERY_MS;
      if (isForTheDisk) this.flushedAt = now;
      const durability = isForTheDisk ? 'strict' : 'relaxed';
      const transaction = this.database.transaction('pieces', 'readwrite', { durability });
      await Promise.all([...pieces.map((piece) => transaction.store.put(piece)), transaction.done]);
      return true;
    } catch {
      for (const piece of pieces) this.inPageOf(piece.captureId).pieces.push(piece);
      return !this.isLasting;
    }
  }

  /** Takes in a file that the person chose, as a capture that is complete. */
  async addFile(capture: Capture, file: Blob): Promise<void> {
    let isStored = false;
    if (this.database && file.size <= MAX_COPIED) {
      isStored = await this.database
        .put('pieces', { captureId: capture.id, sequence: 0, content: file, elapsedMs: 0 })
        .then(() => true)
        .catch(() => false);
    }
    if (!isStored) this.inPageOf(capture.id).file = file;
    await this.put(capture);
  }

  /** Whether the sound lies only in this page, so that the page has to stay open until it is sent. */
  isOnlyInPage(id: string): boolean {
    return this.inPage.has(id);
  }

  /** The whole sound, or null when none is left here. */
  async soundOf(id: string): Promise<Blob | null> {
    const capture = await this.get(id);
    const kept = this.inPage.get(id);
    if (kept?.file) return kept.file;
    const pieces = [...(await this.piecesOf(id)), ...(kept?.pieces ?? [])].sort((a, b) => a.sequence - b.sequence);
    if (pieces.length === 0) return null;
    return new Blob(
      pieces.map((p) => p.content),
      { type: capture?.mediaType ?? '' },
    );
  }

  async keepSlip(captureId: string, slip: NewSlip, picture: Blob | null = null): Promise<void> {
    const kept: KeptSlip = { captureId, slip, picture };
    if (this.database && !this.memory.has(captureId)) await this.database.put('slips', kept);
    else this.memorySlips.set(slip.id, kept);
    this.tell();
  }

  async dropSlip(captureId: string, slipId: string): Promise<void> {
    this.memorySlips.delete(slipId);
    await this.database?.delete('slips', [captureId, slipId]);
    this.tell();
  }

  async slipsOf(captureId: string): Promise<KeptSlip[]> {
    const stored = this.database ? await this.database.getAll('slips', everythingOf(captureId)) : [];
    const inMemory = [...this.memorySlips.values()].filter((s) => s.captureId === captureId);
    return [...stored, ...inMemory].sort((a, b) => a.slip.startMs - b.slip.startMs);
  }

  /** Keeps the words heard on the device so far. */
  async keepText(captureId: string, words: TranscribedWord[]): Promise<void> {
    await this.database?.put('texts', { captureId, words }).catch(() => undefined);
    this.tell();
  }

  async textOf(captureId: string): Promise<TranscribedWord[]> {
    return (await this.database?.get('texts', captureId))?.words ?? [];
  }

  /**
   * Keeps a video of which only the sound is sent.
   * @returns false when there is no room for it: then it has to be sent whole
   */
  async keepVideo(captureId: string, video: File): Promise<boolean> {
    const { quota = 0, usage = 0 } = (await navigator.storage?.estimate?.().catch(() => null)) ?? {};
    if (!this.database || quota - usage < video.size * 2) return false;
    const kept: KeptVideo = { captureId, recordingId: null, name: video.name, video };
    return this.database.put('videos', kept).then(
      () => true,
      () => false,
    );
  }

  /** The videos on this device that belong to this recording. */
  async videosOf(recordingId: string): Promise<KeptVideo[]> {
    const all = this.database ? await this.database.getAll('videos') : [];
    return all.filter((v) => v.recordingId === recordingId);
  }

  async belongsTo(captureId: string, recordingId: string): Promise<void> {
    const kept = await this.database?.get('videos', captureId);
    if (!kept) return;
    // Brought in twice, it is kept once.
    for (const other of await this.videosOf(recordingId)) await this.database?.delete('videos', other.captureId);
    await this.database?.put('videos', { ...kept, recordingId });
  }

  async removeVideo(captureId: string): Promise<void> {
    await this.database?.delete('videos', captureId);
    this.tell();
  }

  /** Lets go of sound, slips and text; what became of the capture stays on the list. */
  async forgetSound(id: string): Promise<void> {
    this.inPage.delete(id);
    for (const [slipId, kept] of this.memorySlips) if (kept.captureId === id) this.memorySlips.delete(slipId);
    await this.database?.delete('pieces', everythingOf(id));
    await this.database?.delete('slips', everythingOf(id));
    await this.database?.delete('texts', id);
  }

  async remove(id: string): Promise<void> {
    await this.forgetSound(id);
    const video = await this.database?.get('videos', id);
    if (video && !video.recordingId) await this.database?.delete('videos', id);
    this.memory.delete(id);
    await this.database?.delete('captures', id);
    this.tell();
  }

  /** Forgets everything that this device keeps, sent or not. */
  async forgetAll(): Promise<void> {
    for (const known of [this.memory, this.memorySlips, this.inPage]) known.clear();
    for (const table of this.database?.objectStoreNames ?? []) await this.database?.clear(table);
    await removeJournalsBut(() => false);
    this.tell();
  }

  /**
   * Brings back recordings that were cut off: their page is gone, their sound is here.
   * @param isGoingOn whether some open page still records this capture
   * @returns what came back
   */
  async recover(isGoingOn: (id: string) => boolean): Promise<Capture[]> {
    const recovered: Capture[] = [];
    for (const capture of await this.list()) {
      if (capture.state === 'sending') await this.change(capture.id, { state: 'waiting' });
      if (isGoingOn(capture.id) || this.inPage.has(capture.id)) continue;
      if (capture.state === 'thrown' && Date.now() - (capture.thrownAt ?? 0) > KEPT_THROWN_MS) {
        await this.remove(capture.id);
      }
      // Nobody went on with it in time.
      if (capture.state === 'stopped' && !mayGoOn(capture)) await this.change(capture.id, { state: 'waiting' });
      if (capture.state === 'recording') {
        const back = await this.bringBack(capture);
        if (back) recovered.push(back);
      } else if (
        (capture.state === 'waiting' || capture.state === 'sending') &&
        (await this.piecesOf(capture.id)).length === 0
      ) {
        await this.change(capture.id, {
          state: 'refused',
          problem:
            'The page was closed before this large file was sent. The file itself is unchanged. Choose it again.',
        });
      }
    }
    await removeJournalsBut(isGoingOn);
    return recovered;
  }

  /** Makes a recording complete from all that is kept of its sound; one of which there is none goes (null). */
  async bringBack(capture: Capture): Promise<Capture | null> {
    await this.addMissingEnd(capture);
    const pieces = await this.piecesOf(capture.id);
    if (pieces.length === 0) {
      await this.remove(capture.id);
      return null;
    }
    const sizeBytes = pieces.reduce((sum, { content }) => sum + sizeOf(content), 0);
    const durationMs = Math.max(...pieces.map((p) => p.elapsedMs));
    const back = { ...capture, durationMs };
    const state = capture.thrownAt ? 'thrown' : mayGoOn(back) ? 'stopped' : 'waiting';
    return this.change(capture.id, { state, isRecovered: true, durationMs, sizeBytes });
  }

  private async piecesOf(captureId: string): Promise<Piece[]> {
    return this.database ? this.database.getAll('pieces', everythingOf(captureId)) : [];
  }

  /** What the recorder has not given is taken from the journal of the sound thread. */
  private async addMissingEnd(capture: Capture): Promise<void> {
    try {
      const journal = await readJournal(capture.id);
      if (!journal) return;
      const sound = await this.soundOf(capture.id);
      const end = sound && webmEnd(new Uint8Array(await sound.arrayBuffer()));
      if (end) {
        const missing = await missingEnd(end, journal);
        if (missing) await this.endWith(capture.id, missing.cluster, sound.size - end.wholeBytes, missing.endMs);
      } else if (!sound || capture.mediaType.includes('webm')) {
        // The recorder had given nothing that can be heard: the journal has it from the beginning.
        const durationMs = (journal.samples.length / journal.rate) * 1000;
        await this.database?.delete('pieces', everythingOf(capture.id));
        await this.addPiece(capture.id, 0, waveFile(journal.samples, journal.rate), durationMs);
        await this.change(capture.id, { mediaType: 'audio/wav', name: capture.name.replace(/\.\w+$/, '.wav') });
      }
    } catch {
      // The pieces that are kept come back without it.
    }
  }

  /** Puts `end` into the place of the last bytes of a recording, in one write. */
  private async endWith(captureId: string, end: Uint8Array<ArrayBuffer>, superfluous: number, endMs: number) {
    const last = (await this.piecesOf(captureId)).at(-1);
    const kept = last ? sizeOf(last.content) - superfluous : -1;
    if (!last || kept < 0) return;
    const content = await new Blob([last.content.slice(0, kept), end]).arrayBuffer();
    await this.addPiece(captureId, last.sequence, content, endMs);
  }

  private async put(capture: Capture): Promise<void> {
    if (this.database && !this.memory.has(capture.id)) {
      await this.database.put('captures', capture).catch(() => this.memory.set(capture.id, capture));
    } else this.memory.set(capture.id, capture);
    this.tell();
  }

  private inPageOf(id: string): { pieces: Piece[]; file: Blob | null } {
    const known = this.inPage.get(id) ?? { pieces: [], file: null };
    this.inPage.set(id, known);
    return known;
  }

  private tell(): void {
    this.channel?.postMessage('changed');
    this.listeners.tell();
  }
}

const sizeOf = (content: ArrayBuffer | Blob): number => (content instanceof Blob ? content.size : content.byteLength);
