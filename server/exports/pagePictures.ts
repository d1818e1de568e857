import fs from 'node:fs';
import { imageSize } from 'image-size';
import { type Source, inputArguments, startFfmpeg } from '../media/ffmpeg';
import { MAX_PIXELS, measurePicture } from '../media/pictureSize';
import { NotePictureRow } from '../models/noteHistory';
import { SlipRow } from '../models/slip';
import type { SoundStore } from '../storage/soundStore';

/** A picture as every word processor and page reader takes it; width and height in pixels. */
export type PagePicture = { type: 'png' | 'jpg'; bytes: Buffer; width: number; height: number };

const LIMIT_MS = 20_000;

/**
 * The pictures of a sheet by their ids, those of other kinds turned into PNG; what is not on the disk any more or cannot be
 * read is left out and named in `missing`.
 */
export async function pagePictures(
  sounds: SoundStore,
  ids: readonly string[],
): Promise<{ pictures: Map<string, PagePicture>; missing: string[] }> {
  const pictures = new Map<string, PagePicture>();
  const missing: string[] = [];
  for (const id of ids) {
    const name = (await SlipRow.findByPk(id))?.pictureFile ?? (await NotePictureRow.findByPk(id))?.file ?? null;
    const picture = name ? await readPicture(sounds.picturePath(name)).catch(() => null) : null;
    if (picture) pictures.set(id, picture);
    else missing.push('A picture is missing or damaged. Its name appears in its place.');
  }
  return { pictures, missing };
}

/** Larger ones are made smaller: on paper nobody sees the difference, and unpacked they take gigabytes. */
const MAX_PAGE_PIXELS = 12_000_000;
const MAX_SIDE = 3400;

async function readPicture(file: string): Promise<PagePicture> {
  const bytes = await fs.promises.readFile(file);
  const { container, width, height } = await measurePicture(bytes);
  const isJpeg = container.mediaType === 'image/jpeg';
  // A JPEG goes into a page as it is, without being unpacked.
  if (isJpeg || (container.mediaType === 'image/png' && width * height <= MAX_PAGE_PIXELS)) {
    return { type: isJpeg ? 'jpg' : 'png', bytes, width, height };
  }
  const png = await asPng({ file, container });
  const size = imageSize(png);
  return { type: 'png', bytes: png, width: size.width, height: size.height };
}

/** The first picture of a file as PNG, not larger than a page needs. Rejects where it cannot be read. */
async function asPng(source: Source): Promise<Buffer> {
  const fits = `scale='min(iw,${MAX_SIDE})':'min(ih,${MAX_SIDE})':force_original_aspect_ratio=decrease`;
  const { program, closed } = await startFfmpeg(
    [source],
    [
      ...['-max_pixels', String(MAX_PIXELS), ...inputArguments(source.container, 3), '-frames:v', '1', '-vf', fits],
      ...['-f', 'image2pipe', '-c:v', 'png', 'pipe:1'],
    ],
    { limitMs: LIMIT_MS, stdout: 'pipe' },
  );
  const parts: Buffer[] = [];
  for await (const part of program.stdout!) parts.push(part as Buffer);
  if ((await closed) !== 0) throw new Error('This picture could not be read.');
  return Buffer.concat(parts);
}
