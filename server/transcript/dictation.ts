import { DICTATION_COMMANDS } from '@immeld/core/contract/dictationCommands';
import { dictated } from '@immeld/core/transcript/dictation';
import type { Passage } from '@immeld/core/transcript/manuscript';
import type { Transaction } from 'sequelize';
import type { Recording } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { TranscriptVersion } from '../models/transcriptVersion';
import { isCorrected, keepVersion, replaceAllPassages, passagesOf, plainPassage } from './corrections';

/** A text as its dictation meant it, by the commands that this person obeys. */
export async function asDictation(passages: readonly Passage[]): Promise<Passage[]> {
  const { dictationOff } = await sharedSettings();
  return dictated(passages, new Set(DICTATION_COMMANDS.filter((c) => !dictationOff.includes(c))));
}

/** Obeys the spoken commands of a recording, or writes them out again as they were spoken; both can be gone back to. */
export async function setDictation(recording: Recording, isOn: boolean, transaction: Transaction): Promise<void> {
  if (recording.isDictation === isOn) return;
  await recording.update({ isDictation: isOn }, { transaction });
  const recordingId = recording.id;
  const now = (await passagesOf(recordingId, transaction)).map(plainPassage);
  if (now.length === 0) return;
  const asCorrected = await isCorrected(recordingId, transaction);
  let passages: Passage[];
  if (isOn) {
    await keepVersion(recordingId, 'spoken', transaction);
    passages = await asDictation(now);
  } else {
    const spoken = await TranscriptVersion.findOne({
      where: { recordingId, kind: 'spoken' },
      order: [['createdAt', 'DESC']],
      transaction,
    });
    if (!spoken) return;
    await keepVersion(recordingId, 'corrected', transaction);
    ({ passages } = spoken);
  }
  await replaceAllPassages(recordingId, passages, asCorrected, transaction);
}
