import fs from 'node:fs';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { MAX_MAIL_BYTES } from '@immeld/core/contract/mailEndpoints';
import { Problem } from '@immeld/core/contract/problem';
import { type RequestHandler, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { accountId } from '../accounts/currentAccount';
import type { ExportJobs } from '../exports/exportJobs';
import type { Mailer } from '../mail/mailer';
import { serve } from './serve';

const HOUR_MS = 3_600_000;
const MAX_IN_AN_HOUR = 30;

/** Files by mail. Nobody makes this server a source of mail that nobody wants. */
export function mailRoutes(mailer: Mailer, files: ExportJobs): Router {
  const router = Router();
  const limit: RequestHandler = rateLimit({
    ...{ windowMs: HOUR_MS, limit: MAX_IN_AN_HOUR, standardHeaders: 'draft-8', legacyHeaders: false },
    keyGenerator: () => accountId() ?? '',
    handler: () => {
      throw new Problem('too-many', 'Too many emails this hour. Try again later.');
    },
  });
  serve(router, ENDPOINTS.getMail, async () => ({
    ...{ isPossible: mailer.isPossible, isStandIn: mailer.isStandIn, largestBytes: MAX_MAIL_BYTES },
  }));
  serve(router, ENDPOINTS.listStandInMail, async () => ({ items: mailer.standInMails(accountId()!) }));
  router.use(ENDPOINTS.sendExport.path, (request, response, next) =>
    request.method === 'POST' ? limit(request, response, next) : next(),
  );
  serve(router, ENDPOINTS.sendExport, async ({ params, body }) => {
    const file = files.fileOf(params.id);
    if ((await fs.promises.stat(file.path)).size > MAX_MAIL_BYTES) {
      throw new Problem(
        'too-large',
        'The file is too large for an email. Share it by link instead.',
        'Nothing was sent.',
      );
    }
    return { sentTo: await mailer.send(body, file, accountId()!), isStandIn: mailer.isStandIn };
  });
  return router;
}
