import type { NoteBody, NoteChange, NoteNode } from '@immeld/core/contract/notes';
import { clockTime, dayInWords } from '@immeld/core/formats/times';
import { Problem } from '@immeld/core/contract/problem';
import type { Transaction } from 'sequelize';
import type { ChangeSet } from '../history/changeSets';
import { LinkRow, NoteRow, textChangedAt } from '../models/note';
import { Recording } from '../models/recording';
import { saveNoteTodos } from '../todos/noteTodos';
import { keepVersion } from './noteHistory';
import { linksOfNote, textOfNote } from './noteText';
import { setNoteTags } from './shelving';

/** Writes the links of a note down, so that what they lead to knows of them; a target that is gone is left out. */
async function keepLinks(noteId: string, body: NoteBody | null, transaction: Transaction): Promise<void> {
  await LinkRow.destroy({ where: { fromNoteId: noteId }, transaction });
  for (const { kind, id } of linksOfNote(body)) {
    const isThere =
      kind === 'note'
        ? await NoteRow.count({ where: { id }, transaction })
        : await Recording.count({ where: { id }, transaction });
    if (!isThere) continue;
    await LinkRow.create(
      { fromNoteId: noteId, toNoteId: kind === 'note' ? id : null, toRecordingId: kind === 'recording' ? id : null },
      { transaction },
    );
  }
}

/** Writes the text of a note; the one before is among its earlier texts, if it stood for a while or is asked for. */
export async function writeBody(
  note: NoteRow,
  body: NoteBody,
  transaction: Transaction,
  keepsBefore = false,
): Promise<void> {
  await keepVersion(note, transaction, keepsBefore);
  await saveNoteTodos(note, note.body, body, transaction);
  await note.update({ body, text: textOfNote(body), textChangedAt: new Date() }, { transaction });
  await keepLinks(note.id, body, transaction);
}

/**
 * Changes a note. Its text is not written over when somebody else, or another device, changed it since: the caller is
 * told and keeps what it has.
 */
export async function changeNote(note: NoteRow, change: NoteChange, deed: ChangeSet): Promise<void> {
  const isOlder = change.seenAt && note.body !== null && textChangedAt(note) !== change.seenAt;
  // The same text once more is no conflict: the answer to the first time got lost.
  if (change.body && isOlder && JSON.stringify(note.body) !== JSON.stringify(change.body)) {
    throw new Problem(
      'not-possible-now',
      'This note was also changed on another device.',
      'Both versions are safe: the other one in the note, yours on this page.',
    );
  }
  await deed.change(note, {
    ...(change.title !== undefined ? { title: change.title } : {}),
    ...(change.folderId !== undefined ? { folderId: change.folderId } : {}),
    ...(change.isFavourite !== undefined ? { isFavourite: change.isFavourite } : {}),
    ...(change.isArchived !== undefined ? { archivedAt: change.isArchived ? new Date() : null } : {}),
    ...(change.isBinned !== undefined ? { binnedAt: change.isBinned ? new Date() : null } : {}),
  });
  if (change.tags) await setNoteTags(note.id, change.tags.map(String), deed);
  if (change.body) await writeBody(note, change.body, deed.transaction);
}

const paragraph = (text: string): NoteNode => ({ type: 'paragraph', content: [{ type: 'text', text }] });

/** The note of a day, made when it is first written into. */
export async function dayNote(day: string, transaction: Transaction): Promise<NoteRow> {
  return (
    (await NoteRow.findOne({ where: { day }, transaction })) ??
    NoteRow.create({ day, title: `Note for ${dayInWords(day)}` }, { transaction })
  );
}

/** Puts what was said, or a slip, at the end of a note: a quotation that leads to its moment. */
export async function addQuotation(
  note: NoteRow,
  { recordingId, startMs, text }: { recordingId: string; startMs: number; text: string },
  transaction: Transaction,
): Promise<void> {
  const moment: NoteNode = {
    type: 'mention',
    attrs: { kind: 'recording', id: recordingId, label: clockTime(startMs), startMs },
  };
  const words: NoteNode = { type: 'text', text: `${text.trim()} ` };
  const quotation: NoteNode = { type: 'blockquote', content: [{ type: 'paragraph', content: [words, moment] }] };
  // The empty line at the end that editors leave is written on.
  const before = (note.body?.content ?? []).filter((n, i, all) => i < all.length - 1 || n.content?.length);
  await writeBody(note, { type: 'doc', content: [...before, quotation] }, transaction, true);
}

/** Puts words with their time at the end of the note of a day. */
export async function addQuickWords(day: string, at: string, text: string, transaction: Transaction): Promise<NoteRow> {
  const note = await dayNote(day, transaction);
  const lines = text.split(/\n+/).filter((l) => l.trim());
  const added = lines.map((line, i) => paragraph(i === 0 ? `${at} ${line}` : line));
  await writeBody(note, { type: 'doc', content: [...(note.body?.content ?? []), ...added] }, transaction);
  if (note.binnedAt) await note.update({ binnedAt: null }, { transaction });
  return note;
}
