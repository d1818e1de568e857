import { MAX_RECORDINGS_TOGETHER, type Scope } from '@immeld/core/contract/scope';
import { dayInWords } from '@immeld/core/formats/times';
import { Problem } from '@immeld/core/contract/problem';
import { Op, type WhereOptions } from 'sequelize';
import { Folder } from '../models/folder';
import { Person, RecordingPerson } from '../models/person';
import { Project } from '../models/project';
import { Recording } from '../models/recording';
import { RecordingTag, Tag } from '../models/tag';

/** Ids of the recordings with a tag. */
async function taggedWith(name: string): Promise<string[]> {
  const tag = await Tag.findOne({ where: { name } });
  return tag ? (await RecordingTag.findAll({ where: { tagId: tag.id } })).map((l) => l.recordingId) : [];
}

/** Ids of the recordings that somebody speaks or is named in. */
const withPerson = async (personId: string): Promise<string[]> =>
  (await RecordingPerson.findAll({ where: { personId } })).map((l) => l.recordingId);

/** A folder with all that lie inside it. */
async function withInner(folderId: string): Promise<string[]> {
  const folders = await Folder.findAll({ where: { binnedAt: null } });
  const ids = [folderId];
  for (const id of ids) ids.push(...folders.filter((f) => f.parentId === id).map((f) => f.id));
  return ids;
}

/**
 * The recordings of a scope that have words, oldest first.
 * @throws Problem where there are none, or more than can be taken together
 */
export async function recordingsIn(scope: Scope): Promise<Recording[]> {
  const { recordingIds, folderId, tag, personId, projectId, from, to } = scope;
  const among: string[][] = [];
  if (recordingIds) among.push(recordingIds);
  if (tag !== undefined) among.push(await taggedWith(tag));
  if (personId) among.push(await withPerson(personId));
  const [first, ...others] = among;
  const ids = first?.filter((id) => others.every((list) => list.includes(id)));
  const where: WhereOptions & Record<string, unknown> = { binnedAt: null, state: 'ready' };
  if (ids) where['id'] = ids;
  if (folderId) where['folderId'] = await withInner(folderId);
  if (projectId) where['projectId'] = projectId;
  if (from ?? to) {
    where['startedAt'] = { ...(from ? { [Op.gte]: from } : {}), ...(to ? { [Op.lte]: `${to}T99` } : {}) };
  }
  const count = await Recording.count({ where });
  if (count > MAX_RECORDINGS_TOGETHER) {
    throw new Problem(
      'invalid-request',
      `These are ${count} recordings. A write-up can cover at most ${MAX_RECORDINGS_TOGETHER}. Choose a shorter period.`,
    );
  }
  return Recording.findAll({ where, order: [['startedAt', 'ASC']] });
}

/** What the recordings of a scope have in common, in words: "Quayside limes, 9 March 2026 to 15 March 2026". */
export async function titleOfScope(scope: Scope): Promise<string> {
  const { recordingIds, folderId, tag, personId, projectId, from, to } = scope;
  const rows = await Promise.all([
    folderId ? Folder.findByPk(folderId) : null,
    projectId ? Project.findByPk(projectId) : null,
    personId ? Person.findByPk(personId) : null,
  ]);
  const span = spanInWords(from && dayInWords(from), to && dayInWords(to));
  const parts = [
    ...rows.map((row) => row?.name),
    tag === undefined ? null : `tag ${tag}`,
    recordingIds ? `${recordingIds.length} ${recordingIds.length === 1 ? 'recording' : 'recordings'}` : null,
    span,
  ];
  const title = parts.filter(Boolean).join(', ');
  return title ? title.charAt(0).toUpperCase() + title.slice(1) : 'Everything';
}

function spanInWords(from: string | undefined, to: string | undefined): string | null {
  if (from && to) return from === to ? from : `${from} to ${to}`;
  if (from) return `since ${from}`;
  return to ? `until ${to}` : null;
}
