import fs from 'node:fs';

/**
 * ISO base media files (ISO/IEC 14496-12) whose index, the box `moov`, stands behind the sound, as phones write them. A
 * decoder that reads from a pipe needs it first: the boxes are given in another order, and the places in the index moved
 * accordingly. The file itself stays as it is.
 */

type Box = { type: string; start: number; size: number; headerSize: number };

/** An index of 24 hours of sound and picture has about 30 MB. */
const MAX_INDEX = 128 * 1024 ** 2;
const MAX_BOXES = 10_000;
/** Boxes of the index that hold others (8.1 to 8.5 of the standard). */
const HOLDERS: ReadonlySet<string> = new Set(['moov', 'trak', 'mdia', 'minf', 'stbl']);
const MAX_DEPTH = 8;

/** Thrown where a file is not built as the standard says. */
export class BoxError extends Error {}

/** Stretches of a file and bytes made anew, in the order in which a decoder gets them. */
export type Piece = { start: number; end: number } | Buffer;

function boxAt(bytes: Buffer, at: number, start: number, end: number): Box {
  let size = bytes.readUInt32BE(at);
  let headerSize = 8;
  if (size === 1) {
    size = Number(bytes.readBigUInt64BE(at + 8));
    headerSize = 16;
  } else if (size === 0) size = end - start;
  if (size < headerSize || start + size > end) size = end - start;
  return { type: bytes.toString('latin1', at + 4, at + 8), start, size, headerSize };
}

async function topBoxes(handle: fs.promises.FileHandle, fileSize: number): Promise<Box[]> {
  const boxes: Box[] = [];
  const head = Buffer.alloc(16);
  for (let start = 0; start + 8 <= fileSize;) {
    const { bytesRead } = await handle.read(head, 0, 16, start);
    if (bytesRead < 8) break;
    const box = boxAt(head, 0, start, fileSize);
    boxes.push(box);
    if (boxes.length > MAX_BOXES) throw new BoxError('This file has too many boxes.');
    start += box.size;
  }
  return boxes;
}

/**
 * The pieces of a file with its index first; null where the index stands before the sound already, or there is none.
 * @throws BoxError where the index is damaged or too large
 */
export async function moovFirst(file: string): Promise<Piece[] | null> {
  const handle = await fs.promises.open(file);
  try {
    const { size } = await handle.stat();
    const boxes = await topBoxes(handle, size);
    const index = boxes.find((b) => b.type === 'moov');
    const data = boxes.find((b) => b.type === 'mdat');
    if (!index || !data || index.start < data.start) return null;
    if (index.size > MAX_INDEX) throw new BoxError('The index of this file is too large.');
    const moov = Buffer.alloc(index.size);
    await handle.read(moov, 0, index.size, index.start);
    // Everything between the first sound and the index moves back by the length of the index.
    movePlaces(moov, 0, moov.length, index, 0);
    return [
      { start: 0, end: data.start },
      moov,
      { start: data.start, end: index.start },
      { start: index.start + index.size, end: size },
    ].filter((p) => Buffer.isBuffer(p) || p.end > p.start);
  } finally {
    await handle.close();
  }
}

/** Moves the chunk offsets (`stco` and `co64`, 8.7.5) of everything that stands before the index. */
function movePlaces(moov: Buffer, from: number, to: number, index: Box, depth: number): void {
  if (depth > MAX_DEPTH) throw new BoxError('The index of this file is nested too deeply.');
  for (let at = from; at + 8 <= to;) {
    const { type, size, headerSize } = boxAt(padded(moov, at), 0, at, to);
    if (HOLDERS.has(type)) movePlaces(moov, at + headerSize, at + size, index, depth + 1);
    if (type === 'stco' || type === 'co64') {
      const width = type === 'stco' ? 4 : 8;
      const first = at + headerSize + 8;
      const count = first <= at + size ? moov.readUInt32BE(at + headerSize + 4) : 0;
      if (first + count * width > at + size) throw new BoxError('The index of this file is damaged.');
      for (let i = 0, place = first; i < count; i++, place += width) {
        if (width === 8) {
          const offset = moov.readBigUInt64BE(place);
          if (offset < BigInt(index.start)) moov.writeBigUInt64BE(offset + BigInt(index.size), place);
          continue;
        }
        const offset = moov.readUInt32BE(place);
        if (offset >= index.start) continue;
        if (offset + index.size > 0xffffffff) throw new BoxError('This file is too large for its kind of index.');
        moov.writeUInt32BE(offset + index.size, place);
      }
    }
    at += size;
  }
}

/** Sixteen bytes from a place on, with zeros where the index ends before. */
function padded(bytes: Buffer, at: number): Buffer {
  const head = Buffer.alloc(16);
  bytes.copy(head, 0, at, Math.min(bytes.length, at + 16));
  return head;
}
