import type { Pack } from '@immeld/core/contract/captures';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { PACK_CACHE } from '../workers/liveMessages';
import { Listeners } from '../state/listeners';

export type PackState =
  /** looking: not known yet · unknown: it never was, and the server does not answer */
  | { state: 'looking' | 'unknown' | 'absent' | 'present' }
  | { state: 'fetching'; share: number }
  | { state: 'failed'; problem: string };

const DESCRIPTION = '/api/packs';
/** A kept file says which one it is, so that a newer one of the same address is noticed. */
const HASH = 'x-sha256';
const isKept = async (cache: Cache, { address, sha256: hash }: Pack['files'][number]): Promise<boolean> =>
  (await cache.match(address))?.headers.get(HASH) === hash;
const keptAddresses = async (cache: Cache): Promise<string[]> =>
  (await cache.keys()).map(({ url }) => new URL(url, 'http://here').pathname).filter((a) => a !== DESCRIPTION);

export const sizeOf = (pack: Pack): number => pack.files.reduce((sum, f) => sum + f.sizeBytes, 0);
export const sentSizeOf = (pack: Pack): number => pack.files.reduce((sum, f) => sum + f.sentBytes, 0);

/** SHA-256 as lower-case hex: the browser's own is many times faster, but only secure pages have it. */
async function hashOf(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  if (!globalThis.crypto?.subtle) return bytesToHex(sha256(bytes));
  return bytesToHex(new Uint8Array(await crypto.subtle.digest('SHA-256', bytes)));
}

/**
 * The pack of words on this device: fetched once, checked against its hashes, kept in the browser's cache, usable
 * without a network.
 */
export class ModelPackStore {
  private now: PackState = { state: 'looking' };
  private described: Pack | null = null;
  private isOld = false;
  private abort: AbortController | null = null;
  private readonly listeners = new Listeners();

  get state(): PackState {
    return this.now;
  }

  get pack(): Pack | null {
    return this.described;
  }

  /** Whether an older pack is here that does not go with this server any more. */
  get isOutdated(): boolean {
    return this.isOld;
  }

  readonly subscribe = this.listeners.subscribe;

  /** Finds out what is offered and whether it is here; without a network it knows what it knew before. */
  async refresh(): Promise<void> {
    if (typeof caches === 'undefined') return this.set({ state: 'unknown' });
    const cache = await caches.open(PACK_CACHE).catch(() => null);
    if (!cache) return this.set({ state: 'unknown' });
    const answer = await fetch(DESCRIPTION).catch(() => null);
    if (answer?.ok) await cache.put(DESCRIPTION, answer.clone());
    const description = answer?.ok ? answer : await cache.match(DESCRIPTION);
    this.described = description ? ((await description.json()) as { items: Pack[] }).items[0]! : null;
    if (this.now.state === 'fetching') return;
    if (!this.described) return this.set({ state: 'unknown' });
    const kept = await Promise.all(this.described.files.map((file) => isKept(cache, file)));
    const isHere = kept.every(Boolean);
    // What was stopped half way is no older pack.
    this.isOld = !isHere && (await keptAddresses(cache)).length > kept.filter(Boolean).length;
    this.set({ state: isHere ? 'present' : 'absent' });
  }

  /** Fetches what is missing. What has arrived stays, so that a broken line costs no more than one file. */
  async fetch(): Promise<void> {
    const pack = this.described;
    if (!pack || this.now.state === 'fetching') return;
    this.set({ state: 'fetching', share: 0 });
    this.abort = new AbortController();
    const total = sizeOf(pack);
    let before = 0;
    try {
      void navigator.storage?.persist?.();
      const cache = await caches.open(PACK_CACHE);
      for (const file of pack.files) {
        if (!(await isKept(cache, file))) {
          const bytes = await this.bytesOf(file.address, (got) =>
            this.set({ state: 'fetching', share: Math.min(1, (before + got) / total) }),
          );
          if ((await hashOf(bytes)) !== file.sha256) throw new Error('damaged');
          const headers = { 'Content-Length': String(bytes.length), [HASH]: file.sha256 };
          await cache.put(file.address, new Response(bytes, { headers }));
        }
        before += file.sizeBytes;
        this.set({ state: 'fetching', share: before / total });
      }
      const current = pack.files.map(({ address }) => address);
      for (const address of await keptAddresses(cache)) if (!current.includes(address)) await cache.delete(address);
      this.isOld = false;
      this.set({ state: 'present' });
    } catch (error) {
      if (this.abort.signal.aborted) this.set({ state: 'absent' });
      else {
        const isFull = error instanceof DOMException && error.name === 'QuotaExceededError';
        this.set({
          state: 'failed',
          problem: isFull
            ? 'This device does not have enough space for the pack. Free up space, then download it again.'
            : 'The download of the pack is incomplete. Download it again; it continues where it stopped.',
        });
      }
    }
  }

  stop(): void {
    this.abort?.abort();
  }

  async remove(): Promise<void> {
    const cache = await caches.open(PACK_CACHE);
    for (const address of await keptAddresses(cache)) await cache.delete(address);
    this.isOld = false;
    this.set({ state: 'absent' });
  }

  private async bytesOf(address: string, onProgress: (got: number) => void): Promise<Uint8Array<ArrayBuffer>> {
    const response = await fetch(address, { signal: this.abort!.signal });
    if (!response.ok || !response.body) throw new Error(`The server reported error ${response.status}.`);
    const parts: Uint8Array[] = [];
    let got = 0;
    const reader = response.body.getReader();
    for (;;) {
      const { done, value } = await reader.read();
      if (done) break;
      parts.push(value);
      got += value.length;
      onProgress(got);
    }
    const whole = new Uint8Array(got);
    let at = 0;
    for (const part of parts) {
      whole.set(part, at);
      at += part.length;
    }
    return whole;
  }

  private set(state: PackState): void {
    this.now = state;
    this.listeners.tell();
  }
}
