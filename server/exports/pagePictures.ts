import { execFile } from 'node:child_process';
import fs from 'node:fs';
import { promisify } from 'node:util';
import ffmpegInstaller from '@ffmpeg-installer/ffmpeg';
import { imageSize } from 'image-size';
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
    else missing.push('A picture is not on the disk any more, or cannot be read; its name stands in its place.');
  }
  return { pictures, missing };
}

async function readPicture(file: string): Promise<PagePicture> {
  const isJpeg = file.endsWith('.jpg');
  const bytes = isJpeg || file.endsWith('.png') ? await fs.promises.readFile(file) : await asPng(file);
  const { width, height } = imageSize(bytes);
  return { type: isJpeg ? 'jpg' : 'png', bytes, width, height };
}

async function asPng(file: string): Promise<Buffer> {
  const { stdout } = await promisify(execFile)(
    ffmpegInstaller.path,
    [
      '-nostdin',
      '-loglevel',
      'error',
      '-i',
      `file:${file}`,
      '-frames:v',
      '1',
      '-f',
      'image2pipe',
      '-c:v',
      'png',
      'pipe:1',
    ],
    { encoding: 'buffer', timeout: LIMIT_MS, maxBuffer: 100 * 1024 ** 2 },
  );
  return stdout;
}
