import { barsOf } from '@immeld/core/audio/peaks';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import type { KeptTemplate } from '@immeld/core/contract/templates';
import { withNumerals } from '@immeld/core/transcript/inverseTextNormalisation';
import { writeUpAsNote } from '@immeld/core/writeup/asNote';
import { SHIPPED_TEMPLATES } from '@immeld/core/writeup/shippedTemplates';
import { Router } from 'express';
import { isDeepStrictEqual } from 'node:util';
import type { Sequelize } from 'sequelize';
import { writeBody } from '../filing/notes';
import { recordChanges } from '../history/changeSets';
import { NoteRow } from '../models/note';
import { Recording, titleOf } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { SheetRow, TemplateRow } from '../models/sheet';
import { SlipRow } from '../models/slip';
import { TodoRow } from '../models/todo';
import { passagesJson } from '../transcript/readPassages';
import { longTasks } from '../tasks/taskPool';
import { recordingsIn, titleOfScope } from '../writeUps/scope';
import { saveWriteUpAsNote, remakeSheet, sectionsOf, sectionsOfScope } from '../writeUps/sheets';
import { sheetView } from '../views/sheetView';
import { serve } from './serve';

/** Bars of the strip that runs along a topic map. */
const MAP_BARS = 240;

const templateView = ({ id, template }: TemplateRow): KeptTemplate => ({ id, isShipped: false, template });

async function recordingBy(id: string): Promise<Recording> {
  const recording = await Recording.findByPk(id);
  if (!recording) throw new Problem('not-found', 'This recording no longer exists.');
  return recording;
}

async function sheetBy(id: string): Promise<SheetRow> {
  const sheet = await SheetRow.findByPk(id);
  if (!sheet) throw new Problem('not-found', 'This write-up no longer exists, or it is already saved as a note.');
  return sheet;
}

/** Templates, and the write-ups that are made by them. */
export function sheetRoutes(database: Sequelize): Router {
  const router = Router();

  serve(router, ENDPOINTS.listTemplates, async () => {
    const own = await TemplateRow.findAll({ order: [['name', 'ASC']] });
    const shipped = [...SHIPPED_TEMPLATES].map(([id, template]) => ({ id, isShipped: true, template }));
    return { items: [...own.map(templateView), ...shipped] };
  });
  serve(router, ENDPOINTS.addTemplate, async ({ body: { template } }) =>
    templateView(await TemplateRow.create({ name: template.name, template })),
  );
  serve(router, ENDPOINTS.changeTemplate, async ({ params, body }) => {
    const row = await TemplateRow.findByPk(params.id);
    if (!row)
      throw new Problem(
        'not-found',
        'This template is not one of yours. Copy a template that comes with Immeld to edit it.',
      );
    const { template, isRemoved } = body;
    return recordChanges(database, async (deed) => {
      if (isRemoved) await deed.destroy(row);
      else if (template) await deed.change(row, { name: template.name, template });
      return { text: `“${row.name}” was ${isRemoved ? 'removed' : 'changed'}.`, count: 1 };
    });
  });

  serve(router, ENDPOINTS.listParts, async ({ params }) => {
    const passages = await passagesJson((await recordingBy(params.id)).id);
    const parts = await longTasks.run({ kind: 'parts', passages });
    return { items: parts.map(({ title, startMs }) => ({ title, startMs })) };
  });
  serve(router, ENDPOINTS.getTopicMap, async ({ params }) => {
    const recording = await recordingBy(params.id);
    const [passages, slips, { figures }] = await Promise.all([
      passagesJson(recording.id),
      SlipRow.findAll({ where: { recordingId: recording.id, kind: 'heading', binnedAt: null } }),
      sharedSettings(),
    ]);
    const written = new Set(figures);
    const headings = slips.map(({ kind, text, startMs }) => ({ kind, text, startMs }));
    const { parts, terms } = await longTasks.run({ kind: 'map', passages, headings });
    const { peaks, durationMs } = recording;
    return {
      title: titleOf(recording),
      parts: parts.map((part) => ({
        ...part,
        points: part.points.map((point) => ({ ...point, text: withNumerals(point.text, written) })),
      })),
      terms,
      durationMs: durationMs ?? 0,
      peaks: peaks.length ? barsOf(peaks, MAP_BARS) : [],
    };
  });
  serve(router, ENDPOINTS.previewWriteUp, async ({ params, body }) => ({
    sections: await sectionsOf((await recordingBy(params.id)).id, body.template),
  }));
  serve(router, ENDPOINTS.listSheets, async ({ params }) => {
    const { id: recordingId } = await recordingBy(params.id);
    return { items: (await SheetRow.findAll({ where: { recordingId } })).map(sheetView) };
  });
  serve(router, ENDPOINTS.makeSheet, async ({ params, body: { template } }) => {
    const { id: recordingId } = await recordingBy(params.id);
    return sheetView(await saveWriteUpAsNote(recordingId, template, await sectionsOf(recordingId, template)));
  });
  serve(router, ENDPOINTS.changeSheet, async ({ params, body: { template, kept } }) =>
    sheetView(await remakeSheet(await sheetBy(params.id), template, kept)),
  );
  serve(router, ENDPOINTS.describeScope, async ({ body: { scope } }) => {
    const recordings = await recordingsIn(scope);
    return {
      title: await titleOfScope(scope),
      recordings: recordings.map((r) => ({ id: r.id, title: titleOf(r), startedAt: r.startedAt })),
    };
  });
  serve(router, ENDPOINTS.listSheetsOfSeveral, async () => ({
    items: (await SheetRow.findAll({ where: { recordingId: null } })).map(sheetView),
  }));
  serve(router, ENDPOINTS.makeSheetOfSeveral, async ({ body: { scope, template } }) => {
    const sections = await sectionsOfScope(scope, template);
    const same = (await SheetRow.findAll({ where: { recordingId: null } })).filter(
      (s) => s.template.name === template.name && isDeepStrictEqual(s.scope, scope),
    );
    await SheetRow.destroy({ where: { id: same.map((s) => s.id) } });
    return sheetView(await SheetRow.create({ recordingId: null, scope, template, sections }));
  });
  serve(router, ENDPOINTS.dropSheet, async ({ params }) => {
    const sheet = await sheetBy(params.id);
    return recordChanges(database, async (deed) => {
      await deed.destroy(sheet);
      return { text: `“${sheet.template.name}” was dropped.`, count: 1 };
    });
  });
  serve(router, ENDPOINTS.saveWriteUpAsNote, async ({ params, body: { acceptsTodos } }) => {
    const sheet = await sheetBy(params.id);
    const recording = sheet.recordingId ? await recordingBy(sheet.recordingId) : null;
    const of = recording ? titleOf(recording) : await titleOfScope(sheet.scope ?? {});
    let noteId = '';
    const done = await recordChanges(database, async (deed) => {
      const title = `${sheet.template.name}: ${of}`.slice(0, 200);
      const note = await deed.create(NoteRow, {
        title,
        folderId: recording?.folderId ?? sheet.scope?.folderId ?? null,
      });
      noteId = note.id;
      const todoIds = sheet.sections.flatMap((s) => s.groups.flatMap((g) => g.lines.flatMap((l) => l.todoId ?? [])));
      const todos = await TodoRow.findAll({ where: { id: todoIds }, transaction: deed.transaction });
      for (const todo of acceptsTodos ? todos : [])
        if (todo.state === 'pencil') await deed.change(todo, { state: 'ink' });
      const accepted = new Set(todos.filter((t) => t.state === 'ink').map((t) => t.id));
      const body = writeUpAsNote(sheet.sections, recording?.id ?? null, (todoId) => accepted.has(todoId));
      await writeBody(note, body, deed.transaction);
      await deed.destroy(sheet);
      return { text: `“${sheet.template.name}” is saved as a note.`, count: 1 };
    });
    return { noteId, done };
  });
  return router;
}
