import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { Router, raw } from 'express';
import { randomUUID } from 'node:crypto';
import { Op, type Sequelize, type WhereOptions } from 'sequelize';
import { versionOf } from '../filing/noteHistory';
import { addQuickWords, addQuotation, changeNote, writeBody } from '../filing/notes';
import { checkFolder, isBinned, notBinned } from '../filing/shelving';
import type { FindDatabase } from '../find/reader';
import { relatedToNote } from '../find/relatedItems';
import { recordChanges } from '../history/changeSets';
import { NoteRow, NoteTag, titleOfNote } from '../models/note';
import { NotePictureRow, NoteVersionRow } from '../models/noteHistory';
import { Recording, titleOf } from '../models/recording';
import { Tag } from '../models/tag';
import { MAX_PICTURE_SIZE, keepPicture, sendPicture } from '../storage/pictures';
import type { SoundStore } from '../storage/soundStore';
import { NOTE_INCLUDES, noteCard, noteView } from '../views/noteView';
import { serve } from './serve';

const notFound = () => new Problem('not-found', 'This note no longer exists.');
const MAX_NOTES = 500;
const MAX_TARGETS = 8;

export function noteRoutes(database: Sequelize, reader: FindDatabase, sounds: SoundStore): Router {
  const router = Router();

  const answer = async (id: string) => {
    const view = await noteView(id);
    if (!view) throw notFound();
    return view;
  };

  serve(router, ENDPOINTS.listNotes, async ({ query }) => {
    const where: WhereOptions & Record<string, unknown> = query.place === 'bin' ? { ...isBinned } : { ...notBinned };
    if (query.place === 'archive') where['archivedAt'] = { [Op.ne]: null };
    else if (query.place !== 'bin') where['archivedAt'] = null;
    if (query.place === 'favourites') where['isFavourite'] = true;
    if (query.folderId) where['folderId'] = query.folderId;
    if (query.titled) where['title'] = { [Op.like]: `%${query.titled.replace(/[%_]/g, ' ')}%` };
    if (query.tag) {
      const tag = await Tag.findOne({ where: { name: query.tag } });
      where['id'] = tag ? (await NoteTag.findAll({ where: { tagId: tag.id } })).map((l) => l.noteId) : [];
    }
    const rows = await NoteRow.findAll({
      where,
      include: NOTE_INCLUDES,
      order: [['updatedAt', 'DESC']],
      limit: MAX_NOTES,
    });
    return { items: rows.map(noteCard) };
  });

  serve(router, ENDPOINTS.addNote, async ({ body }) => {
    await checkFolder(body.folderId);
    const note = await database.transaction(async (transaction) => {
      const known = body.id && (await NoteRow.findByPk(body.id, { transaction }));
      if (known) return known;
      const row = await NoteRow.create(
        { ...(body.id ? { id: body.id } : {}), title: body.title, folderId: body.folderId ?? null },
        { transaction },
      );
      if (body.body) await writeBody(row, body.body, transaction);
      return row;
    });
    return answer(note.id);
  });

  serve(router, ENDPOINTS.getNote, ({ params }) => answer(params.id));

  serve(router, ENDPOINTS.changeNote, async ({ params, body }) => {
    await checkFolder(body.folderId);
    await recordChanges(database, async (deed) => {
      const note = await NoteRow.findByPk(params.id, { transaction: deed.transaction });
      if (!note) throw notFound();
      await changeNote(note, body, deed);
      const name = `“${titleOfNote(note)}”`;
      const text =
        body.isBinned !== undefined
          ? `${name} is ${body.isBinned ? 'in the bin for 30 days' : 'restored'}.`
          : body.isArchived !== undefined
            ? `${name} is ${body.isArchived ? 'in' : 'no longer in'} the archive.`
            : `${name} was changed.`;
      return { text, count: 1 };
    });
    return answer(params.id);
  });

  const find = async (id: string): Promise<NoteRow> => {
    const note = await NoteRow.findByPk(id);
    if (!note) throw notFound();
    return note;
  };
  serve(router, ENDPOINTS.quoteInNote, async ({ params, body }) => {
    const note = await find(params.id);
    if (!(await Recording.count({ where: { id: body.recordingId } }))) {
      throw new Problem('not-found', 'This recording no longer exists.');
    }
    await database.transaction((transaction) => addQuotation(note, body, transaction));
    return answer(note.id);
  });
  serve(router, ENDPOINTS.listNoteVersions, async ({ params }) => {
    const { id: noteId } = await find(params.id);
    const rows = await NoteVersionRow.findAll({
      where: { noteId },
      attributes: ['id', 'text', 'createdAt'],
      order: [['createdAt', 'DESC']],
    });
    return {
      items: rows.map((v) => ({
        ...{ id: v.id, until: v.createdAt.toISOString() },
        words: v.text.split(/\s+/).filter(Boolean).length,
      })),
    };
  });
  serve(router, ENDPOINTS.getNoteVersion, async ({ params }) => ({
    body: (await versionOf(params.id, params.versionId)).body,
  }));
  serve(router, ENDPOINTS.takeNoteVersion, async ({ params }) => {
    const [note, { body }] = [await find(params.id), await versionOf(params.id, params.versionId)];
    if (body) await database.transaction((transaction) => writeBody(note, body, transaction, true));
    return answer(note.id);
  });
  router.use(ENDPOINTS.addNotePicture.path, raw({ type: () => true, limit: MAX_PICTURE_SIZE }));
  serve(router, ENDPOINTS.addNotePicture, async ({ params, request }) => {
    const { id: noteId } = await find(params.id);
    const id = randomUUID();
    const file = await keepPicture(sounds, id, request.body);
    await NotePictureRow.create({ id, noteId, file });
    return { id };
  });
  serve(router, ENDPOINTS.getNotePicture, async ({ params, response }) => {
    const picture = await NotePictureRow.findByPk(params.id);
    await sendPicture(sounds, picture?.file ?? null, response);
  });

  serve(router, ENDPOINTS.getRelatedToNote, async ({ params }) => {
    const items = await relatedToNote(reader, params.id);
    if (!items) throw notFound();
    return { items };
  });

  serve(router, ENDPOINTS.addQuickWords, async ({ params, body }) => {
    const note = await database.transaction((t) => addQuickWords(params.date, body.at, body.text, t));
    return answer(note.id);
  });

  serve(router, ENDPOINTS.listLinkTargets, async ({ query }) => {
    const words = query.q.trim().replace(/[%_]/g, ' ').split(/\s+/).filter(Boolean);
    const like = (text: string) => `%${text}%`;
    const shown = `coalesce(title, json_extract(suggestion, '$.title'), file_name)`;
    const recordings = await Recording.findAll({
      where: {
        binnedAt: null,
        [Op.and]: words.map((w) => database.where(database.literal(shown), { [Op.like]: like(w) })),
      },
      order: [['startedAt', 'DESC']],
      limit: MAX_TARGETS,
    });
    const notes = await NoteRow.findAll({
      where: { binnedAt: null, day: null, [Op.and]: words.map((w) => ({ title: { [Op.like]: like(w) } })) },
      order: [['updatedAt', 'DESC']],
      limit: MAX_TARGETS,
    });
    return {
      items: [
        ...recordings.map((r) => ({ kind: 'recording' as const, id: r.id, title: titleOf(r) })),
        ...notes.map((n) => ({ kind: 'note' as const, id: n.id, title: titleOfNote(n) })),
      ].slice(0, MAX_TARGETS),
    };
  });

  return router;
}
