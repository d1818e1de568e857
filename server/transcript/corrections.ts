import type { Corrected, Correction, Rewriting } from '@immeld/core/contract/corrections';
import type { ParagraphChange } from '@immeld/core/contract/paragraphs';
import { Problem } from '@immeld/core/contract/problem';
import { retimeWords } from '@immeld/core/transcript/edit';
import { keepCorrected } from '@immeld/core/transcript/keepCorrected';
import { type Passage, passageText } from '@immeld/core/transcript/manuscript';
import { USUAL_PARAGRAPHS, markParagraphs } from '@immeld/core/transcript/passages';
import { Op, type Transaction, literal } from 'sequelize';
import { PassageRow } from '../models/passage';
import type { Recording } from '../models/recording';
import { TranscriptVersion } from '../models/transcriptVersion';
import { passageView } from '../views/recordingView';

export const plainPassage = ({ startMs, endMs, speaker, startsParagraph, words }: PassageRow): Passage => ({
  ...{ startMs, endMs, speaker, startsParagraph, words },
});

/** All passages of a recording in their order. */
export const passagesOf = (recordingId: string, transaction?: Transaction): Promise<PassageRow[]> =>
  PassageRow.findAll({
    where: { recordingId },
    order: [['position', 'ASC']],
    ...(transaction ? { transaction } : {}),
  });

/** Whether a person has changed anything in the text. */
export const isCorrected = async (recordingId: string, transaction: Transaction): Promise<boolean> =>
  (await PassageRow.count({ where: { recordingId, isCorrected: true }, transaction })) > 0;

/** Keeps the text as it stands now as a version. */
export async function keepVersion(
  recordingId: string,
  kind: TranscriptVersion['kind'],
  transaction: Transaction,
): Promise<void> {
  const passages = (await passagesOf(recordingId, transaction)).map(plainPassage);
  await TranscriptVersion.create({ recordingId, kind, passages }, { transaction });
}

const gone = () =>
  new Problem('not-possible-now', 'This passage was replaced in the meantime.', 'Your text is still here.');

/** The rows as the person saw them: one after the other, none changed since. */
async function loadUnchanged(recordingId: string, replaced: Rewriting['replaced'], transaction: Transaction) {
  const rows = await PassageRow.findAll({
    where: { recordingId, id: replaced.map((r) => r.id) },
    order: [['position', 'ASC']],
    transaction,
  });
  if (rows.length === 0 || rows.length !== replaced.length) throw gone();
  if (rows.some((row, i) => row.id !== replaced[i]!.id || row.position !== rows[0]!.position + i)) throw gone();
  const changed = rows.find((row, i) => row.revision !== replaced[i]!.revision);
  if (changed) {
    throw new Problem(
      'not-possible-now',
      `This passage was also changed elsewhere. The other text is: ${changed.text}`,
      'Your text is still here.',
    );
  }
  return rows;
}

/** Moves the places of all passages from one on; by way of negative numbers, because no two may have the same. */
async function movePassages(recordingId: string, from: number, by: number, transaction: Transaction): Promise<void> {
  if (by === 0) return;
  const to = (position: string) => ({ position: literal(position) as unknown as number });
  await PassageRow.update(to(`-1 - (position + ${by})`), {
    where: { recordingId, position: { [Op.gte]: from } },
    transaction,
  });
  await PassageRow.update(to('-1 - position'), { where: { recordingId, position: { [Op.lt]: 0 } }, transaction });
}

/**
 * Writes passages that follow each other anew: corrected, parted, joined, or as they were before. Before the first
 * change of a recording its text is kept as a version.
 */
export async function rewrite(
  recording: Recording,
  { replaced, passages }: Rewriting,
  within?: Transaction,
): Promise<Corrected> {
  const recordingId = recording.id;
  const work = async (transaction: Transaction): Promise<Corrected> => {
    const rows = await loadUnchanged(recordingId, replaced, transaction);
    // What the device heard is kept as such when the whole is transcribed.
    const isKept =
      recording.draft !== null ||
      (await TranscriptVersion.count({ where: { recordingId, kind: 'recognised' }, transaction }));
    if (!isKept) await keepVersion(recordingId, 'recognised', transaction);
    const from = rows[0]!.position;
    const removed = rows.slice(passages.length);
    for (const row of removed) await row.destroy({ transaction });
    await movePassages(recordingId, from + rows.length, passages.length - rows.length, transaction);
    const written: PassageRow[] = [];
    for (const [i, passage] of passages.entries()) {
      const row = rows[i];
      const values = { ...passage, position: from + i, text: passageText(passage), isCorrected: true };
      written.push(
        row
          ? await row.update({ ...values, revision: row.revision + 1 }, { transaction })
          : await PassageRow.create({ ...values, recordingId }, { transaction }),
      );
    }
    return { passages: written.map(passageView), removed: removed.map((r) => r.id) };
  };
  return within ? work(within) : recording.sequelize.transaction(work);
}

/**
 * Begins paragraphs by a rule or at given passages; nothing else is touched.
 * @returns the passages that began a paragraph before
 */
export async function changeParagraphs(
  recording: Recording,
  { kind, pauseMs, starts }: ParagraphChange,
): Promise<number[]> {
  return recording.sequelize.transaction(async (transaction) => {
    const rows = await passagesOf(recording.id, transaction);
    const before = rows.filter((r) => r.startsParagraph).map((r) => r.id);
    const passages = rows.map(plainPassage);
    if (kind) markParagraphs(passages, { ...USUAL_PARAGRAPHS, kind, ...(pauseMs ? { pauseMs } : {}) });
    const begins = (row: PassageRow, i: number) => (kind ? passages[i]!.startsParagraph : starts!.includes(row.id));
    const now = rows.filter(begins).map((r) => r.id);
    const where = { recordingId: recording.id };
    await PassageRow.update({ startsParagraph: false }, { where, transaction });
    await PassageRow.update({ startsParagraph: true }, { where: { ...where, id: now }, transaction });
    return before;
  });
}

/** Gives a passage another text; its words keep their times. */
export async function correct(recording: Recording, id: number, { revision, text }: Correction): Promise<Corrected> {
  const row = await PassageRow.findOne({ where: { id, recordingId: recording.id } });
  if (!row) throw gone();
  const words = retimeWords(row.words, text, row);
  return rewrite(recording, { replaced: [{ id, revision }], passages: [{ ...plainPassage(row), words }] });
}

/** Lays a kept version down as the text; what stood there becomes a version itself. */
export async function restoreVersion(recording: Recording, version: TranscriptVersion): Promise<void> {
  const recordingId = recording.id;
  await recording.sequelize.transaction(async (transaction) => {
    await keepVersion(recordingId, 'corrected', transaction);
    await replaceAllPassages(recordingId, version.passages, version.kind !== 'recognised', transaction);
  });
}

/**
 * Puts a first transcription in the place of the words that stood there until now; what a person corrected in them stays.
 * The words of the device are kept as a version, and so is the transcription where corrections take its place in part.
 */
export async function replaceDraft(
  recording: Recording,
  passages: readonly Passage[],
  transaction: Transaction,
): Promise<void> {
  const recordingId = recording.id;
  const rows = await passagesOf(recordingId, transaction);
  const corrected = rows.filter((row) => row.isCorrected).map(plainPassage);
  if (recording.draft === 'device') await keepVersion(recordingId, 'device', transaction);
  if (corrected.length === 0) return replaceAllPassages(recordingId, passages, false, transaction);
  await TranscriptVersion.create({ recordingId, kind: 'recognised', passages: [...passages] }, { transaction });
  const merged = keepCorrected(corrected, passages);
  await PassageRow.destroy({ where: { recordingId }, transaction });
  await PassageRow.bulkCreate(
    merged.map(({ passage, isCorrected }, position) => ({
      ...{ ...passage, recordingId, position, text: passageText(passage), isCorrected },
    })),
    { transaction },
  );
}

/** Puts these passages in the place of all that stand there. */
export async function replaceAllPassages(
  recordingId: string,
  passages: readonly Passage[],
  asCorrected: boolean,
  transaction: Transaction,
): Promise<void> {
  await PassageRow.destroy({ where: { recordingId }, transaction });
  await PassageRow.bulkCreate(
    passages.map((p, position) => ({
      ...{ ...p, recordingId, position, text: passageText(p) },
      isCorrected: asCorrected,
    })),
    { transaction },
  );
}
