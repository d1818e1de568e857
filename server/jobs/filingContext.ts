import type { FilingContext } from '@immeld/core/filing/proposals';
import { Op } from 'sequelize';
import { Folder } from '../models/folder';
import { PassageRow } from '../models/passage';
import { Project } from '../models/project';
import { Recording } from '../models/recording';
import { Tag } from '../models/tag';

const MOST_EXAMPLES = 300;
const EXAMPLE_PASSAGES = 12;

/** What the proposals for a recording may learn from: the newest filed recordings, folders, tags and projects. */
export async function filingContextFor(recording: Recording): Promise<FilingContext> {
  const filed = await Recording.findAll({
    where: { filedAt: { [Op.ne]: null }, binnedAt: null, id: { [Op.ne]: recording.id } },
    order: [['filedAt', 'DESC']],
    limit: MOST_EXAMPLES,
    include: { model: Tag, as: 'tags' },
  });
  const passages = await PassageRow.findAll({
    where: { recordingId: filed.map((r) => r.id), position: { [Op.lt]: EXAMPLE_PASSAGES } },
    attributes: ['recordingId', 'text'],
  });
  const texts = new Map<string, string>();
  for (const p of passages) texts.set(p.recordingId, `${texts.get(p.recordingId) ?? ''} ${p.text}`);
  const [folders, tags, projects] = await Promise.all([
    Folder.findAll({ where: { binnedAt: null } }),
    Tag.findAll(),
    Project.findAll(),
  ]);
  const otherNames = new Map(projects.map((p) => [p.name.toLowerCase(), p.otherNames]));
  return {
    startedAt: recording.startedAt,
    filed: filed.map((r) => ({
      text: `${r.title ?? ''} ${texts.get(r.id) ?? ''}`,
      folderId: r.folderId,
      tags: (r.tags ?? []).map((t) => t.name),
    })),
    folders: folders.map((f) => ({ id: f.id, name: f.name, otherNames: otherNames.get(f.name.toLowerCase()) ?? [] })),
    tags: tags.map((t) => t.name),
    projects: projects.map((p) => ({ name: p.name, otherNames: p.otherNames })),
  };
}
