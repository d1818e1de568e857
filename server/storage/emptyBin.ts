import fs from 'node:fs';
import { Op } from 'sequelize';
import { NoteRow } from '../models/note';
import { NotePictureRow } from '../models/noteHistory';
import { Recording } from '../models/recording';
import { SlipRow } from '../models/slip';
import { TodoRow } from '../models/todo';
import type { SoundStore } from './soundStore';

export const KEPT_IN_BIN_DAYS = 30;
const DAY_MS = 86_400_000;

/** Removes for good what has lain in the bin for more than 30 days, sound and words, and notes. Returns how many recordings. */
export async function emptyBin(sounds: SoundStore, now = new Date()): Promise<number> {
  const before = new Date(now.getTime() - KEPT_IN_BIN_DAYS * DAY_MS);
  const notes = await NoteRow.findAll({ where: { binnedAt: { [Op.lt]: before } }, attributes: ['id'] });
  for (const { id: noteId } of notes) {
    for (const { file } of await NotePictureRow.findAll({ where: { noteId } })) {
      await fs.promises.rm(sounds.picturePath(file), { force: true });
    }
    await NoteRow.destroy({ where: { id: noteId } });
  }
  const old = await Recording.findAll({ where: { binnedAt: { [Op.lt]: before } } });
  for (const recording of old) {
    // A to-do that was accepted outlives the recording it came from.
    await TodoRow.destroy({ where: { recordingId: recording.id, state: { [Op.ne]: 'ink' } } });
    for (const { id, pictureFile, file } of await SlipRow.findAll({ where: { recordingId: recording.id } })) {
      if (pictureFile) await fs.promises.rm(sounds.picturePath(pictureFile), { force: true });
      if (file) await fs.promises.rm(sounds.slipFilePath(id), { force: true });
    }
    await recording.destroy();
    const { soundFile, playbackFile, moreSounds, video } = recording;
    for (const file of [soundFile, playbackFile, video?.file, ...moreSounds.map((s) => s.soundFile)]) {
      if (file) await fs.promises.rm(sounds.pathOf(file), { force: true });
    }
  }
  return old.length;
}
