import { type CaptureReceipt, MAX_WORDS_AT_ONCE } from '@immeld/core/contract/captures';
import type { ProblemDetails } from '@immeld/core/contract/problem';
import type { NewSlip } from '@immeld/core/contract/slips';
import type { TranscribedWord } from '@immeld/core/speech/transcriber';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { fetchWithSession } from '../api/fetchWithSession';
import type { Capture } from './captures';
import type { CaptureStore } from './captureStore';

/** The server will not take it, however often it is sent. */
export class Refusal extends Error {}
/** No answer, or one that says "not now": to be tried again. */
export class Interruption extends Error {}

/** The server has no room for this one; a smaller one may still go. */
export class NoRoom extends Interruption {}

const PIECE_BYTES = 1024 ** 2;
const UPLOADS = '/api/uploads';
const TUS = { 'Tus-Resumable': '1.0.0' };
const TRY_AGAIN = new Set([401, 408, 409, 423, 425, 429]);

type SendOptions = { onProgress?: (sentBytes: number) => void; fetch?: typeof fetch };

/**
 * Sends one capture by the tus 1.0 protocol in pieces, going on where an earlier try stopped, and lets go of the
 * sound only when the server has confirmed its SHA-256. Sent twice it is still one recording: the server knows the
 * capture's id. The same code runs in the page and in the service worker.
 *
 * @throws Refusal when trying again is of no use, Interruption otherwise; the sound then stays where it is
 */
export async function sendCapture(store: CaptureStore, id: string, options: SendOptions = {}): Promise<void> {
  const ask = asking(options.fetch ?? fetch);
  let capture = await store.change(id, { state: 'sending', problem: null });
  const sound = await store.soundOf(id);
  if (!sound) throw new Refusal('The audio of this recording is no longer on this device.');
  if (!capture.sha256) capture = await store.change(id, { sha256: await hashOf(sound), sizeBytes: sound.size });

  const { continues } = capture.details;
  if (continues) {
    const first = await receiptOf(ask, continues);
    if (first) capture = await store.change(id, { details: { ...capture.details, appendTo: first.recordingId } });
  }
  let hereSince: string | null = null;
  let receipt = await receiptOf(ask, id);
  if (receipt?.sha256 !== capture.sha256) {
    let refusal: unknown = null;
    try {
      const last = await upload(ask, store, capture, sound, options.onProgress);
      hereSince = last.headers.get('Immeld-Already-Here');
    } catch (error) {
      // Whether it has arrived is told by the receipt: an upload of no bytes ends before the server has answered it.
      if (!(error instanceof Refusal)) throw error;
      refusal = error;
    }
    receipt = await receiptOf(ask, id);
    if (refusal && receipt?.sha256 !== capture.sha256) throw refusal;
  }
  if (receipt?.sha256 !== capture.sha256) {
    await store.change(id, { uploadAddress: null });
    throw new Interruption('The upload was damaged on the way. Immeld is sending it again.');
  }
  await sendSlips(ask, store, capture, receipt.recordingId);
  await sendWords(id, await store.textOf(id), options.fetch);
  await store.belongsTo(id, receipt.recordingId);
  await store.change(id, { state: 'sent', recordingId: receipt.recordingId, hereSince, uploadAddress: null });
  await store.forgetSound(id);
}

type Ask = (address: string, init?: RequestInit, accepted?: number[]) => Promise<Response>;

function asking(fetcher: typeof fetch): Ask {
  return async (address, init = {}, accepted = []) => {
    let response: Response;
    try {
      response = await fetchWithSession(fetcher, address, init);
    } catch {
      throw new Interruption('The server cannot be reached.');
    }
    if (response.ok || accepted.includes(response.status)) return response;
    if (response.status === 507) throw new NoRoom('The server’s disk is full.');
    if (response.status >= 500 || TRY_AGAIN.has(response.status)) {
      throw new Interruption(`The server cannot accept it right now (${response.status}).`);
    }
    if (response.status === 413) throw new Refusal('The file is larger than 20 GB.');
    const problem = (await response.json().catch(() => null)) as ProblemDetails | null;
    throw new Refusal(problem?.detail ?? `The server rejected it (error ${response.status}).`);
  };
}

async function receiptOf(ask: Ask, id: string): Promise<CaptureReceipt | null> {
  const response = await ask(`/api/captures/${id}`, { cache: 'no-store' }, [404]);
  return response.ok ? ((await response.json()) as CaptureReceipt) : null;
}

async function upload(
  ask: Ask,
  store: CaptureStore,
  capture: Capture,
  sound: Blob,
  onProgress?: (sentBytes: number) => void,
): Promise<Response> {
  let { uploadAddress } = capture;
  let offset: number | null = null;
  if (uploadAddress) offset = await offsetOf(ask, uploadAddress);
  let last: Response | null = null;
  if (!uploadAddress || offset === null) {
    last = await ask(UPLOADS, {
      method: 'POST',
      headers: { ...TUS, 'Upload-Length': String(sound.size), 'Upload-Metadata': metadataOf(capture) },
    });
    uploadAddress = new URL(last.headers.get('Location')!, 'http://server').pathname;
    offset = 0;
    await store.change(capture.id, { uploadAddress });
  }
  while (offset < sound.size) {
    onProgress?.(offset);
    const piece: Blob = sound.slice(offset, offset + PIECE_BYTES);
    last = await ask(uploadAddress, {
      method: 'PATCH',
      headers: { ...TUS, 'Upload-Offset': String(offset), 'Content-Type': 'application/offset+octet-stream' },
      body: piece,
    });
    offset = Number(last.headers.get('Upload-Offset') ?? offset + piece.size);
  }
  onProgress?.(sound.size);
  return last ?? ask(uploadAddress, { method: 'HEAD', headers: TUS }, [404, 410]);
}

/** How much has arrived, or null when the server does not know this upload any more. */
async function offsetOf(ask: Ask, address: string): Promise<number | null> {
  const response = await ask(address, { method: 'HEAD', headers: TUS }, [403, 404, 410]);
  return response.ok ? Number(response.headers.get('Upload-Offset')) : null;
}

/** `Upload-Metadata` of tus 1.0: names and base64 of UTF-8 values. */
function metadataOf(capture: Capture): string {
  const values: Record<string, string> = {
    ...capture.details,
    filename: capture.name,
    filetype: capture.mediaType || 'application/octet-stream',
    startedAt: capture.startedAt,
    source: capture.source,
    captureId: capture.id,
    ...(capture.durationMs ? { durationMs: String(Math.round(capture.durationMs)) } : {}),
    ...(capture.isRecovered ? { recovered: '1' } : {}),
  };
  const base64 = (text: string) => btoa(String.fromCharCode(...new TextEncoder().encode(text)));
  return Object.entries(values)
    .map(([name, value]) => `${name} ${base64(value)}`)
    .join(',');
}

const SLIPS_AT_ONCE = 500;

const movedSlip = (slip: NewSlip, byMs: number): NewSlip => ({
  ...slip,
  startMs: slip.startMs + byMs,
  endMs: typeof slip.endMs === 'number' ? slip.endMs + byMs : null,
});

/**
 * Sends the words that this device heard: the text until the recording is transcribed. They are worth no failure: the
 * server finds its own.
 */
export async function sendWords(id: string, words: readonly TranscribedWord[], fetcher = fetch): Promise<void> {
  const ask = asking(fetcher);
  for (let at = 0; at < words.length; at += MAX_WORDS_AT_ONCE) {
    const body = JSON.stringify({ words: words.slice(at, at + MAX_WORDS_AT_ONCE) });
    const sent = await ask(`/api/captures/${id}/words`, {
      ...{ method: 'POST', headers: { 'Content-Type': 'application/json' }, body },
    }).catch(() => null);
    if (!sent) return;
  }
}

async function sendSlips(ask: Ask, store: CaptureStore, capture: Capture, recordingId: string): Promise<void> {
  // What goes on with another recording begins where that one ends.
  const offsetMs = Number(capture.details['offsetMs']) || 0;
  const kept = (await store.slipsOf(capture.id)).map((k) => ({ ...k, slip: movedSlip(k.slip, offsetMs) }));
  for (let at = 0; at < kept.length; at += SLIPS_AT_ONCE) {
    await ask(`/api/recordings/${recordingId}/slips`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ slips: kept.slice(at, at + SLIPS_AT_ONCE).map((k) => k.slip) }),
    });
  }
  for (const { slip, picture } of kept) {
    if (picture) await ask(`/api/slips/${slip.id}/picture`, { method: 'PUT', body: picture }, [400]);
  }
}

/** SHA-256 as lower-case hex, a megabyte at a time: the sound of hours is never in memory as a whole. */
export async function hashOf(sound: Blob): Promise<string> {
  const hash = sha256.create();
  for (let at = 0; at < sound.size; at += PIECE_BYTES) {
    hash.update(new Uint8Array(await sound.slice(at, at + PIECE_BYTES).arrayBuffer()));
  }
  return bytesToHex(hash.digest());
}
