import type { Batch } from '@immeld/core/contract/shelves';
import type { ChangeSet } from '../history/changeSets';
import { Folder } from '../models/folder';
import { NoteRow, titleOfNote } from '../models/note';
import { Recording, titleOf } from '../models/recording';
import { NOTE_INCLUDES } from '../views/noteView';
import { changeRecording, fileAsSuggested, namesOf } from './recordingFiling';
import { changeNote } from './notes';
import { checkFolder } from './shelving';

/**
 * The same for many recordings and notes, as one deed; those that are not there any more are passed over.
 * @returns what was done, in the words of the bar that offers the way back, and to how many
 */
export async function changeMany(batch: Batch, deed: ChangeSet): Promise<{ text: string; count: number }> {
  const { ids, noteIds = [], asSuggested, addTags = [], removeTags = [], ...change } = batch;
  const { transaction } = deed;
  await checkFolder(change.folderId);
  const recordings = await Recording.findAll({ where: { id: ids }, transaction });
  const notes = await NoteRow.findAll({ where: { id: noteIds }, include: NOTE_INCLUDES, transaction });
  const gone = new Set(removeTags.map((t) => t.toLowerCase()));
  const isRetagged = addTags.length + removeTags.length > 0;
  const retagged = (tags: readonly string[]) =>
    isRetagged ? { tags: [...tags.filter((t) => !gone.has(t.toLowerCase())), ...addTags] } : {};
  const hasChange = isRetagged || Object.keys(change).length > 0;
  for (const recording of recordings) {
    if (asSuggested) await fileAsSuggested(recording, deed);
    const { tags } = await namesOf(recording, deed);
    if (hasChange) await changeRecording(recording, { ...change, ...retagged(tags) }, deed);
  }
  const { project: _project, isFiled: _isFiled, ...ofNotes } = change;
  for (const note of notes) {
    await changeNote(note, { ...ofNotes, ...retagged((note.tags ?? []).map((t) => t.name)) }, deed);
  }
  return { text: await inWords(batch, recordings, notes), count: recordings.length + notes.length };
}

const count = (items: readonly unknown[], noun: string) => `${items.length} ${noun}${items.length === 1 ? '' : 's'}`;

async function inWords(batch: Batch, recordings: readonly Recording[], notes: readonly NoteRow[]): Promise<string> {
  if (recordings.length + notes.length === 0) return 'These items no longer exist.';
  const isOne = recordings.length + notes.length === 1;
  const title = recordings[0] ? titleOf(recordings[0]) : notes[0] && titleOfNote(notes[0]);
  const what = isOne
    ? `“${title}”`
    : [recordings.length && count(recordings, 'recording'), notes.length && count(notes, 'note')]
        .filter(Boolean)
        .join(' and ');
  const are = isOne ? 'is' : 'are';
  if (batch.isBinned !== undefined)
    return batch.isBinned ? `${what} ${are} in the bin for 30 days.` : `${what} ${are} restored.`;
  if (batch.isArchived !== undefined) return `${what} ${are} ${batch.isArchived ? 'in' : 'no longer in'} the archive.`;
  if (batch.folderId) return `${what} ${are} in ${(await Folder.findByPk(batch.folderId))!.name}.`;
  if (batch.asSuggested || batch.isFiled) return `${what} ${are} filed.`;
  if (batch.isFiled === false) return `${what} ${are} back in the tray.`;
  if (batch.isFavourite !== undefined)
    return `${what} ${are} ${batch.isFavourite ? 'now' : 'no longer'} in your favourites.`;
  if (batch.addTags?.length) return `${what} ${are} tagged ${batch.addTags.join(', ')}.`;
  return `${what} ${are} changed.`;
}
