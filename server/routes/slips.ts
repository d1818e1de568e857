import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import type { NewSlip } from '@immeld/core/contract/slips';
import { deckFormOf } from '@immeld/core/slides/deckForms';
import { Router, raw } from 'express';
import { fileTypeFromBuffer } from 'file-type/node';
import fs from 'node:fs';
import type { Sequelize } from 'sequelize';
import { SlipRow } from '../models/slip';
import { TodoRow } from '../models/todo';
import { acceptSlides, makeSlides, placeSlidesAgain } from '../slides/slides';
import { readPictureOf } from '../storage/pictureText';
import { pdfText } from '../storage/pdfText';
import { MAX_PICTURE_SIZE, keepPicture, sendPicture } from '../storage/pictures';
import type { SoundStore } from '../storage/soundStore';
import { sendUserFile } from '../storage/sendStoredFile';
import { slipView } from '../views/recordingView';
import { checkRecording } from './checkRecording';
import { serve } from './serve';
import { log } from '../log';

const MAX_FILE = '50mb';
const MAX_COMMENTS = 200;
const PDF = 'application/pdf';

const slipNotFound = () => new Problem('not-found', 'This slip no longer exists.');

/** Adds what is not here yet; a to-do mark with words becomes a to-do on the list. Sent again it changes nothing. */
export async function addSlips(recordingId: string, slips: readonly NewSlip[]): Promise<void> {
  const known = new Set(
    (await SlipRow.findAll({ where: { id: slips.map((s) => s.id) }, attributes: ['id'] })).map((s) => s.id),
  );
  const fresh = slips.filter((s) => !known.has(s.id));
  await SlipRow.sequelize!.transaction(async (transaction) => {
    await SlipRow.bulkCreate(
      fresh.map(({ id, kind, mark, startMs, endMs, isWhole = false, text, address, assignee, page, words }) => ({
        ...{ id, recordingId, kind, mark: mark ?? null, startMs, endMs: endMs ?? null, text },
        ...{ isWhole, address: address ?? null, assignee: assignee ?? null },
        ...{ pictureFile: null, binnedAt: null },
        ...(kind === 'slide'
          ? { slide: { deckId: null, page: page ?? 1, isProposed: false }, fileText: words ?? null }
          : {}),
      })),
      { transaction },
    );
    await TodoRow.bulkCreate(
      fresh
        .filter((s) => s.mark === 'to-do' && s.text)
        .map(({ text, startMs }) => ({
          ...{ recordingId, text, startMs, who: 'me', due: null, project: null, quote: null },
          ...{ state: 'ink' as const, doneAt: null, binnedAt: null, isChanged: true },
        })),
      { transaction },
    );
  });
}

export function slipRoutes(database: Sequelize, sounds: SoundStore): Router {
  const router = Router();

  const find = async (id: string): Promise<SlipRow> => {
    const slip = await SlipRow.findByPk(id);
    if (!slip) throw slipNotFound();
    return slip;
  };

  serve(router, ENDPOINTS.addSlips, async ({ params, body }) => {
    await checkRecording(params.id);
    await addSlips(params.id, body.slips);
    const rows = await SlipRow.findAll({ where: { recordingId: params.id, binnedAt: null }, order: ['startMs'] });
    return { items: rows.map(slipView) };
  });

  serve(router, ENDPOINTS.changeSlip, async ({ params, body }) => {
    const slip = await find(params.id);
    const { isBinned, isProposed, words, ...rest } = body;
    // Who moves a slide says where it belongs.
    const isPlaced = slip.slide !== null && (isProposed === false || body.startMs !== undefined);
    await slip.update({
      ...rest,
      ...(isBinned === undefined ? {} : { binnedAt: isBinned ? new Date() : null }),
      ...(words === undefined ? {} : { fileText: words }),
      ...(isPlaced ? { slide: { ...slip.slide!, isProposed: false } } : {}),
      ...(isPlaced && body.startMs !== undefined ? { isWhole: false } : {}),
    });
    return slipView(slip);
  });

  serve(router, ENDPOINTS.addComment, async ({ params, body }) => {
    const slip = await find(params.id);
    if (!slip.comments.some((c) => c.id === body.id)) {
      if (slip.comments.length >= MAX_COMMENTS) {
        throw new Problem('invalid-request', 'A slip can have up to 200 comments.', 'Your comment is still here.');
      }
      await slip.update({ comments: [...slip.comments, { ...body, writtenAt: new Date().toISOString() }] });
    }
    return slipView(slip);
  });

  serve(router, ENDPOINTS.removeComment, async ({ params }) => {
    const slip = await find(params.id);
    await slip.update({ comments: slip.comments.filter((c) => c.id !== params.commentId) });
    return slipView(slip);
  });

  router.use(ENDPOINTS.putSlipFile.path, raw({ type: () => true, limit: MAX_FILE }));
  serve(router, ENDPOINTS.putSlipFile, async ({ params, query, request }) => {
    const slip = await find(params.id);
    const bytes = request.body as Buffer;
    if (!Buffer.isBuffer(bytes) || bytes.length === 0) {
      throw new Problem('invalid-request', 'This file is empty, so it was not added to the margin.');
    }
    const target = sounds.slipFilePath(slip.id);
    await fs.promises.writeFile(`${target}.part`, bytes);
    await fs.promises.rename(`${target}.part`, target);
    const found = (await fileTypeFromBuffer(bytes))?.mime;
    const mediaType = found && deckFormOf(found) ? found : 'application/octet-stream';
    await slip.update({ file: { name: query.name, mediaType, sizeBytes: bytes.length }, fileText: null });
    // Its words can be found as soon as they are read; nobody waits for that.
    if (mediaType === PDF)
      void pdfText(target).then(
        (fileText) => (fileText ? slip.update({ fileText }) : null),
        (error: unknown) => log.error(error, 'The words of an attached PDF could not be read.'),
      );
    return slipView(slip);
  });

  serve(router, ENDPOINTS.getSlipFile, async ({ params, response }) => {
    const slip = await find(params.id);
    const path = sounds.slipFilePath(slip.id);
    if (!slip.file || !fs.existsSync(path)) throw new Problem('not-found', 'This slip has no file.');
    // Never shown by the browser itself: a page somebody brought in must not run as Immeld.
    await sendUserFile(response, path, { shows: [], name: slip.file.name });
  });

  serve(router, ENDPOINTS.makeSlides, async ({ params }) => makeSlides(database, await find(params.id), sounds));

  serve(router, ENDPOINTS.placeSlides, async ({ params }) => {
    await checkRecording(params.id);
    return placeSlidesAgain(database, params.id);
  });

  serve(router, ENDPOINTS.acceptSlides, async ({ params }) => {
    await checkRecording(params.id);
    return acceptSlides(database, params.id);
  });

  router.use(ENDPOINTS.putPicture.path, raw({ type: () => true, limit: MAX_PICTURE_SIZE }));
  serve(router, ENDPOINTS.putPicture, async ({ params, request }) => {
    const slip = await find(params.id);
    const pictureFile = await keepPicture(sounds, slip.id, request.body);
    const isRead = slip.kind === 'picture';
    // What was read in another picture is not in this one.
    await slip.update({ pictureFile, ...(isRead ? { fileText: null } : {}) });
    if (isRead) void readPictureOf(slip, sounds);
    return slipView(slip);
  });

  serve(router, ENDPOINTS.getPicture, async ({ params, response }) => {
    await sendPicture(sounds, (await find(params.id)).pictureFile, response);
  });

  return router;
}
