import { isCleaning } from '@immeld/core/audio/cleaning/cleaner';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import type { RecordingSort } from '@immeld/core/contract/recordingLists';
import { FORMAT_TYPES } from '@immeld/core/formats/formats';
import { clockTime } from '@immeld/core/formats/times';
import { passagesToRead } from '@immeld/core/transcript/reading';
import { Router } from 'express';
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { Op, type Order, type Sequelize, type Transaction, type WhereOptions, literal } from 'sequelize';
import { changeMany } from '../filing/changeMany';
import { beside, changeInWords, changeRecording } from '../filing/filingRecordings';
import { checkFolder } from '../filing/shelving';
import { doing } from '../history/deeds';
import type { JobQueue } from '../jobs/queue';
import { Recording, titleOf } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { TodoRow } from '../models/todo';
import { cleanInBackground } from '../recognition/cleanedCopy';
import type { SoundStore } from '../storage/soundStore';
import { sendPersonsFile } from '../storage/sendKept';
import { cardsOf } from '../views/cards';
import { recordingView } from '../views/recordingView';
import { taggedWith, withPerson } from '../writeUps/scope';
import { makeUsualWriteUp } from '../writeUps/usual';
import { asFile } from './asFile';
import { serve } from './serve';

const notFound = () => new Problem('not-found', 'There is no such recording here. It may have been removed.');

async function find(id: string, transaction?: Transaction): Promise<Recording> {
  const recording = await Recording.findByPk(id, transaction ? { transaction } : {});
  if (!recording) throw notFound();
  return recording;
}

const ORDERS: Record<RecordingSort, Order> = {
  newest: [
    ['startedAt', 'DESC'],
    ['id', 'ASC'],
  ],
  oldest: [
    ['startedAt', 'ASC'],
    ['id', 'ASC'],
  ],
  title: [
    [literal("coalesce(title, json_extract(suggestion, '$.title'), file_name) COLLATE NOCASE"), 'ASC'],
    ['id', 'ASC'],
  ],
  longest: [
    ['durationMs', 'DESC'],
    ['id', 'ASC'],
  ],
};

export function recordingRoutes(database: Sequelize, sounds: SoundStore, queue: JobQueue): Router {
  const router = Router();

  const answer = async (id: string) => {
    const view = await recordingView(id, sounds);
    if (!view) throw notFound();
    return view;
  };

  const soundFileOf = (recording: Recording): string => {
    const copy = recording.playbackFile && sounds.pathOf(recording.playbackFile);
    const file = copy && fs.existsSync(copy) ? copy : sounds.pathOf(recording.soundFile);
    if (fs.existsSync(file)) return file;
    throw new Problem(
      'sound-missing',
      'The sound of this recording is not on the disk any more.',
      'The text, the notes and the to-dos are still here.',
    );
  };

  serve(router, ENDPOINTS.listRecordings, async ({ query }) => {
    const where: WhereOptions & Record<string, unknown> = {};
    where['binnedAt'] = query.place === 'bin' ? { [Op.ne]: null } : null;
    if (query.place === 'archive') where['archivedAt'] = { [Op.ne]: null };
    else if (query.place !== 'bin') where['archivedAt'] = null;
    if (query.place === 'tray' || query.place === 'shelves') {
      where['filedAt'] = query.place === 'tray' ? null : { [Op.ne]: null };
    }
    if (query.place === 'favourites') where['isFavourite'] = true;
    if (query.folderId) where['folderId'] = query.folderId;
    if (query.projectId) where['projectId'] = query.projectId;
    if (query.personId) where['id'] = await withPerson(query.personId);
    if (query.tag) where['id'] = await taggedWith(query.tag);
    const [total, page] = await Promise.all([
      Recording.count({ where }),
      Recording.findAll({
        where,
        attributes: ['id'],
        order: ORDERS[query.sort],
        limit: query.limit,
        offset: query.offset,
        raw: true,
      }),
    ]);
    const ids = page.map((r) => r.id);
    return {
      total,
      items: await cardsOf(database, ids),
    };
  });

  serve(router, ENDPOINTS.getRecording, ({ params }) => answer(params.id));

  serve(router, ENDPOINTS.changeRecording, async ({ params, body }) => {
    await checkFolder(body.folderId);
    await doing(database, async (deed) => {
      const recording = await find(params.id, deed.transaction);
      const wasFiled = recording.filedAt !== null;
      await changeRecording(recording, body, deed);
      return { text: await changeInWords(recording, body, wasFiled), count: 1 };
    });
    // What was thrown away while recording has not been recognised; taken out of the bin, it is.
    if (body.isBinned === false && (await find(params.id)).state === 'waiting') await queue.add(params.id);
    if (body.folderId) await makeUsualWriteUp(await find(params.id));
    return answer(params.id);
  });

  serve(router, ENDPOINTS.fileRecording, async ({ params, body }) => {
    const { todoIds, ...rest } = body;
    await checkFolder(rest.folderId);
    await doing(database, async (deed) => {
      const recording = await find(params.id, deed.transaction);
      await changeRecording(recording, await beside(recording, { ...rest, isFiled: true }, deed), deed);
      const todos = todoIds?.length
        ? await TodoRow.findAll({
            where: { id: todoIds, recordingId: params.id, state: 'pencil' },
            transaction: deed.transaction,
          })
        : [];
      for (const todo of todos) await deed.change(todo, { state: 'ink' });
      return { text: `“${titleOf(recording)}” is filed.`, count: 1 };
    });
    await makeUsualWriteUp(await find(params.id));
    return answer(params.id);
  });

  serve(router, ENDPOINTS.changeMany, async ({ body }) => {
    const done = await doing(database, (deed) => changeMany(body, deed));
    if (body.isBinned === false) {
      const waiting = await Recording.findAll({ where: { id: body.ids, state: 'waiting' }, attributes: ['id'] });
      for (const { id } of waiting) await queue.add(id);
    }
    if (body.folderId ?? body.asSuggested) {
      // Of many it takes a while, and nobody waits for it.
      void (async () => {
        for (const id of body.ids) await makeUsualWriteUp(await find(id));
      })().catch((error: unknown) => console.error('A usual write-up could not be made:', error));
    }
    return done;
  });

  serve(router, ENDPOINTS.recogniseAgain, async ({ params, body }) =>
    queue.add((await find(params.id)).id, isCleaning(body.cleaning) ? body.cleaning : null),
  );

  serve(router, ENDPOINTS.getSound, async ({ params, response }) => {
    const recording = await find(params.id);
    await sendPersonsFile(response, soundFileOf(recording), { shows: ['sound', 'video'] });
  });

  serve(router, ENDPOINTS.getCleanedSound, async ({ params, query, response }) => {
    const recording = await find(params.id);
    const target = path.join(sounds.uploadFolder, `${randomUUID()}.cleaned.m4a`);
    const gone = new AbortController();
    response.once('close', () => gone.abort(new Error('Nobody waits for it any more.')));
    try {
      await cleanInBackground(soundFileOf(recording), target, query, gone.signal);
      asFile(response, `${recording.title ?? recording.suggestion.title ?? recording.fileName}, cleaned.m4a`);
      await sendPersonsFile(response, target, { shows: ['sound'] });
    } catch (error) {
      if (!gone.signal.aborted) throw error;
    } finally {
      await fs.promises.rm(target, { force: true });
    }
  });

  serve(router, ENDPOINTS.getVideo, async ({ params, response }) => {
    const { video } = await find(params.id);
    const file = video && sounds.pathOf(video.file);
    if (!file || !fs.existsSync(file))
      throw new Problem('not-found', 'There is no moving picture with this recording.');
    await sendPersonsFile(response, file, { shows: ['sound', 'video'], asVideo: true });
  });

  serve(router, ENDPOINTS.exportRecording, async ({ params, query, response }) => {
    const view = await answer(params.id);
    const { mediaType, write } = FORMAT_TYPES[params.format];
    const title = view.title ?? view.suggestion.title ?? view.fileName;
    response.type(mediaType);
    asFile(response, `${title}.${params.format}`);
    response.send(
      write({
        ...{ file: view.fileName, title, durationMs: view.durationMs ?? 0 },
        passages: passagesToRead(view.passages, await sharedSettings()),
        consent: query.consent
          ? view.slips.filter((s) => s.kind === 'consent').map((s) => `${s.text}, at ${clockTime(s.startMs)}`)
          : [],
        ...{ language: view.language ?? 'en', model: view.model ?? '' },
      }),
    );
  });

  return router;
}
