import type { RecordingChange } from '@immeld/core/contract/recordings';
import { Problem } from '@immeld/core/contract/problem';
import { appointmentFor } from '../calendar/calendars';
import type { ChangeSet } from '../history/changeSets';
import { Folder } from '../models/folder';
import { Person, RecordingPerson } from '../models/person';
import { Project } from '../models/project';
import { type Recording, titleOf } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { RecordingTag, Tag } from '../models/tag';
import { TodoRow } from '../models/todo';
import { isUnsure } from '../todos/sureness';
import { setDictation } from '../transcript/dictation';
import { projectId, setPeople, setTags } from './shelving';

async function chosenAppointment(recording: Recording, { appointmentId, zone }: RecordingChange) {
  const chosen = await appointmentFor(recording.startedAt, zone ?? null, appointmentId);
  if (chosen?.id !== appointmentId) {
    throw new Problem('invalid-request', 'This appointment is no longer in that day’s calendar. Choose another one.');
  }
  return chosen;
}

/** Changes what a recording is called and where it is filed. */
export async function changeRecording(recording: Recording, body: RecordingChange, deed: ChangeSet): Promise<void> {
  const appointment = body.appointmentId ? await chosenAppointment(recording, body) : null;
  const suggestion = { ...recording.suggestion };
  if (body.suggestedTitle) {
    const others = [suggestion.title, ...(suggestion.otherTitles ?? [])].filter((t) => t && t !== body.suggestedTitle);
    Object.assign(suggestion, { title: body.suggestedTitle, otherTitles: others });
  }
  if (body.drop?.includes('title')) suggestion.title = null;
  // A title that came from the wrong appointment goes with it.
  if (body.appointmentId !== undefined && suggestion.title === (recording.appointment?.title ?? null)) {
    suggestion.title = appointment?.title || null;
  }
  if (body.drop?.includes('folder')) suggestion.folderId = null;
  if (body.drop?.includes('tags')) suggestion.tags = [];
  if (body.drop?.includes('people')) suggestion.people = [];
  if (body.drop?.includes('project')) suggestion.project = null;
  await deed.change(recording, {
    suggestion,
    ...(body.appointmentId !== undefined ? { appointment } : {}),
    ...(body.title !== undefined ? { title: body.title || null } : {}),
    ...(body.folderId !== undefined ? { folderId: body.folderId } : {}),
    ...(body.project !== undefined ? { projectId: await projectId(body.project, deed) } : {}),
    ...(body.kind !== undefined ? { chosenKind: body.kind } : {}),
    ...(body.voice !== undefined ? { voice: body.voice } : {}),
    ...(body.isFiled !== undefined ? { filedAt: body.isFiled ? (recording.filedAt ?? new Date()) : null } : {}),
    ...(body.isFavourite !== undefined ? { isFavourite: body.isFavourite } : {}),
    ...(body.isArchived !== undefined
      ? { archivedAt: body.isArchived ? (recording.archivedAt ?? new Date()) : null }
      : {}),
    ...(body.isBinned !== undefined ? { binnedAt: body.isBinned ? new Date() : null } : {}),
  });
  if (body.isDictation !== undefined) await setDictation(recording, body.isDictation, deed.transaction);
  if (body.tags) await setTags(recording.id, body.tags.map(String), deed);
  if (body.people) await setPeople(recording.id, body.people.map(String), deed);
}

/** What a change did, in the words of the bar that offers the way back. */
export async function describeChange(recording: Recording, body: RecordingChange, wasFiled: boolean): Promise<string> {
  const title = `“${titleOf(recording)}”`;
  if (body.isBinned === true) return `${title} is in the bin for 30 days.`;
  if (body.isBinned === false) return `${title} is restored.`;
  if (body.isArchived !== undefined)
    return body.isArchived ? `${title} is in the archive.` : `${title} is no longer in the archive.`;
  if (body.isFavourite !== undefined)
    return body.isFavourite ? `${title} is a favourite.` : `${title} is no longer a favourite.`;
  if (body.isFiled === true && !wasFiled) return `${title} is filed.`;
  if (body.isFiled === false) return `${title} is back in the tray.`;
  if (body.folderId !== undefined) {
    const folder = body.folderId ? await Folder.findByPk(body.folderId) : null;
    return folder ? `${title} is in ${folder.name}.` : `${title} is no longer in a folder.`;
  }
  if (body.title !== undefined) return `The title is now ${title}.`;
  if (body.kind !== undefined || body.voice !== undefined) return `${title} was read again, and its to-dos with it.`;
  if (body.tags) return `The tags of ${title} were changed.`;
  if (body.people) return `The people of ${title} were changed.`;
  if (body.project !== undefined) return `The project of ${title} was changed.`;
  return `${title} was changed.`;
}

/** Filed on another device meanwhile, what was given there stays beside what is given now. */
export async function mergeFiling(
  recording: Recording,
  change: RecordingChange,
  deed: ChangeSet,
): Promise<RecordingChange> {
  if (!recording.filedAt) return change;
  const { tags, people } = await namesOf(recording, deed);
  return {
    ...change,
    ...(change.tags ? { tags: [...tags, ...change.tags] } : {}),
    ...(change.people ? { people: [...people, ...change.people] } : {}),
  };
}

export async function namesOf({ id }: Recording, deed: ChangeSet): Promise<{ tags: string[]; people: string[] }> {
  const { transaction } = deed;
  const tags = await Tag.findAll({ where: { id: await linked(RecordingTag, id, 'tagId', deed) }, transaction });
  const people = await Person.findAll({
    where: { id: await linked(RecordingPerson, id, 'personId', deed) },
    transaction,
  });
  return { tags: tags.map((t) => t.name), people: people.map((p) => p.name) };
}

/** Files a recording as it is suggested, with what the person gave it already. */
export async function fileAsSuggested(recording: Recording, deed: ChangeSet): Promise<void> {
  const { suggestion } = recording;
  const { transaction } = deed;
  const { tags, people } = await namesOf(recording, deed);
  const project = recording.projectId ? await Project.findByPk(recording.projectId, { transaction }) : null;
  const wanted = recording.folderId ?? suggestion.folderId ?? (await sharedSettings()).defaultFolderId;
  // The folder may have been removed since it was suggested.
  const folder = wanted ? await Folder.findOne({ where: { id: wanted, binnedAt: null }, transaction }) : null;
  await changeRecording(
    recording,
    {
      title: recording.title ?? suggestion.title,
      folderId: folder?.id ?? null,
      tags: [...tags, ...suggestion.tags],
      people: [...people, ...(suggestion.people ?? [])],
      project: project?.name ?? suggestion.project ?? null,
      isFiled: true,
    },
    deed,
  );
  for (const todo of await TodoRow.findAll({
    where: { recordingId: recording.id, state: 'pencil', binnedAt: null },
    transaction,
  })) {
    if (!isUnsure(todo)) await deed.change(todo, { state: 'ink' });
  }
}

async function linked(
  table: typeof RecordingTag | typeof RecordingPerson,
  recordingId: string,
  column: 'tagId' | 'personId',
  { transaction }: ChangeSet,
): Promise<string[]> {
  const rows = await (table as typeof RecordingTag).findAll({ where: { recordingId }, transaction });
  return rows.map((r) => r.get(column) as string);
}
