import type { FilingContext } from '@immeld/core/filing/proposals';
import { Op } from 'sequelize';
import { Folder } from '../models/folder';
import { Person } from '../models/person';
import { PassageRow } from '../models/passage';
import { Project } from '../models/project';
import { Recording } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { Tag } from '../models/tag';
import { talkOf } from '../todos/saveFoundTodos';

const MAX_EXAMPLES = 300;
const EXAMPLE_PASSAGES = 12;

/** What the proposals for a recording may learn from: the newest filed recordings, folders, tags and projects. */
export async function filingContextFor(recording: Recording): Promise<FilingContext> {
  const filed = await Recording.findAll({
    where: { filedAt: { [Op.ne]: null }, binnedAt: null, id: { [Op.ne]: recording.id } },
    order: [['filedAt', 'DESC']],
    limit: MAX_EXAMPLES,
    include: [
      { model: Tag, as: 'tags' },
      { model: Person, as: 'people' },
      { model: Project, as: 'project' },
    ],
  });
  const passages = await PassageRow.findAll({
    where: { recordingId: filed.map((r) => r.id), position: { [Op.lt]: EXAMPLE_PASSAGES } },
    attributes: ['recordingId', 'text'],
  });
  const texts = new Map<string, string>();
  for (const p of passages) texts.set(p.recordingId, `${texts.get(p.recordingId) ?? ''} ${p.text}`);
  const [folders, tags, projects, people] = await Promise.all([
    Folder.findAll({ where: { binnedAt: null } }),
    Tag.findAll(),
    Project.findAll(),
    Person.findAll(),
  ]);
  const otherNames = new Map(projects.map((p) => [p.name.toLowerCase(), p.otherNames]));
  return {
    ...circumstancesOf(recording),
    people: recording.appointment?.people ?? [],
    ownName: (await sharedSettings()).ownName,
    ...talkOf(recording),
    knownPeople: people.map(({ name, otherNames }) => ({ name, otherNames })),
    filed: filed.map((r) => ({
      ...circumstancesOf(r),
      people: (r.people ?? []).map((p) => p.name),
      project: r.project?.name ?? null,
      text: `${r.title ?? ''} ${texts.get(r.id) ?? ''}`,
      folderId: r.folderId,
      tags: (r.tags ?? []).map((t) => t.name),
    })),
    folders: folders.map((f) => ({ id: f.id, name: f.name, otherNames: otherNames.get(f.name.toLowerCase()) ?? [] })),
    tags: tags.map((t) => t.name),
    projects: projects.map((p) => ({ name: p.name, otherNames: p.otherNames })),
  };
}

const circumstancesOf = ({ startedAt, source, appointment, place }: Recording) => ({
  ...{ startedAt, source, appointment: appointment?.title ?? null, place: place ?? null },
});
