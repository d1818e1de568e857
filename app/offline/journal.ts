import { type OpusPacket, type WebmEnd, webmCluster } from '@immeld/core/audio/webmEnd';
import { JOURNAL_FOLDER, RING_SECONDS, RING_START } from '../workers/journalMessages';

/** What a journal still holds of a recording. */
export type Journal = {
  rate: number;
  /** 16-bit samples of the end of the recording, at most half a minute. */
  samples: Int16Array<ArrayBuffer>;
  /** Samples that came before them. */
  before: number;
};

/** Less than this is not worth another piece: recorder and journal begin a moment apart. */
const MIN_TAIL_MS = 120;
const BITS_PER_SECOND = 48_000;

const folder = async (): Promise<FileSystemDirectoryHandle | null> => {
  const root = await globalThis.navigator?.storage?.getDirectory?.().catch(() => null);
  return (await root?.getDirectoryHandle(JOURNAL_FOLDER).catch(() => null)) ?? null;
};

/** The journal of this capture, null when there is none or nothing in it. */
export async function readJournal(captureId: string): Promise<Journal | null> {
  const handle = await (await folder())?.getFileHandle(captureId).catch(() => null);
  const bytes = await handle?.getFile().then((file) => file.arrayBuffer());
  return bytes ? journalFrom(bytes) : null;
}

/** Unrolls the ring of a journal's file. */
export function journalFrom(bytes: ArrayBuffer): Journal | null {
  if (bytes.byteLength < RING_START) return null;
  const [rate = 0, count = 0] = new Float64Array(bytes, 0, 2);
  const ringSize = rate * RING_SECONDS;
  if (!count || bytes.byteLength < RING_START + ringSize * 2) return null;
  const ring = new Int16Array(bytes, RING_START, ringSize);
  if (count <= ringSize) return { rate, samples: ring.slice(0, count), before: 0 };
  const samples = new Int16Array(ringSize);
  const oldest = count % ringSize;
  samples.set(ring.subarray(oldest));
  samples.set(ring.subarray(0, oldest), ringSize - oldest);
  return { rate, samples, before: count - ringSize };
}

/** Removes the journals of recordings that are over: what they held is with the recordings now. */
export async function removeJournalsBut(isGoingOn: (captureId: string) => boolean): Promise<void> {
  const journals = await folder();
  const over: string[] = [];
  for await (const name of journals?.keys() ?? []) if (!isGoingOn(name)) over.push(name);
  for (const name of over) await journals?.removeEntry(name).catch(() => undefined);
}

/**
 * What a recording lacks at its end, as a cluster to put behind its last whole block, and its new length in milliseconds;
 * null when nothing is missing, or nothing can be added here.
 * @param end where the WebM with Opus ends that is kept of it
 */
export async function missingEnd(
  end: WebmEnd,
  { rate, samples, before }: Journal,
): Promise<{ cluster: Uint8Array<ArrayBuffer>; endMs: number } | null> {
  if (typeof AudioEncoder === 'undefined') return null;
  const first = Math.max(0, Math.round((end.endMs / 1000) * rate) - before);
  const missing = samples.subarray(first);
  if (missing.length < (MIN_TAIL_MS / 1000) * rate) return null;
  const packets = await encode(missing, rate, end.endMs);
  if (packets.length === 0) return null;
  return {
    cluster: Uint8Array.from(webmCluster(end.track, packets)),
    endMs: Math.round(end.endMs + (missing.length / rate) * 1000),
  };
}

async function encode(samples: Int16Array, rate: number, startMs: number): Promise<OpusPacket[]> {
  const packets: OpusPacket[] = [];
  const encoder = new AudioEncoder({
    output: (chunk) => {
      const data = new Uint8Array(chunk.byteLength);
      chunk.copyTo(data);
      packets.push({ startMs: chunk.timestamp / 1000, data });
    },
    error: () => undefined,
  });
  try {
    encoder.configure({ codec: 'opus', sampleRate: rate, numberOfChannels: 1, bitrate: BITS_PER_SECOND });
    const sound = { format: 's16', sampleRate: rate, numberOfChannels: 1, numberOfFrames: samples.length } as const;
    encoder.encode(new AudioData({ ...sound, timestamp: startMs * 1000, data: Int16Array.from(samples) }));
    await encoder.flush();
  } catch {
    // No such encoder here: what the recorder had given is what there is.
    return [];
  } finally {
    if (encoder.state !== 'closed') encoder.close();
  }
  return packets;
}
