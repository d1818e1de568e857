import { PLAIN_CHOICES } from '@immeld/core/contract/exports';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { verify } from '@node-rs/argon2';
import cookieParser from 'cookie-parser';
import express, { type Express, type Request, type Response, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import fs from 'node:fs';
import QRCode from 'qrcode';
import { asAccount } from '../accounts/currentAccount';
import { PDF_FONTS } from '../exports/pdfFonts';
import { sharedPageOf } from '../exports/exportFiles';
import { NotePictureRow } from '../models/noteHistory';
import { Recording } from '../models/recording';
import { ShareLinkRow } from '../models/shareLink';
import { SlipRow } from '../models/slip';
import { countOpening, itemOf, makeShareLink, openLink, pathOf, shareLinkView } from '../sharing/shareLinks';
import { SHARED_SCRIPT, SHARED_STYLE, nothingPage, passwordPage } from '../sharing/sharedPage';
import type { Visits } from '../sharing/visits';
import { sendPicture } from '../storage/pictures';
import type { SoundStore } from '../storage/soundStore';
import { sendStoredFile, sendUserFile } from '../storage/sendStoredFile';
import { serve } from './serve';

const FONTS: Record<string, string> = {
  'literata.ttf': PDF_FONTS.Literata.normal,
  'literata-bold.ttf': PDF_FONTS.Literata.bold,
  'atkinson.ttf': PDF_FONTS.Atkinson.normal,
};
const VISIT = 'immeld-visit';
const MINUTE_MS = 60_000;
const today = () => {
  const now = new Date();
  return new Date(now.getTime() - now.getTimezoneOffset() * MINUTE_MS).toISOString().slice(0, 10);
};

/** The owner's side of links. */
export function shareLinkRoutes(visits: Visits): Router {
  const router = Router();
  const find = async (id: string): Promise<ShareLinkRow> => {
    const row = await ShareLinkRow.findByPk(id);
    if (!row) throw new Problem('not-found', 'This link no longer exists.');
    return row;
  };
  serve(router, ENDPOINTS.listShareLinks, async () => {
    const rows = await ShareLinkRow.findAll({ order: [['createdAt', 'DESC']] });
    return { items: await Promise.all(rows.map(shareLinkView)) };
  });
  serve(router, ENDPOINTS.makeShareLink, async ({ body }) => shareLinkView(await makeShareLink(body)));
  serve(router, ENDPOINTS.changeShareLink, async ({ params, body: { isStopped } }) => {
    const row = await (await find(params.id)).update({ stoppedAt: isStopped ? new Date() : null });
    if (isStopped) visits.end(row.id);
    return shareLinkView(row);
  });
  serve(router, ENDPOINTS.getShareLinkQr, async ({ params, request, response }) => {
    const address = `${request.protocol}://${request.get('host')}${pathOf(await find(params.id))}`;
    response.type('image/svg+xml').set('Cache-Control', 'private, no-store');
    response.send(await QRCode.toString(address, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' }));
  });
  return router;
}

/** The pages that links open: no account, no cookies but that of the visit, rules of their own about what may run. */
export function serveSharedPages(application: Express, sounds: SoundStore, visits: Visits): void {
  const router = Router();
  router.use('/s', (_request, response, next) => {
    response.set({
      'Content-Security-Policy':
        "default-src 'none'; style-src 'self'; script-src 'self'; img-src 'self'; media-src 'self'; font-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'",
      // Not “no-referrer”: browsers would then hide where the password form comes from, and it would be refused.
      'Referrer-Policy': 'same-origin',
      'Cache-Control': 'no-store',
      'X-Robots-Tag': 'noindex, nofollow',
    });
    next();
  });
  router.get('/s/page.css', (_request, response) => void response.type('css').send(SHARED_STYLE));
  router.get('/s/page.js', (_request, response) => void response.type('js').send(SHARED_SCRIPT));
  router.get('/s/fonts/:name', (request, response) => {
    const file = FONTS[String(request.params['name'])];
    if (!file) throw new Problem('not-found', 'This page does not exist.');
    response.set('Cache-Control', 'public, max-age=86400');
    return sendStoredFile(response, file);
  });
  // Nobody finds an address by trying.
  router.use('/s', rateLimit({ windowMs: MINUTE_MS, limit: 600, standardHeaders: 'draft-8', legacyHeaders: false }));
  router.use('/s', cookieParser());

  const linkOf = async (request: Request): Promise<ShareLinkRow | null> =>
    openLink(String(request.params['token']), today());
  const isIn = (request: Request, link: ShareLinkRow): boolean =>
    visits.isIn((request.cookies as Record<string, unknown>)[VISIT], link.id);
  const nothing = (response: Response): void => void response.status(404).type('html').send(nothingPage());
  const letIn = (response: Response, link: ShareLinkRow): void => {
    const path = pathOf(link);
    response.cookie(VISIT, visits.begin(link.id), { httpOnly: true, sameSite: 'strict', path });
  };

  router.get('/s/:token', async (request, response) => {
    const link = await linkOf(request);
    if (!link) return nothing(response);
    if (link.isListed) response.removeHeader('X-Robots-Tag');
    if (!isIn(request, link)) {
      if (link.passwordHash) return void response.type('html').send(passwordPage(null));
      if (!(await countOpening(link))) return nothing(response);
      letIn(response, link);
    }
    await show(link, response);
  });

  router.post('/s/:token', express.urlencoded({ extended: false, limit: '4kb' }), async (request, response) => {
    const link = await linkOf(request);
    if (!link) return nothing(response);
    if (!visits.mayTry(link.id)) {
      response.status(429).type('html');
      return void response.send(passwordPage('Too many attempts. Wait 15 minutes, then try again.'));
    }
    const { password } = (request.body ?? {}) as { password?: unknown };
    const isRight =
      link.passwordHash !== null &&
      typeof password === 'string' &&
      password.length <= 200 &&
      (await verify(link.passwordHash, password));
    if (!isRight) {
      visits.wasWrong(link.id);
      return void response.status(403).type('html').send(passwordPage('Wrong password.'));
    }
    if (!(await countOpening(link))) return nothing(response);
    letIn(response, link);
    response.redirect(303, pathOf(link));
  });

  /** For a page that is open: whether it still may be. */
  router.get('/s/:token/open', async (request, response) => {
    const link = await linkOf(request);
    response.sendStatus(link && isIn(request, link) ? 204 : 404);
  });

  router.get('/s/:token/sound', async (request, response) => {
    const link = await linkOf(request);
    if (!link?.withSound || !isIn(request, link)) return nothing(response);
    const recording = await asAccount(link.accountId, () => Recording.findByPk(link.recordingId!));
    const file = recording && sounds.pathOf(recording.playbackFile ?? recording.soundFile);
    if (!file || !fs.existsSync(file)) return nothing(response);
    visits.sends(link.id, response);
    await sendUserFile(response, file, { shows: ['sound', 'video'] });
  });

  router.get('/s/:token/pictures/:id', async (request, response) => {
    const link = await linkOf(request);
    if (!link || !isIn(request, link)) return nothing(response);
    await asAccount(link.accountId, async () => {
      const { recordingId, noteId, withSlips } = link;
      const id = String(request.params['id']);
      const slip =
        recordingId && withSlips ? await SlipRow.findOne({ where: { id, recordingId, binnedAt: null } }) : null;
      const picture = noteId ? await NotePictureRow.findOne({ where: { id, noteId } }) : null;
      await sendPicture(sounds, slip?.pictureFile ?? picture?.file ?? null, response);
    });
  });

  async function show(link: ShareLinkRow, response: Response): Promise<void> {
    const { withSound, withSlips, withWriteUps, withProposals, isListed } = link;
    const choices = {
      ...PLAIN_CHOICES,
      ...{ header: true, colours: withSlips, slips: withSlips ? ('margin' as const) : ('none' as const) },
      ...{ comments: withSlips, pictures: withSlips, writeUps: withWriteUps, todos: withWriteUps },
      proposals: withProposals,
    };
    const path = pathOf(link);
    const place = { path, isListed, soundPath: withSound ? `${path}/sound` : null };
    const page = await asAccount(link.accountId, () => sharedPageOf(itemOf(link), choices, sounds, place)).catch(
      (error: unknown) => {
        if (error instanceof Problem) return null;
        throw error;
      },
    );
    if (!page) return nothing(response);
    response.type('html').send(page);
  }

  application.use(router);
}
