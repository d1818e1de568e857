import { PACKS } from '@immeld/core/speech/packs';
import { Op, literal } from 'sequelize';
import { asAccount } from '../accounts/currentAccount';
import { Recording } from '../models/recording';
import { SettingsRow, changeSharedSettings, sharedSettings } from '../models/settings';

/** Recordings that a model with more mistakes than the chosen one has transcribed; the quick one improves nothing. */
const olderOnes = {
  binnedAt: null,
  state: 'ready',
  model: { [Op.and]: [{ [Op.not]: null }, { [Op.ne]: PACKS.usual }] },
};

/** How many recordings of this account would get better words, and how long they are. */
export async function olderTranscripts(): Promise<{ count: number; soundMs: number; isWorking: boolean }> {
  const { quality, improvesOlder: isWorking } = await sharedSettings();
  if (quality !== 'usual') return { count: 0, soundMs: 0, isWorking: false };
  const [count, soundMs] = await Promise.all([
    Recording.count({ where: olderOnes }),
    Recording.sum('durationMs', { where: olderOnes }),
  ]);
  return { count, soundMs: soundMs || 0, isWorking };
}

/**
 * The newest recording of somebody who asked for all older ones to be transcribed again, with its account; null where none is
 * left. Who has none left has asked for nothing any more.
 */
export async function nextOlderTranscript(): Promise<{ accountId: string; recordingId: string } | null> {
  const asked = await SettingsRow.findAll({ where: literal(`json_extract(settings, '$.improvesOlder') = 1`) });
  for (const { accountId } of asked) {
    const next = await asAccount(accountId, async () => {
      const isWanted = (await sharedSettings()).quality === 'usual';
      const recording = isWanted ? await Recording.findOne({ where: olderOnes, order: [['startedAt', 'DESC']] }) : null;
      if (!recording) await changeSharedSettings({ improvesOlder: false });
      return recording;
    });
    if (next) return { accountId, recordingId: next.id };
  }
  return null;
}
