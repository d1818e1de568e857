import { Problem } from '@immeld/core/contract/problem';
import type { Response } from 'express';
import fs from 'node:fs';
import { measurePicture } from '../media/pictureSize';
import { sendUserFile } from './sendStoredFile';
import type { SoundStore } from './soundStore';

export const MAX_PICTURE_SIZE = '20mb';

/**
 * Keeps the bytes of a picture, whole or not at all, with the ending of what it is.
 * @returns the name of the file
 * @throws Problem where they are no picture that browsers show, or one of too many pixels
 */
export async function keepPicture(sounds: SoundStore, name: string, bytes: unknown): Promise<string> {
  const { container } = await measurePicture(Buffer.isBuffer(bytes) ? bytes : Buffer.alloc(0));
  const pictureFile = `${name}${container.extension}`;
  const target = sounds.picturePath(pictureFile);
  await fs.promises.writeFile(`${target}.part`, bytes as Buffer);
  await fs.promises.rename(`${target}.part`, target);
  return pictureFile;
}

/** Answers with a picture that was kept. Throws Problem where there is none. */
export async function sendPicture(sounds: SoundStore, pictureFile: string | null, response: Response): Promise<void> {
  const file = pictureFile && sounds.picturePath(pictureFile);
  if (!file || !fs.existsSync(file)) throw new Problem('not-found', 'This picture no longer exists.');
  await sendUserFile(response, file, { shows: ['picture'] });
}
