import { isCleaning } from '@immeld/core/audio/cleaning/cleaner';
import { PLAIN_CHOICES } from '@immeld/core/contract/exports';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { FORMAT_TYPES } from '@immeld/core/formats/formats';
import { Router } from 'express';
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type { Sequelize, Transaction } from 'sequelize';
import { changeMany } from '../filing/changeMany';
import { mergeFiling, describeChange, changeRecording } from '../filing/recordingFiling';
import { checkFolder } from '../filing/shelving';
import { recordChanges } from '../history/changeSets';
import type { JobQueue } from '../jobs/queue';
import { Recording, titleOf } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { TodoRow } from '../models/todo';
import { cleanInBackground } from '../recognition/cleanedCopy';
import type { SoundStore } from '../storage/soundStore';
import { sendUserFile } from '../storage/sendStoredFile';
import { listRecordings } from '../views/listRecordings';
import { document } from '../exports/document';
import { recordingJson, recordingView } from '../views/recordingView';
import { findTodosAgain } from '../todos/saveFoundTodos';
import { makeUsualWriteUp } from '../writeUps/usual';
import { sendAsAttachment } from './sendAsAttachment';
import { serve } from './serve';
import { log } from '../log';

const notFound = () => new Problem('not-found', 'This recording no longer exists.');

async function find(id: string, transaction?: Transaction): Promise<Recording> {
  const recording = await Recording.findByPk(id, transaction ? { transaction } : {});
  if (!recording) throw notFound();
  return recording;
}

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
      'The audio of this recording is missing from the server’s disk.',
      'The text, the notes and the to-dos are safe.',
    );
  };

  serve(router, ENDPOINTS.listRecordings, ({ query }) => listRecordings(database, query));

  serve(router, ENDPOINTS.getRecording, async ({ params, response }) => {
    const recording = await recordingJson(params.id, sounds);
    if (!recording) throw notFound();
    response.type('json').send(recording.json);
  });

  serve(router, ENDPOINTS.changeRecording, async ({ params, body }) => {
    await checkFolder(body.folderId);
    await recordChanges(database, async (deed) => {
      const recording = await find(params.id, deed.transaction);
      const wasFiled = recording.filedAt !== null;
      await changeRecording(recording, body, deed);
      return { text: await describeChange(recording, body, wasFiled), count: 1 };
    });
    // What was thrown away while recording has not been recognised; taken out of the bin, it is.
    if (body.isBinned === false && (await find(params.id)).state === 'waiting') await queue.add(params.id);
    if (body.folderId) await makeUsualWriteUp(await find(params.id));
    if (body.kind !== undefined || body.voice !== undefined) await findTodosAgain(await find(params.id));
    return answer(params.id);
  });

  serve(router, ENDPOINTS.fileRecording, async ({ params, body }) => {
    const { todoIds, ...rest } = body;
    await checkFolder(rest.folderId);
    await recordChanges(database, async (deed) => {
      const recording = await find(params.id, deed.transaction);
      await changeRecording(recording, await mergeFiling(recording, { ...rest, isFiled: true }, deed), deed);
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
    const done = await recordChanges(database, (deed) => changeMany(body, deed));
    if (body.isBinned === false) {
      const waiting = await Recording.findAll({ where: { id: body.ids, state: 'waiting' }, attributes: ['id'] });
      for (const { id } of waiting) await queue.add(id);
    }
    if (body.folderId ?? body.asSuggested) {
      // Of many it takes a while, and nobody waits for it.
      void (async () => {
        for (const id of body.ids) await makeUsualWriteUp(await find(id));
      })().catch((error: unknown) => log.error(error, 'A usual write-up could not be made.'));
    }
    return done;
  });

  serve(router, ENDPOINTS.recogniseAgain, async ({ params, body }) =>
    queue.add((await find(params.id)).id, isCleaning(body.cleaning) ? body.cleaning : null, body.quality),
  );

  serve(router, ENDPOINTS.getSound, async ({ params, response }) => {
    const recording = await find(params.id);
    await sendUserFile(response, soundFileOf(recording), { shows: ['sound', 'video'] });
  });

  serve(router, ENDPOINTS.getCleanedSound, async ({ params, query, response }) => {
    const recording = await find(params.id);
    const target = path.join(sounds.uploadFolder, `${randomUUID()}.cleaned.m4a`);
    const gone = new AbortController();
    response.once('close', () => gone.abort(new Error('This file is no longer needed.')));
    try {
      await cleanInBackground(soundFileOf(recording), target, query, gone.signal);
      sendAsAttachment(
        response,
        `${recording.title ?? recording.suggestion.title ?? recording.fileName}, cleaned up.m4a`,
      );
      await sendUserFile(response, target, { shows: ['sound'] });
    } catch (error) {
      if (!gone.signal.aborted) throw error;
    } finally {
      await fs.promises.rm(target, { force: true });
    }
  });

  serve(router, ENDPOINTS.getVideo, async ({ params, response }) => {
    const { video } = await find(params.id);
    const file = video && sounds.pathOf(video.file);
    if (!file || !fs.existsSync(file)) throw new Problem('not-found', 'This recording has no video.');
    await sendUserFile(response, file, { shows: ['sound', 'video'], asVideo: true });
  });

  serve(router, ENDPOINTS.exportRecording, async ({ params, query, response }) => {
    const recording = await recordingJson(params.id, sounds);
    if (!recording) throw notFound();
    const { format } = params;
    response.type(FORMAT_TYPES[format].mediaType);
    sendAsAttachment(response, `${titleOf(recording.view)}.${format}`);
    const { figures, hidesFillers } = await sharedSettings();
    const choices = { ...PLAIN_CHOICES, consent: query.consent ?? false };
    const rules = { choices, reading: { figures, hidesFillers }, kinds: [], soundName: null };
    response.send(await document({ kind: 'transcript', source: { json: recording.json, rules }, format }));
  });

  return router;
}
