import type { Scope } from '@immeld/core/contract/scope';
import { Problem } from '@immeld/core/contract/problem';
import type { MadeSection, Template } from '@immeld/core/contract/templates';
import type { Source } from '@immeld/core/writeup/makeWriteUp';
import { Op } from 'sequelize';
import { Project } from '../models/project';
import { Recording, titleOf } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { SheetRow } from '../models/sheet';
import { SlipRow } from '../models/slip';
import { TodoRow } from '../models/todo';
import { readPassages } from '../transcript/readPassages';
import { longTasks } from '../tasks/taskPool';
import { recordingsIn } from './scope';

async function sourceOf(recordingId: string): Promise<Source> {
  const [recording, passages, slips, todos] = await Promise.all([
    Recording.findByPk(recordingId, { include: { model: Project, as: 'project' } }),
    readPassages(recordingId),
    SlipRow.findAll({ where: { recordingId, binnedAt: null }, order: [['startMs', 'ASC']] }),
    TodoRow.findAll({ where: { recordingId, binnedAt: null, state: { [Op.ne]: 'dropped' } } }),
  ]);
  // Where nothing that was said names a project, it is that of the recording, as on the list of to-dos.
  const usual = todos.some((t) => t.project) ? null : (recording?.project?.name ?? null);
  return {
    passages,
    slips: slips.map(({ kind, mark, startMs, endMs, text }) => ({ kind, mark, startMs, endMs, text })),
    todos: todos.map(({ id, text, who, due, project, startMs, doneAt }) => ({
      ...{ id, text, who, due, project: project ?? usual, startMs, isDone: doneAt !== null },
    })),
  };
}

const figures = async () => (await sharedSettings()).figures;

/** What a template makes of a recording as it is now. */
export const sectionsOf = async (recordingId: string, template: Template): Promise<MadeSection[]> =>
  longTasks.run({ kind: 'write-up', template, source: await sourceOf(recordingId), figures: await figures() });

/** What a template makes of several recordings. Throws Problem where there are none or too many. */
export async function sectionsOfScope(scope: Scope, template: Template): Promise<MadeSection[]> {
  const recordings = await recordingsIn(scope);
  if (recordings.length === 0) throw new Problem('invalid-request', 'None of these recordings is transcribed yet.');
  const several = [];
  for (const recording of recordings) {
    several.push({ ...(await sourceOf(recording.id)), recordingId: recording.id, title: titleOf(recording) });
  }
  return longTasks.run({ kind: 'several', template, sources: several, figures: await figures() });
}

/** Keeps a write-up in pencil; the same template made again takes the place of the one before. */
export async function saveWriteUpAsNote(
  recordingId: string,
  template: Template,
  sections: MadeSection[],
  isByModel = false,
): Promise<SheetRow> {
  const before = await SheetRow.findAll({ where: { recordingId } });
  const same = before.filter((s) => s.template.name === template.name);
  await SheetRow.destroy({ where: { id: same.map((s) => s.id) } });
  return SheetRow.create({ recordingId, template, sections, isByModel });
}

/** Makes a write-up again; the sections whose numbers are given stay as they are, in their places. */
export async function remakeSheet(
  sheet: SheetRow,
  template: Template,
  keptNow: readonly number[] = [],
): Promise<SheetRow> {
  const { recordingId, scope, sections: before } = sheet;
  const fresh = recordingId ? await sectionsOf(recordingId, template) : await sectionsOfScope(scope ?? {}, template);
  const kept = before.flatMap((section, at) => (keptNow.includes(at) ? [{ at, section }] : []));
  const sections = fresh.filter((f) => !kept.some(({ section }) => section.heading === f.heading));
  for (const { at, section } of kept) sections.splice(at, 0, { ...section, isKept: true });
  return sheet.update({ template, sections, isByModel: false });
}
