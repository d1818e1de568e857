import type { DraftSource } from '@immeld/core/contract/recordings';
import { type Passage, type Word, passageText } from '@immeld/core/transcript/manuscript';
import { PassageRow } from '../models/passage';
import type { Recording } from '../models/recording';
import { asidesOf } from './asides';
import { longTasks } from '../tasks/taskPool';

/**
 * Adds passages to the text that a recording has until it is transcribed. Words of the device are better than waiting,
 * and stay until the whole is transcribed; pieces that the server has done stand where the device sent nothing.
 * @returns how many passages there are now; null where the recording has another text already
 */
export async function appendDraft(
  recording: Recording,
  passages: readonly Passage[],
  source: DraftSource,
): Promise<number | null> {
  return recording.sequelize.transaction(async (transaction) => {
    await recording.reload({ transaction });
    const { id: recordingId, draft, model } = recording;
    if (model !== null || (draft !== null && draft !== source)) return null;
    const count = await PassageRow.count({ where: { recordingId }, transaction });
    if (draft === null && count > 0) return null;
    const last = ((await PassageRow.max('position', { where: { recordingId }, transaction })) as number | null) ?? -1;
    await PassageRow.bulkCreate(
      passages.map((p, i) => ({
        ...{ ...p, recordingId, position: last + 1 + i, text: passageText(p) },
        // Corrected on the device, before it was sent.
        isCorrected: p.words.some((w) => w.isTyped),
      })),
      { transaction },
    );
    if (draft === null) await recording.update({ draft: source }, { transaction });
    return count + passages.length;
  });
}

/**
 * Adds words that the device heard while it recorded, cut into passages beside the server's own thread. What is here
 * already, because an answer was lost and they were sent again, is not added twice.
 * @returns whether the recording has the words of the device
 */
export async function appendDeviceWords(recording: Recording, words: readonly Word[]): Promise<boolean> {
  if (recording.model !== null || recording.draft === 'server') return false;
  const endMs = ((await PassageRow.max('endMs', { where: { recordingId: recording.id } })) as number | null) ?? 0;
  const fresh = words.filter((w) => w.startMs >= endMs);
  if (fresh.length === 0) return recording.draft === 'device';
  const asides = await asidesOf(recording);
  const passages = await longTasks.run({ kind: 'passages', words: JSON.stringify(fresh), asides });
  return (await appendDraft(recording, passages, 'device')) !== null;
}

/** Up to where the server's own pieces can be read already, in milliseconds. */
export async function draftedUpTo({ id, draft }: Recording): Promise<number> {
  if (draft !== 'server') return 0;
  return ((await PassageRow.max('endMs', { where: { recordingId: id } })) as number | null) ?? 0;
}

/**
 * Clears away the pieces of a recognition that was broken off and begins anew.
 * @returns false where a person has corrected some of them: they stay until the whole is transcribed
 */
export async function clearServerDraft(recording: Recording): Promise<boolean> {
  if (recording.draft !== 'server') return true;
  const where = { recordingId: recording.id };
  if (await PassageRow.count({ where: { ...where, isCorrected: true } })) return false;
  await PassageRow.destroy({ where });
  return true;
}
