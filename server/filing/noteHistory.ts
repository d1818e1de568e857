import { Problem } from '@immeld/core/contract/problem';
import { Op, type Transaction } from 'sequelize';
import type { NoteRow } from '../models/note';
import { NoteVersionRow } from '../models/noteHistory';

/** While one writes, a version is kept so often, not with every letter. */
const BETWEEN_VERSIONS_MS = 10 * 60_000;
const MAX_VERSIONS = 100;

/** Keeps the text of a note before it is changed; @param always also where one was kept just now */
export async function keepVersion(note: NoteRow, transaction: Transaction, always = false): Promise<void> {
  const { id: noteId, body, text } = note;
  if (!body || !text.trim()) return;
  const last = await NoteVersionRow.findOne({ where: { noteId }, order: [['createdAt', 'DESC']], transaction });
  if (last?.text === text) return;
  if (!always && last && Date.now() - last.createdAt.getTime() < BETWEEN_VERSIONS_MS) return;
  await NoteVersionRow.create({ noteId, body, text }, { transaction });
  const tooMany = await NoteVersionRow.findAll({
    where: { noteId },
    attributes: ['id'],
    order: [['createdAt', 'DESC']],
    offset: MAX_VERSIONS,
    limit: MAX_VERSIONS,
    transaction,
  });
  await NoteVersionRow.destroy({ where: { id: { [Op.in]: tooMany.map((v) => v.id) } }, transaction });
}

/** A version of a note. Throws Problem where there is none. */
export async function versionOf(noteId: string, id: string): Promise<NoteVersionRow> {
  const version = await NoteVersionRow.findOne({ where: { id, noteId } });
  if (!version) throw new Problem('not-found', 'This version no longer exists.');
  return version;
}
