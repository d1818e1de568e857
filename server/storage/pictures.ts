import { Problem } from '@immeld/core/contract/problem';
import type { Response } from 'express';
import fs from 'node:fs';
import { sendKept } from './sendKept';
import type { SoundStore } from './soundStore';

export const LARGEST_PICTURE = '20mb';

/** Kinds of pictures that every browser shows, by their first bytes (PNG, JPEG, GIF, and WebP in RIFF). */
const PICTURES: { type: string; extension: string; isIt: (bytes: Buffer) => boolean }[] = [
  { type: 'image/png', extension: 'png', isIt: (b) => b.subarray(0, 4).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47])) },
  { type: 'image/jpeg', extension: 'jpg', isIt: (b) => b.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff])) },
  { type: 'image/gif', extension: 'gif', isIt: (b) => b.subarray(0, 4).toString('latin1') === 'GIF8' },
  { type: 'image/webp', extension: 'webp', isIt: (b) => b.subarray(8, 12).toString('latin1') === 'WEBP' },
];

/**
 * Keeps the bytes of a picture, whole or not at all, under a name without extension.
 * @returns the name of the file
 * @throws Problem where they are no picture that browsers show
 */
export async function keepPicture(sounds: SoundStore, name: string, bytes: unknown): Promise<string> {
  const kind = Buffer.isBuffer(bytes) ? PICTURES.find((p) => p.isIt(bytes)) : undefined;
  if (!kind) throw new Problem('invalid-request', 'This is no picture that can be shown: PNG, JPEG, GIF or WebP.');
  const pictureFile = `${name}.${kind.extension}`;
  const target = sounds.picturePath(pictureFile);
  await fs.promises.writeFile(`${target}.part`, bytes as Buffer);
  await fs.promises.rename(`${target}.part`, target);
  return pictureFile;
}

/** Answers with a picture that was kept. Throws Problem where there is none. */
export async function sendPicture(sounds: SoundStore, pictureFile: string | null, response: Response): Promise<void> {
  const file = pictureFile && sounds.picturePath(pictureFile);
  if (!file || !fs.existsSync(file)) throw new Problem('not-found', 'There is no such picture.');
  response.setHeader('Cache-Control', 'private, max-age=86400');
  response.type(PICTURES.find((p) => file.endsWith(p.extension))!.type);
  await sendKept(response, file);
}
