import type { NamedChange } from '@immeld/core/contract/shelves';
import { foldCase, isSameName } from '@immeld/core/filing/sameName';
import { Problem } from '@immeld/core/contract/problem';
import { type Model, type ModelStatic, Op, type Transaction } from 'sequelize';
import type { ChangeSet } from '../history/changeSets';
import { Folder } from '../models/folder';
import { NoteTag } from '../models/note';
import { Person, RecordingPerson } from '../models/person';
import { Project } from '../models/project';
import { Recording } from '../models/recording';
import { RecordingTag, Tag } from '../models/tag';
import { TodoRow } from '../models/todo';

/** The row of this name, whatever its capitals. The database knows capitals of the Latin alphabet only. */
async function named<M extends Model>(
  model: ModelStatic<M>,
  name: string,
  transaction: Transaction,
): Promise<M | null> {
  const rows = await model.findAll({ attributes: ['id', 'name'], raw: true, transaction });
  const same = (rows as unknown as { id: string; name: string }[]).find((row) => isSameName(row.name, name));
  return same ? model.findByPk(same.id, { transaction }) : null;
}

const eachOnce = (names: readonly string[]): string[] => [
  ...new Map(names.map((n) => [foldCase(n), n.trim()])).values(),
];

export const findOrCreateTag = (name: string, transaction: Transaction) => named(Tag, name, transaction);

async function idsOf(
  model: ModelStatic<Tag> | ModelStatic<Person> | ModelStatic<Project>,
  names: readonly string[],
  deed: ChangeSet,
  more: object = {},
): Promise<string[]> {
  const ids: string[] = [];
  for (const name of eachOnce(names)) {
    const rows = model as ModelStatic<Tag>;
    const row = (await named(rows, name, deed.transaction)) ?? (await deed.create(rows, { name, ...more }));
    ids.push(row.id);
  }
  return ids;
}

type LinkTable = typeof RecordingTag | typeof RecordingPerson | typeof NoteTag;

/** Gives something exactly these links; one that is there already stays. */
async function setLinks(
  table: LinkTable,
  owner: Record<string, string>,
  other: string,
  ids: readonly string[],
  deed: ChangeSet,
) {
  const rows: Model[] = await (table as ModelStatic<Model>).findAll({ where: owner, transaction: deed.transaction });
  for (const row of rows) if (!ids.includes(row.get(other) as string)) await deed.destroy(row);
  const there = rows.map((r) => r.get(other));
  for (const id of ids)
    if (!there.includes(id)) await deed.create(table as ModelStatic<Model>, { ...owner, [other]: id });
}

/** Gives a recording exactly these tags, making those that are new; case does not tell two tags apart. */
export async function setTags(recordingId: string, names: readonly string[], deed: ChangeSet): Promise<void> {
  await setLinks(RecordingTag, { recordingId }, 'tagId', await idsOf(Tag, names, deed), deed);
}

export async function setNoteTags(noteId: string, names: readonly string[], deed: ChangeSet): Promise<void> {
  await setLinks(NoteTag, { noteId }, 'tagId', await idsOf(Tag, names, deed), deed);
}

export async function setPeople(recordingId: string, names: readonly string[], deed: ChangeSet): Promise<void> {
  await setLinks(
    RecordingPerson,
    { recordingId },
    'personId',
    await idsOf(Person, names, deed, { otherNames: [] }),
    deed,
  );
}

/** The id of the project of this name, made if it is new; null for none. */
export async function projectId(name: string | null, deed: ChangeSet): Promise<string | null> {
  if (!name?.trim()) return null;
  return (await idsOf(Project, [name], deed, { otherNames: [] }))[0]!;
}

export async function checkFolder(folderId: string | null | undefined): Promise<void> {
  if (folderId && !(await Folder.count({ where: { id: folderId, binnedAt: null } }))) {
    throw new Problem('invalid-request', 'This folder no longer exists. Choose another one.');
  }
}

/** A folder inside itself could never be reached again. */
export async function checkParent(id: string | null, parentId: string | null | undefined): Promise<void> {
  for (let at = parentId ?? null; at;) {
    if (at === id) throw new Problem('invalid-request', 'A folder cannot be inside itself.');
    const parent: Folder | null = await Folder.findByPk(at);
    if (!parent)
      throw new Problem('invalid-request', 'The folder you want to move into no longer exists. Choose another one.');
    at = parent.parentId;
  }
}

/** Folders of one parent in order of hand, then of name. */
export const neighboursOf = (parentId: string | null, transaction?: Transaction): Promise<Folder[]> =>
  Folder.findAll({
    where: { parentId, binnedAt: null },
    order: [
      ['position', 'ASC'],
      ['name', 'ASC'],
    ],
    ...(transaction ? { transaction } : {}),
  });

/** Puts a folder at a place among its neighbours and counts them anew. */
export async function putInOrder(folder: Folder, position: number, deed: ChangeSet): Promise<void> {
  const others = (await neighboursOf(folder.parentId, deed.transaction)).filter((f) => f.id !== folder.id);
  others.splice(Math.min(position, others.length), 0, folder);
  for (const [i, neighbour] of others.entries()) await deed.change(neighbour, { position: i });
}

/** Moves all links of one tag, person or project to another, and takes the first away. */
async function joinInto(
  from: Tag | Person,
  to: Tag | Person,
  table: LinkTable,
  column: string,
  deed: ChangeSet,
): Promise<void> {
  const links = table as ModelStatic<Model>;
  const mine = await links.findAll({ where: { [column]: from.id }, transaction: deed.transaction });
  const owner = table === NoteTag ? 'noteId' : 'recordingId';
  const theirs = new Set(
    (await links.findAll({ where: { [column]: to.id }, transaction: deed.transaction })).map((l) => l.get(owner)),
  );
  for (const link of mine) {
    await deed.destroy(link);
    if (!theirs.has(link.get(owner))) await deed.create(links, { [owner]: link.get(owner), [column]: to.id });
  }
}

/** Renames a tag; to a name that is there already, the two become one. */
export async function renameTag(tag: Tag, name: string, deed: ChangeSet): Promise<boolean> {
  const other = await named(Tag, name, deed.transaction);
  if (!other || other.id === tag.id) {
    await deed.change(tag, { name: name.trim() });
    return false;
  }
  await joinInto(tag, other, RecordingTag, 'tagId', deed);
  await joinInto(tag, other, NoteTag, 'tagId', deed);
  await deed.destroy(tag);
  return true;
}

export async function removeTag(tag: Tag, deed: ChangeSet): Promise<void> {
  for (const table of [RecordingTag, NoteTag] as ModelStatic<Model>[]) {
    for (const link of await table.findAll({ where: { tagId: tag.id }, transaction: deed.transaction })) {
      await deed.destroy(link);
    }
  }
  await deed.destroy(tag);
}

/** @returns what was done, in words */
export async function changePerson(person: Person, change: NamedChange, deed: ChangeSet): Promise<string> {
  const { transaction } = deed;
  if (change.isRemoved) {
    for (const link of await RecordingPerson.findAll({ where: { personId: person.id }, transaction }))
      await deed.destroy(link);
    await deed.destroy(person);
    return `${person.name} is removed from your people`;
  }
  const before = person.name;
  const other = change.name ? await named(Person, change.name, transaction) : null;
  if (other && other.id !== person.id) {
    await joinInto(person, other, RecordingPerson, 'personId', deed);
    await deed.change(other, { otherNames: [...new Set([...other.otherNames, before, ...person.otherNames])] });
    await deed.destroy(person);
    return `${before} and ${other.name} are merged`;
  }
  await deed.change(person, {
    ...(change.name ? { name: change.name } : {}),
    ...(change.otherNames ? { otherNames: eachOnce(change.otherNames) } : {}),
  });
  return change.name && change.name !== before
    ? `${before} is now called ${person.name}`
    : `${person.name}’s other names were changed`;
}

/** To-dos know their project by its name and follow it. @returns what was done, in words */
export async function changeProject(project: Project, change: NamedChange, deed: ChangeSet): Promise<string> {
  const { transaction } = deed;
  const before = project.name;
  const todos = await TodoRow.findAll({ where: { project: before }, transaction });
  const recordings = await Recording.findAll({ where: { projectId: project.id }, transaction });
  if (change.isRemoved) {
    for (const recording of recordings) await deed.change(recording, { projectId: null });
    await deed.destroy(project);
    return `The project “${before}” was removed`;
  }
  const other = change.name ? await named(Project, change.name, transaction) : null;
  if (other && other.id !== project.id) {
    for (const recording of recordings) await deed.change(recording, { projectId: other.id });
    for (const todo of todos) await deed.change(todo, { project: other.name });
    await deed.change(other, { otherNames: [...new Set([...other.otherNames, before, ...project.otherNames])] });
    await deed.destroy(project);
    return `“${before}” and “${other.name}” are merged`;
  }
  if (change.name && change.name !== before)
    for (const todo of todos) await deed.change(todo, { project: change.name });
  await deed.change(project, {
    ...(change.name ? { name: change.name } : {}),
    ...(change.otherNames ? { otherNames: eachOnce(change.otherNames) } : {}),
  });
  return change.name && change.name !== before
    ? `“${before}” is now called “${project.name}”`
    : `The other names of “${before}” were changed`;
}

/** Ids of a folder and of all that lie in it, however deep. */
export async function withFoldersInside(ids: readonly string[]): Promise<string[]> {
  const all = await Folder.findAll({ where: { binnedAt: null }, attributes: ['id', 'parentId'] });
  const found = new Set(ids);
  for (let size = 0; size !== found.size;) {
    size = found.size;
    for (const folder of all) if (folder.parentId && found.has(folder.parentId)) found.add(folder.id);
  }
  return [...found];
}

/** The newest recordings, those with one of these people if any is named. */
export async function newestWith(people: readonly string[], most: number): Promise<Recording[]> {
  const ids = people.length ? (await Person.findAll({ where: { name: [...people] } })).map((p) => p.id) : [];
  const links = people.length ? await RecordingPerson.findAll({ where: { personId: ids } }) : [];
  return Recording.findAll({
    attributes: ['id'],
    where: { binnedAt: null, ...(people.length ? { id: links.map((l) => l.recordingId) } : {}) },
    order: [['startedAt', 'DESC']],
    limit: most,
  });
}

export const notBinned = { binnedAt: null } as const;
export const isBinned = { binnedAt: { [Op.ne]: null } } as const;
