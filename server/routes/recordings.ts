import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import type { RecordingChange } from '@immeld/core/contract/recordings';
import { FORMAT_TYPES } from '@immeld/core/formats/formats';
import { clockTime } from '@immeld/core/formats/times';
import { passagesToRead } from '@immeld/core/transcript/reading';
import { type Response, Router } from 'express';
import fs from 'node:fs';
import { Op, type Transaction, type WhereOptions } from 'sequelize';
import { indexRecording } from '../find/wordIndex';
import { appointmentFor } from '../calendar/calendars';
import type { JobQueue } from '../jobs/queue';
import { Folder } from '../models/folder';
import { Recording } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { RecordingTag, Tag } from '../models/tag';
import { TodoRow } from '../models/todo';
import type { SoundStore } from '../storage/soundStore';
import { CARD_INCLUDES, cardView, recordingView } from '../views/recordingView';
import { serve } from './serve';

const notFound = () => new Problem('not-found', 'There is no such recording here. It may have been removed.');

async function find(id: string): Promise<Recording> {
  const recording = await Recording.findByPk(id);
  if (!recording) throw notFound();
  return recording;
}

/** Gives a recording exactly these tags, making those that are new; case does not tell two tags apart. */
async function setTags(recording: Recording, names: readonly string[], transaction: Transaction): Promise<void> {
  const tags: Tag[] = [];
  for (const name of new Map(names.map((n) => [n.trim().toLowerCase(), n.trim()])).values()) {
    const known = await Tag.findOne({
      where: Tag.sequelize!.where(Tag.sequelize!.fn('lower', Tag.sequelize!.col('name')), name.toLowerCase()),
      transaction,
    });
    tags.push(known ?? (await Tag.create({ name }, { transaction })));
  }
  await recording.setTags(tags, { transaction });
}

async function checkFolder(folderId: string | null | undefined): Promise<void> {
  if (folderId && !(await Folder.count({ where: { id: folderId, binnedAt: null } }))) {
    throw new Problem('invalid-request', 'This folder does not exist any more. Choose another one.');
  }
}

async function chosenAppointment(recording: Recording, { appointmentId, zone }: RecordingChange) {
  const chosen = await appointmentFor(recording.startedAt, zone ?? null, appointmentId);
  if (chosen?.id !== appointmentId) {
    throw new Problem('invalid-request', 'This appointment is not in the calendar of that day any more.');
  }
  return chosen;
}

async function change(recording: Recording, body: RecordingChange & { isFiled?: boolean | undefined }): Promise<void> {
  await checkFolder(body.folderId);
  const appointment = body.appointmentId ? await chosenAppointment(recording, body) : null;
  await recording.sequelize.transaction(async (transaction) => {
    const suggestion = { ...recording.suggestion };
    if (body.drop?.includes('title')) suggestion.title = null;
    // A title that came from the wrong appointment goes with it.
    if (body.appointmentId !== undefined && suggestion.title === (recording.appointment?.title ?? null)) {
      suggestion.title = appointment?.title || null;
    }
    if (body.drop?.includes('folder')) suggestion.folderId = null;
    if (body.drop?.includes('tags')) suggestion.tags = [];
    await recording.update(
      {
        suggestion,
        ...(body.appointmentId !== undefined ? { appointment } : {}),
        ...(body.title !== undefined ? { title: body.title || null } : {}),
        ...(body.folderId !== undefined ? { folderId: body.folderId } : {}),
        ...(body.isFiled !== undefined ? { filedAt: body.isFiled ? (recording.filedAt ?? new Date()) : null } : {}),
        ...(body.isBinned !== undefined ? { binnedAt: body.isBinned ? new Date() : null } : {}),
      },
      { transaction },
    );
    if (body.tags) await setTags(recording, body.tags.map(String), transaction);
    if (body.title !== undefined) await indexRecording(recording, null, transaction);
  });
}

async function sendMedia(response: Response, file: string, mediaType: string | null): Promise<void> {
  response.setHeader('Cache-Control', 'private, max-age=3600');
  if (mediaType) response.type(mediaType);
  await new Promise<void>((resolve, reject) =>
    response.sendFile(file, { acceptRanges: true }, (error) => {
      // A player that asks for another range drops this one: that is no error.
      if (error && !response.headersSent) reject(error);
      else resolve();
    }),
  );
}

export function recordingRoutes(sounds: SoundStore, queue: JobQueue): Router {
  const router = Router();

  const answer = async (id: string) => {
    const view = await recordingView(id, sounds);
    if (!view) throw notFound();
    return view;
  };

  serve(router, ENDPOINTS.listRecordings, async ({ query }) => {
    const where: WhereOptions & Record<string, unknown> = {};
    if (query.place === 'bin') where['binnedAt'] = { [Op.ne]: null };
    else if (query.place !== 'all') where['filedAt'] = query.place === 'tray' ? null : { [Op.ne]: null };
    if (query.place !== 'bin') where['binnedAt'] = null;
    if (query.folderId) where['folderId'] = query.folderId;
    if (query.tag) {
      const tag = await Tag.findOne({ where: { name: query.tag } });
      const links = tag ? await RecordingTag.findAll({ where: { tagId: tag.id } }) : [];
      where['id'] = links.map((l) => l.recordingId);
    }
    const [total, page] = await Promise.all([
      Recording.count({ where }),
      Recording.findAll({
        where,
        attributes: ['id'],
        order: [
          ['startedAt', 'DESC'],
          ['id', 'ASC'],
        ],
        limit: query.limit,
        offset: query.offset,
      }),
    ]);
    const rows = await Recording.findAll({
      where: { id: page.map((r) => r.id) },
      include: CARD_INCLUDES,
      order: [
        ['startedAt', 'DESC'],
        ['id', 'ASC'],
      ],
    });
    return { total, items: rows.map(cardView) };
  });

  serve(router, ENDPOINTS.getRecording, ({ params }) => answer(params.id));

  serve(router, ENDPOINTS.changeRecording, async ({ params, body }) => {
    const recording = await find(params.id);
    await change(recording, body);
    // What was thrown away while recording has not been recognised; taken out of the bin, it is.
    if (body.isBinned === false && recording.state === 'waiting') await queue.add(recording.id);
    return answer(params.id);
  });

  serve(router, ENDPOINTS.fileRecording, async ({ params, body }) => {
    const { todoIds, ...rest } = body;
    await change(await find(params.id), { ...rest, isFiled: true });
    if (todoIds?.length) {
      await TodoRow.update({ state: 'ink' }, { where: { id: todoIds, recordingId: params.id, state: 'pencil' } });
    }
    return answer(params.id);
  });

  serve(router, ENDPOINTS.recogniseAgain, async ({ params }) => queue.add((await find(params.id)).id));

  serve(router, ENDPOINTS.getSound, async ({ params, response }) => {
    const recording = await find(params.id);
    const copy = recording.playbackFile && sounds.pathOf(recording.playbackFile);
    const file = copy && fs.existsSync(copy) ? copy : sounds.pathOf(recording.soundFile);
    if (!fs.existsSync(file)) {
      throw new Problem(
        'sound-missing',
        'The sound of this recording is not on the disk any more.',
        'The text, the notes and the to-dos are still here.',
      );
    }
    await sendMedia(response, file, file === copy ? null : recording.mediaType);
  });

  serve(router, ENDPOINTS.getVideo, async ({ params, response }) => {
    const { video } = await find(params.id);
    const file = video && sounds.pathOf(video.file);
    if (!file || !fs.existsSync(file))
      throw new Problem('not-found', 'There is no moving picture with this recording.');
    await sendMedia(response, file, video.mediaType);
  });

  serve(router, ENDPOINTS.exportRecording, async ({ params, query, response }) => {
    const view = await answer(params.id);
    const { mediaType, write } = FORMAT_TYPES[params.format];
    const title = view.title ?? view.suggestion.title ?? view.fileName;
    const fileName = `${
      title
        .replace(/[\\/:*?"<>|\p{C}]+/gu, ' ')
        .trim()
        .slice(0, 120) || 'recording'
    }.${params.format}`;
    response.type(mediaType);
    response.setHeader(
      'Content-Disposition',
      `attachment; filename="${fileName.replace(/[^ -~]|["\\%]/g, '_')}"; filename*=UTF-8''${encodeURIComponent(fileName).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`)}`,
    );
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
