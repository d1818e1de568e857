/**
 * Where a WebM recording ends, and what to append to make it go on: a recorder that is killed leaves a stream of clusters
 * without an end, to which another cluster may be added. EBML: RFC 8794; elements and blocks: RFC 9559; length of an
 * Opus packet: RFC 6716, section 3.1.
 */
const SEGMENT = 0x18538067;
const CLUSTER = 0x1f43b675;
const TIMESTAMP = 0xe7;
const SIMPLE_BLOCK = 0xa3;
const BLOCK_GROUP = 0xa0;
const BLOCK = 0xa1;
const INSIDE = new Set([SEGMENT, CLUSTER]);

export type WebmEnd = {
  /** Milliseconds from the beginning of the recording to the end of its last whole block. */
  endMs: number;
  /** Number of the track that the blocks belong to. */
  track: number;
  /** Bytes until there: a recorder that is killed leaves the beginning of another element behind them. */
  wholeBytes: number;
};

/** One packet of an Opus encoder, with its beginning in milliseconds from the beginning of the recording. */
export type OpusPacket = { startMs: number; data: Uint8Array };

/**
 * Reads the headers of all elements and the first bytes of the blocks; what comes after the last whole block is left aside.
 * @param bytes a WebM file with one track of Opus and timestamps in milliseconds, as browsers record it
 * @returns null when there is no whole block in it
 */
export function webmEnd(bytes: Uint8Array): WebmEnd | null {
  let endMs = -1;
  let lastTrack = 0;
  let wholeBytes = 0;
  let groupEnd = 0;
  let clusterMs = 0;
  let at = 0;
  while (at < bytes.length) {
    const id = readNumber(bytes, at, true);
    const size = id && readNumber(bytes, at + id.length, false);
    if (!size) break;
    const from = at + id.length + size.length;
    if (INSIDE.has(id.value)) {
      at = from;
      continue;
    }
    const to = from + size.value;
    if (to > bytes.length) break;
    if (id.value === BLOCK_GROUP) {
      groupEnd = to;
      at = from;
      continue;
    }
    if (id.value === TIMESTAMP) clusterMs = bytes.subarray(from, to).reduce((sum, byte) => sum * 256 + byte, 0);
    if (id.value === SIMPLE_BLOCK || id.value === BLOCK) {
      const track = readNumber(bytes, from, false);
      const head = from + (track?.length ?? 0);
      if (track && head + 3 < to) {
        const relativeMs = ((bytes[head]! << 24) >> 16) | bytes[head + 1]!;
        const blockEndMs = clusterMs + relativeMs + opusPacketMs(bytes.subarray(head + 3, to));
        endMs = Math.max(endMs, blockEndMs);
        lastTrack = track.value;
        wholeBytes = Math.max(to, groupEnd);
      }
    }
    at = to;
  }
  return endMs < 0 ? null : { endMs, track: lastTrack, wholeBytes };
}

/**
 * A cluster with these packets, to be appended to a recording.
 * @param packets in their order, the last beginning at most 32 s after the first
 */
export function webmCluster(track: number, packets: readonly OpusPacket[]): Uint8Array {
  const firstMs = Math.round(packets[0]?.startMs ?? 0);
  const blocks = packets.map(({ startMs, data }) => {
    const relativeMs = Math.round(startMs) - firstMs;
    const isKeyframe = 0x80;
    return element(SIMPLE_BLOCK, [0x80 | track, (relativeMs >> 8) & 0xff, relativeMs & 0xff, isKeyframe], data);
  });
  const time = [24, 16, 8, 0].map((shift) => (firstMs >>> shift) & 0xff);
  return element(CLUSTER, [], element(TIMESTAMP, time), ...blocks);
}

/** Milliseconds of sound in an Opus packet, from its first byte or two; 0 for an empty one. */
export function opusPacketMs(packet: Uint8Array): number {
  const [first, second = 0] = packet;
  if (first === undefined) return 0;
  const mode = first >> 3;
  const frameMs =
    mode < 12 ? [10, 20, 40, 60][mode % 4]! : mode < 16 ? [10, 20][mode % 2]! : [2.5, 5, 10, 20][mode % 4]!;
  const frames = [1, 2, 2, second & 0x3f][first & 3]!;
  return frameMs * frames;
}

/**
 * Reads a number of variable length. An unknown size reads as very large, which only containers have.
 * @param keepsMarker whether the bit that tells the length belongs to the number, as it does in ids
 */
function readNumber(bytes: Uint8Array, at: number, keepsMarker: boolean): { value: number; length: number } | null {
  const first = bytes[at];
  if (!first) return null;
  const length = Math.clz32(first) - 23;
  if (at + length > bytes.length) return null;
  let value = keepsMarker ? first : first & (0xff >> length);
  for (let i = 1; i < length; i++) value = value * 256 + bytes[at + i]!;
  return { value, length };
}

function element(id: number, head: readonly number[], ...parts: readonly Uint8Array[]): Uint8Array {
  const idBytes = [24, 16, 8, 0].map((shift) => (id >>> shift) & 0xff);
  const firstUsed = idBytes.findIndex((byte) => byte !== 0);
  const size = head.length + parts.reduce((sum, part) => sum + part.length, 0);
  const sizeBytes = [0x10 | (size >>> 24), (size >>> 16) & 0xff, (size >>> 8) & 0xff, size & 0xff];
  const start = [...idBytes.slice(firstUsed), ...sizeBytes, ...head];
  const bytes = new Uint8Array(start.length + size - head.length);
  bytes.set(start);
  let at = start.length;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}
