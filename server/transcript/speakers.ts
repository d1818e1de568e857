import { Problem } from '@immeld/core/contract/problem';
import { fullName } from '@immeld/core/filing/people';
import { isCalled } from '@immeld/core/language/todos/people';
import type { Speaker, SpeakerChange } from '@immeld/core/contract/speakers';
import { type DiarizedVoice, isNumbered, identifyVoice } from '@immeld/core/speech/speakers/diarizer';
import { fromStored, mergedStatistics, toStored } from '@immeld/core/speech/speakers/voiceStatistics';
import type { Passage } from '@immeld/core/transcript/manuscript';
import type { Transaction } from 'sequelize';
import { PassageRow } from '../models/passage';
import { Person, RecordingPerson } from '../models/person';
import type { Recording } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { VoiceRow } from '../models/voice';

const together = (a: DiarizedVoice['voice'], b: DiarizedVoice['voice']) =>
  toStored(mergedStatistics(fromStored(a), fromStored(b)));

/** Who speaks in a recording, in the order in which they begin, with a name in pencil where a voice is known. */
export async function speakersIn(
  recording: Recording,
  passages: readonly Pick<Passage, 'speaker' | 'words'>[],
): Promise<Speaker[]> {
  const speakers = new Map<string, number>();
  for (const { speaker, words } of passages) {
    if (speaker === null) continue;
    const spokenMs = words.reduce((sum, w) => sum + w.endMs - w.startMs, 0);
    speakers.set(speaker, (speakers.get(speaker) ?? 0) + spokenMs);
  }
  const unknown = recording.voices.filter((v) => isNumbered(v.speaker) && speakers.has(v.speaker));
  const known = unknown.length ? await VoiceRow.findAll() : [];
  // Nobody speaks twice under two names in one recording.
  const free = known.filter((k) => !speakers.has(k.name)).map(({ name, voice }) => ({ speaker: name, voice }));
  return [...speakers].map(([name, speakingMs]) => {
    const found = unknown.find((v) => v.speaker === name);
    return { name, speakingMs, proposed: found ? identifyVoice(found.voice, free) : null };
  });
}

/**
 * Gives passages to somebody. When all of a speaker go over, so does the voice: it gets the name, or is joined to the
 * one that has it, and is known again under that name elsewhere.
 * @returns the passages that changed hands
 */
export async function assignSpeaker(recording: Recording, { from, passageIds, to }: SpeakerChange): Promise<number[]> {
  return recording.sequelize.transaction(async (transaction) => {
    const rows = await PassageRow.findAll({
      where: {
        recordingId: recording.id,
        ...(from === undefined ? {} : { speaker: from }),
        ...(passageIds === undefined ? {} : { id: passageIds }),
      },
      transaction,
    });
    if (rows.length === 0) {
      throw new Problem(
        'not-found',
        'These passages no longer exist. The text may have been changed on another device. Reload the page.',
      );
    }
    const before = new Set(rows.map((r) => r.speaker));
    const changed = rows.map((r) => r.id);
    // Given one by one they are a person's work, which a new recognition leaves alone.
    const byHand = from === undefined ? { isCorrected: true } : {};
    await PassageRow.update({ speaker: to ?? null, ...byHand }, { where: { id: changed }, transaction });
    for (const speaker of before) {
      if (speaker === null || speaker === to) continue;
      const left = await PassageRow.count({ where: { recordingId: recording.id, speaker }, transaction });
      if (left === 0) {
        await renameVoice(recording, speaker, to ?? null, transaction);
        if (!isNumbered(speaker)) await unlinkPerson(recording.id, speaker, transaction);
      }
    }
    if (to && !isNumbered(to)) await linkPerson(recording.id, to, transaction);
    return changed;
  });
}

/** Whoever is named as a speaker is among the people of the recording, under the name they are known by. */
async function linkPerson(recordingId: string, speaker: string, transaction: Transaction): Promise<void> {
  const { ownName } = await sharedSettings();
  if (isCalled(ownName, speaker)) return;
  const known = await Person.findAll({ transaction });
  const name = fullName(speaker, known);
  const person = known.find((p) => p.name === name) ?? (await Person.create({ name, otherNames: [] }, { transaction }));
  await RecordingPerson.findOrCreate({ where: { recordingId, personId: person.id }, transaction });
}

async function unlinkPerson(recordingId: string, speaker: string, transaction: Transaction): Promise<void> {
  const name = fullName(speaker, await Person.findAll({ transaction }));
  const person = await Person.findOne({ where: { name }, transaction });
  if (person) await RecordingPerson.destroy({ where: { recordingId, personId: person.id }, transaction });
}

async function renameVoice(recording: Recording, from: string, to: string | null, transaction: Transaction) {
  const { voices } = recording;
  const voice = voices.find((v) => v.speaker === from);
  const taken = voices.find((v) => v.speaker === to);
  // Named by mistake: it is not to be known again by that name.
  if (!isNumbered(from)) await VoiceRow.destroy({ where: { name: from, recordingId: recording.id }, transaction });
  if (!voice || to === null) return;
  const others = voices.filter((v) => v !== voice && v !== taken);
  const named = { speaker: to, voice: taken ? together(taken.voice, voice.voice) : voice.voice };
  await recording.update({ voices: [...others, named] }, { transaction });
  if (!isNumbered(to)) await learn(recording.id, named, transaction);
}

async function learn(recordingId: string, { speaker: name, voice }: DiarizedVoice, transaction: Transaction) {
  const known = await VoiceRow.findOne({ where: { name }, transaction });
  if (!known) await VoiceRow.create({ name, recordingId, voice }, { transaction });
  else if (known.recordingId === recordingId) await known.update({ voice }, { transaction });
  else await known.update({ voice: together(known.voice, voice) }, { transaction });
}

/** Recognised again: whoever had a name keeps it, by the time in which both speak. */
export function withNamesOf(
  before: readonly Passage[],
  found: readonly Passage[],
  voices: readonly DiarizedVoice[],
): { passages: Passage[]; voices: DiarizedVoice[] } {
  const shared = new Map<string, Map<string, number>>();
  for (const passage of found) {
    if (passage.speaker === null) continue;
    const counts = shared.get(passage.speaker) ?? new Map<string, number>();
    shared.set(passage.speaker, counts);
    for (const { speaker, startMs, endMs } of before) {
      const ms = Math.min(endMs, passage.endMs) - Math.max(startMs, passage.startMs);
      if (speaker !== null && !isNumbered(speaker) && ms > 0) counts.set(speaker, (counts.get(speaker) ?? 0) + ms);
    }
  }
  const names = new Map<string, string>();
  const pairs = [...shared].flatMap(([number, counts]) => [...counts].map(([name, ms]) => ({ number, name, ms })));
  for (const { number, name } of pairs.sort((a, b) => b.ms - a.ms)) {
    if (!names.has(number) && ![...names.values()].includes(name)) names.set(number, name);
  }
  const nameOf = (speaker: string) => names.get(speaker) ?? speaker;
  return {
    passages: found.map((p) => ({ ...p, speaker: p.speaker === null ? null : nameOf(p.speaker) })),
    voices: voices.map((v) => ({ ...v, speaker: nameOf(v.speaker) })),
  };
}
