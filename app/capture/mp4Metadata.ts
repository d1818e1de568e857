/**
 * The times in the movie box of an MP4 or QuickTime file (ISO/IEC 14496-12: `moov` with `mvhd`, `tkhd`, `mdhd`; seconds
 * since the beginning of 1904, 32 bits wide in version 0 and 64 in version 1 of a box).
 */
const FROM_1904_TO_1970_SECONDS = 2_082_844_800;
const MAX_BOX = 64 * 1024 ** 2;
const CONTAINERS = new Set(['moov', 'trak', 'mdia']);
const TIMED = new Set(['mvhd', 'tkhd', 'mdhd']);

type Box = { kind: string; body: number; end: number };

function boxAt(view: DataView, at: number): Box | null {
  if (at + 8 > view.byteLength) return null;
  const kind = String.fromCharCode(...[4, 5, 6, 7].map((i) => view.getUint8(at + i)));
  const size = view.getUint32(at);
  if (size === 1) {
    return at + 16 > view.byteLength ? null : { kind, body: at + 16, end: at + Number(view.getBigUint64(at + 8)) };
  }
  return { kind, body: at + 8, end: size === 0 ? Infinity : at + size };
}

/** Places of the boxes with times inside `from` to `to`; each begins with its version. */
function* timedBoxes(view: DataView, from: number, to: number): Generator<Box> {
  for (let at = from; at < to;) {
    const box = boxAt(view, at);
    if (!box || box.end <= at) return;
    if (TIMED.has(box.kind)) yield box;
    else if (CONTAINERS.has(box.kind)) yield* timedBoxes(view, box.body, Math.min(box.end, to));
    at = box.end;
  }
}

export type Mp4Metadata = {
  madeAt: Date | null;
  /** A point in the way of ISO 6709, `+52.5061+004.9592`. */
  place: string | null;
};
const NOTHING: Mp4Metadata = { madeAt: null, place: null };

/** When and where the file says that it was made, as far as it does. */
export async function readMp4Metadata(file: Blob): Promise<Mp4Metadata> {
  for (let at = 0; at < file.size;) {
    const box = boxAt(new DataView(await file.slice(at, at + 16).arrayBuffer()), 0);
    if (!box || box.end <= 0) return NOTHING;
    if (box.kind === 'moov' && box.end <= MAX_BOX) {
      const view = new DataView(await file.slice(at, at + box.end).arrayBuffer());
      // Phones keep the place in boxes of different kinds, but always in these letters.
      const text = new TextDecoder('latin1').decode(view);
      const [place = null] = /[+-]\d{2}\.\d{3,}[+-]\d{3}\.\d{3,}/.exec(text) ?? [];
      return { madeAt: firstTime(view, box.body), place };
    }
    at += box.end;
  }
  return NOTHING;
}

function firstTime(view: DataView, from: number): Date | null {
  const [times] = timedBoxes(view, from, view.byteLength);
  if (!times) return null;
  const isLong = view.getUint8(times.body) === 1;
  const seconds = isLong ? Number(view.getBigUint64(times.body + 4)) : view.getUint32(times.body + 4);
  const date = new Date((seconds - FROM_1904_TO_1970_SECONDS) * 1000);
  // Recorders without a clock write the beginning of their calendar.
  return date.getTime() > Date.UTC(1995, 0, 1) ? date : null;
}

/** Takes the times out, in place, so that the same sound is the same file whenever it was put together. */
export function eraseTimes(file: ArrayBuffer): void {
  const view = new DataView(file);
  for (const { body } of timedBoxes(view, 0, file.byteLength)) {
    const isLong = view.getUint8(body) === 1;
    for (let i = 0; i < (isLong ? 16 : 8); i++) view.setUint8(body + 4 + i, 0);
  }
}
