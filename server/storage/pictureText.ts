import type { SlipRow } from '../models/slip';
import { log } from '../log';
import { inProcess } from '../tasks/inProcess';
import type { SoundStore } from './soundStore';

const RULES = { memoryMb: 1200, limitMs: 120_000 };

/** Reads the words of a slip's picture, so that they can be found. Nobody waits for that. */
export async function readPictureOf(slip: SlipRow, sounds: SoundStore): Promise<void> {
  const { pictureFile } = slip;
  if (!pictureFile) return;
  try {
    const fileText = await inProcess({ kind: 'picture words', file: sounds.picturePath(pictureFile) }, RULES);
    // Another picture may have come meanwhile, or somebody has written the words.
    await slip.reload();
    if (slip.pictureFile === pictureFile && !slip.fileText) await slip.update({ fileText: fileText || null });
  } catch (error) {
    log.error(error, 'The words of a picture could not be read.');
  }
}
