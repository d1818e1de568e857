import type { FindFilters, HasFilter } from '@immeld/core/find/query';
import { isSameName } from '@immeld/core/filing/sameName';
import { Op } from 'sequelize';
import { withFoldersInside } from '../filing/shelving';
import { Folder } from '../models/folder';
import { NoteRow, NoteTag } from '../models/note';
import { Person, RecordingPerson } from '../models/person';
import { PassageRow } from '../models/passage';
import { Recording } from '../models/recording';
import { SlipRow } from '../models/slip';
import { RecordingTag, Tag } from '../models/tag';
import { TodoRow } from '../models/todo';

/** Which recordings and notes a set of filters leaves. */
export type Allowed = { recordings: ReadonlySet<string>; notes: ReadonlySet<string> };

/** People by one of their names, or by the first part of it. */
async function peopleCalled(name: string): Promise<Person[]> {
  return (await Person.findAll()).filter((p) =>
    [p.name, p.name.split(/\s+/)[0]!, ...p.otherNames].some((n) => isSameName(n, name)),
  );
}

async function recordingsWith(kind: HasFilter): Promise<string[]> {
  const ids = (rows: { recordingId: string | null }[]) => rows.flatMap((r) => r.recordingId ?? []);
  if (kind === 'todo') {
    return ids(
      await TodoRow.findAll({ where: { binnedAt: null, state: { [Op.ne]: 'dropped' } }, attributes: ['recordingId'] }),
    );
  }
  const slips = {
    mark: { kind: 'mark' },
    note: { kind: 'note' },
    file: { kind: 'file' },
    picture: { pictureFile: { [Op.ne]: null } },
  };
  return ids(await SlipRow.findAll({ where: { binnedAt: null, ...slips[kind] }, attributes: ['recordingId'] }));
}

/** What is left when all filters are taken together. */
export async function allowedBy(filters: FindFilters): Promise<Allowed> {
  const when = [
    ...(filters.after ? [{ startedAt: { [Op.gte]: filters.after } }] : []),
    ...(filters.before ? [{ startedAt: { [Op.lt]: filters.before } }] : []),
  ];
  let recordings = new Set(
    (await Recording.findAll({ where: { binnedAt: null, [Op.and]: when }, attributes: ['id'] })).map((r) => r.id),
  );
  const changed = [
    ...(filters.after ? [{ updatedAt: { [Op.gte]: new Date(filters.after) } }] : []),
    ...(filters.before ? [{ updatedAt: { [Op.lt]: new Date(filters.before) } }] : []),
  ];
  let notes = new Set(
    (await NoteRow.findAll({ where: { binnedAt: null, [Op.and]: changed }, attributes: ['id'] })).map((n) => n.id),
  );
  const keep = (recordingIds: Iterable<string>, noteIds: Iterable<string> = []) => {
    const [r, n] = [new Set(recordingIds), new Set(noteIds)];
    recordings = new Set([...recordings].filter((id) => r.has(id)));
    notes = new Set([...notes].filter((id) => n.has(id)));
  };
  for (const name of filters.people) {
    const people = await peopleCalled(name);
    const links = await RecordingPerson.findAll({ where: { personId: people.map((p) => p.id) } });
    const spoken = await PassageRow.findAll({
      where: { speaker: [name, ...people.map((p) => p.name)] },
      attributes: ['recordingId'],
      group: 'recordingId',
    });
    keep([...links, ...spoken].map((l) => l.recordingId));
  }
  for (const name of filters.tags) {
    const tagId = (await Tag.findAll()).filter((t) => isSameName(t.name, name)).map((t) => t.id);
    const onNotes = await NoteTag.findAll({ where: { tagId } });
    keep(
      (await RecordingTag.findAll({ where: { tagId } })).map((l) => l.recordingId),
      onNotes.map((l) => l.noteId),
    );
  }
  for (const name of filters.folders) {
    const folders = (await Folder.findAll({ where: { binnedAt: null } })).filter((f) => isSameName(f.name, name));
    const folderId = await withFoldersInside(folders.map((f) => f.id));
    keep(
      (await Recording.findAll({ where: { folderId }, attributes: ['id'] })).map((r) => r.id),
      (await NoteRow.findAll({ where: { folderId }, attributes: ['id'] })).map((n) => n.id),
    );
  }
  for (const kind of filters.has) keep(await recordingsWith(kind));
  return { recordings, notes };
}
