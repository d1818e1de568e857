import type { RecordingKind } from '@immeld/core/contract/settings';
import type { Template } from '@immeld/core/contract/templates';
import { SHIPPED_TEMPLATES } from '@immeld/core/writeup/shippedTemplates';
import { PassageRow } from '../models/passage';
import type { Recording } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { SheetRow, TemplateRow } from '../models/sheet';
import { remakeSheet, sectionsOf } from './sheets';

/** From here on one voice alone is a talk and no memo. Common practice, no source. */
const LONG_TALK_MS = 15 * 60_000;

async function kindOf({ id, appointment, durationMs }: Recording): Promise<RecordingKind> {
  if (appointment) return 'appointment';
  const speakers = await PassageRow.count({ where: { recordingId: id }, distinct: true, col: 'speaker' });
  if (speakers > 1) return 'conversation';
  return (durationMs ?? 0) >= LONG_TALK_MS ? 'long talk' : 'memo';
}

const templateBy = async (id: string): Promise<Template | null> =>
  SHIPPED_TEMPLATES.get(id) ?? (await TemplateRow.findByPk(id))?.template ?? null;

/** Makes the write-up that is usual for the folder or kind of a recording, once. */
export async function makeUsualWriteUp(recording: Recording): Promise<void> {
  const { usualWriteUps } = await sharedSettings();
  if (usualWriteUps.length === 0 || recording.state !== 'ready') return;
  const ofFolder = usualWriteUps.find((u) => u.folderId && u.folderId === recording.folderId);
  const kind = ofFolder ? null : await kindOf(recording);
  const usual = ofFolder ?? usualWriteUps.find((u) => u.kind && u.kind === kind);
  if (!usual || recording.usualWriteUps.includes(usual.templateId)) return;
  const template = await templateBy(usual.templateId);
  if (!template) return;
  await recording.update({ usualWriteUps: [...recording.usualWriteUps, usual.templateId] });
  const there = await SheetRow.findAll({ where: { recordingId: recording.id } });
  if (there.some((s) => s.template.name === template.name)) return;
  const sections = await sectionsOf(recording.id, template);
  if (sections.length) await SheetRow.create({ recordingId: recording.id, template, sections });
}

/** After a recording was recognised: what is in pencil goes by the new words, and what is usual is made. */
export async function writeUpAfterRecognition(recording: Recording): Promise<void> {
  for (const sheet of await SheetRow.findAll({ where: { recordingId: recording.id, isByModel: false } })) {
    const kept = sheet.sections.flatMap((s, at) => (s.isKept ? [at] : []));
    await remakeSheet(sheet, sheet.template, kept);
  }
  await makeUsualWriteUp(recording);
}
