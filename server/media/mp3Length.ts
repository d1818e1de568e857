import fs from 'node:fs';

/** Encoders put it into the first frame; before that may stand a tag with a picture. */
const LOOKED_AT = 64 * 1024;
const TAG_HEADER = 10;
/** Sampling rates of MPEG-1 layer III by their index (ISO/IEC 11172-3, 2.4.2.3); MPEG-2 has half, MPEG-2.5 a quarter. */
const RATES_HZ = [44_100, 48_000, 32_000];
const HAS_FRAMES = 1;

/**
 * The length in milliseconds that the encoder of an MP3 file noted in its first frame (“Xing” or “Info”, common practice, no
 * standard); null where it noted none. A file that was cut off afterwards still says how long it was.
 */
export async function mp3FrameCountLength(file: string): Promise<number | null> {
  const handle = await fs.promises.open(file);
  try {
    const head = Buffer.alloc(LOOKED_AT);
    let { bytesRead } = await handle.read(head, 0, TAG_HEADER, 0);
    // The size of an ID3v2 tag stands in four bytes of seven bits each (ID3v2.4, 3.1 and 6.2).
    const hasTag = bytesRead === TAG_HEADER && head.toString('latin1', 0, 3) === 'ID3';
    const tagSize = hasTag ? [6, 7, 8, 9].reduce((size, at) => (size << 7) | (head[at]! & 0x7f), TAG_HEADER) : 0;
    ({ bytesRead } = await handle.read(head, 0, LOOKED_AT, tagSize));
    const read = head.subarray(0, bytesRead);
    const frame = read.findIndex((byte, at) => byte === 0xff && (read[at + 1] ?? 0) >= 0xe0);
    const note = [read.indexOf('Xing'), read.indexOf('Info')].find((at) => at > 0);
    if (frame < 0 || note === undefined || note < frame || note + 12 > bytesRead) return null;
    if (!(read.readUInt32BE(note + 4) & HAS_FRAMES)) return null;
    const version = (read[frame + 1]! >> 3) & 3;
    const rate = RATES_HZ[(read[frame + 2]! >> 2) & 3];
    if (!rate || version === 1) return null;
    const isFirst = version === 3;
    const rateHz = isFirst ? rate : version === 2 ? rate / 2 : rate / 4;
    return Math.round((read.readUInt32BE(note + 8) * (isFirst ? 1152 : 576) * 1000) / rateHz);
  } finally {
    await handle.close();
  }
}
