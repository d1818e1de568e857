import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import compression from 'compression';
import cookieParser from 'cookie-parser';
import express, { type ErrorRequestHandler, type Express, type RequestHandler, Router } from 'express';
import staticOrPacked from 'express-static-gzip';
import helmet from 'helmet';
import fs from 'node:fs';
import path from 'node:path';
import { type Sequelize, UniqueConstraintError } from 'sequelize';
import { ownHostsOnly } from './accounts/hosts';
import { requireAccount } from './accounts/sessions';
import type { RestoreJobs } from './backup/restoreJobs';
import type { ScheduledBackups } from './backup/scheduledBackups';
import type { FindDatabase } from './find/reader';
import type { ExportJobs } from './exports/exportJobs';
import type { JobQueue } from './jobs/queue';
import { openApiDescription } from './openapi';
import { MODEL_NAME } from './recognition/modelFiles';
import { accountRoutes } from './routes/account';
import type { Mailer } from './mail/mailer';
import { archiveRoutes } from './routes/archives';
import { calendarRoutes } from './routes/calendars';
import { captureRoutes } from './routes/captures';
import { dayRoutes } from './routes/days';
import { exportRoutes } from './routes/exports';
import { findRoutes } from './routes/find';
import { historyRoutes } from './routes/history';
import { jobRoutes } from './routes/jobs';
import { languageModelRoutes } from './routes/languageModel';
import { mailRoutes } from './routes/mail';
import { noteRoutes } from './routes/notes';
import { reworkRoutes } from './routes/rework';
import { packRoutes, servePacks } from './routes/packs';
import { recordingRoutes } from './routes/recordings';
import { replacementRoutes } from './routes/replacements';
import { serve } from './routes/serve';
import { settingsRoutes } from './routes/settings';
import { serveSharedPages, shareLinkRoutes } from './routes/shareLinks';
import { sheetRoutes } from './routes/sheets';
import { shelfRoutes } from './routes/shelves';
import { correctionRoutes } from './routes/corrections';
import { slipRoutes } from './routes/slips';
import { studyRoutes } from './routes/study';
import { serveTodoFeeds, todoRoutes } from './routes/todos';
import { UPLOAD_PATH, uploadServer } from './routes/uploads';
import { writeUpRoutes } from './routes/writeUps';
import { Visits } from './sharing/visits';
import { STAND_IN_FEED, serveStandInCalendar } from './standIns/calendarFeed';
import { standInLanguageModel } from './standIns/languageModel';
import type { OutboundClient } from './outbound/outboundClient';
import type { SoundStore } from './storage/soundStore';
import { REQUEST_HEADER, log, namedRequest } from './log';

/** Of zlib's levels from 1 to 9. */
const QUICK_LEVEL = 2;

export type ApplicationParts = {
  database: Sequelize;
  /** Where finding asks. */
  reader: FindDatabase;
  sounds: SoundStore;
  queue: JobQueue;
  files: ExportJobs;
  bringings: RestoreJobs;
  kept: ScheduledBackups;
  dataFolder: string;
  mailer: Mailer;
  outside: OutboundClient;
  /** Folder of the built app; without it only the interface is served. */
  appFolder: string | null;
  isDemo: boolean;
  hosts: readonly string[];
  trustProxy: number | string | false;
  quotaBytes: number | null;
};

/** The whole server as an Express application, not yet listening. */
export function createApplication(parts: ApplicationParts): Express {
  const { sounds, queue, bringings, appFolder, isDemo, hosts, trustProxy, quotaBytes } = parts;
  const visits = new Visits();
  const application = express();
  application.disable('x-powered-by');
  application.set('trust proxy', trustProxy);
  application.use(namedRequest, ownHostsOnly(hosts), securityHeaders, onlyByTls, sameOriginOnly);
  application.use('/api', neverKept, cookieParser(), requireAccount(isDemo));
  const uploads = uploadServer(sounds, queue, bringings, quotaBytes);
  application.all([UPLOAD_PATH, `${UPLOAD_PATH}/*rest`], (request, response) => {
    // The package would give out what was sent, under the type that its sender chose.
    if (request.method === 'GET') throw new Problem('not-found', 'This page does not exist.');
    return uploads.handle(request, response);
  });
  application.use(
    compression({
      // The app's own files are packed by the build. Answers are packed while somebody waits: quickly rather than tightly.
      level: QUICK_LEVEL,
      filter: (request, response) =>
        !/\/(?:events|model-sheets)$/.test(request.path) && compression.filter(request, response),
    }),
  );
  application.use('/api', apiRouter(parts, visits));
  application.use('/api', () => {
    throw new Problem('not-found', 'This page does not exist.');
  });
  servePacks(application);
  serveTodoFeeds(application);
  serveSharedPages(application, sounds, visits);
  if (isDemo) {
    application.get(STAND_IN_FEED, serveStandInCalendar);
    application.use(standInLanguageModel());
  }
  if (appFolder) serveApp(application, appFolder);
  application.use(problemAnswers);
  return application;
}

function apiRouter(parts: ApplicationParts, visits: Visits): Router {
  const { database, reader, sounds, queue, files, bringings, mailer, outside, isDemo } = parts;
  const router = Router();
  serve(router, ENDPOINTS.status, async () => ({ isReady: true, model: MODEL_NAME, isDemo }));
  router.get('/openapi.json', (_request, response) => {
    response.json(openApiDescription());
  });
  router.use(
    recordingRoutes(database, sounds, queue),
    todoRoutes(),
    writeUpRoutes(),
    sheetRoutes(database),
    shelfRoutes(database),
    dayRoutes(database),
  );
  router.use(
    jobRoutes(queue),
    findRoutes(reader),
    historyRoutes(database),
    noteRoutes(database, reader, sounds),
    reworkRoutes(),
    languageModelRoutes(outside),
    slipRoutes(database, sounds),
    studyRoutes(),
    correctionRoutes(sounds),
    replacementRoutes(database),
    captureRoutes(),
    exportRoutes(files, sounds),
    shareLinkRoutes(visits),
    packRoutes(),
  );
  router.use(calendarRoutes(outside), settingsRoutes(queue), archiveRoutes(parts));
  router.use(mailRoutes(mailer, files));
  router.use(accountRoutes(isDemo, { sounds, queue, files, bringings }, mailer));
  return router;
}

const securityHeaders = helmet({
  contentSecurityPolicy: {
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
      workerSrc: ["'self'", 'blob:'],
      // react-native-web writes its rules into a style element.
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      mediaSrc: ["'self'", 'blob:'],
      connectSrc: ["'self'"],
      upgradeInsecureRequests: null,
    },
  },
  crossOriginOpenerPolicy: { policy: 'same-origin' },
  crossOriginEmbedderPolicy: { policy: 'require-corp' },
  strictTransportSecurity: false,
});

/** Once reached by TLS, a browser comes by nothing else for a year (RFC 6797). */
const onlyByTls: RequestHandler = (request, response, next) => {
  if (request.secure) response.setHeader('Strict-Transport-Security', 'max-age=31536000');
  next();
};

/** Answers are somebody's: no browser and no proxy keeps them, unless a route says otherwise. */
const neverKept: RequestHandler = (_request, response, next) => {
  response.setHeader('Cache-Control', 'no-store');
  next();
};

const isSameOrigin = (origin: string, host: string | undefined): boolean =>
  URL.canParse(origin) && new URL(origin).host === host;

/** A page from elsewhere that the person has open must not act for them. */
const sameOriginOnly: RequestHandler = (request, _response, next) => {
  const { origin, host } = request.headers;
  const isReading = ['GET', 'HEAD', 'OPTIONS'].includes(request.method);
  if (!isReading && origin && !isSameOrigin(origin, host)) {
    throw new Problem('other-origin', 'This request comes from another website, so it was blocked.');
  }
  next();
};

function serveApp(application: Express, appFolder: string): void {
  const page = path.join(appFolder, 'index.html');
  application.use(
    // What the build has packed is sent as it lies there.
    staticOrPacked(appFolder, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: {
        setHeaders: (response, file) =>
          response.setHeader(
            'Cache-Control',
            /-[0-9a-f]{32}\.|\/assets\//.test(file) ? 'public, max-age=31536000, immutable' : 'no-cache',
          ),
      },
    }),
  );
  // Every other address is a screen of the app, which finds its own way.
  application.get('/*screen', (request, response, next) => {
    if (path.extname(request.path)) return next();
    response.setHeader('Cache-Control', 'no-cache');
    response.type('html').send(fs.readFileSync(page));
  });
  application.get('/', (_request, response) => {
    response.type('html').send(fs.readFileSync(page));
  });
}

const problemAnswers: ErrorRequestHandler = (error: unknown, request, response, next) => {
  if (response.headersSent) return next(error);
  const problem = problemFrom(error, String(response.getHeader(REQUEST_HEADER)));
  const details = problem.toDetails(request.originalUrl);
  response.status(details.status).type('application/problem+json').send(JSON.stringify(details));
};

function problemFrom(error: unknown, requestId: string): Problem {
  if (error instanceof Problem) return error;
  const type = (error as { type?: string } | null)?.type;
  if (type === 'entity.parse.failed') return new Problem('invalid-request', 'The request is not valid JSON.');
  if (type === 'entity.too.large')
    return new Problem('too-large', 'This text is too long for one request. Split it into smaller parts.');
  const status = (error as { status?: unknown } | null)?.status;
  if (status === 404) return new Problem('not-found', 'This page does not exist.');
  // A bad percent sign in the address, a charset or packing that nobody knows, a request that broke off.
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new Problem('invalid-request', 'The server cannot read this request.');
  if (error instanceof UniqueConstraintError) return new Problem('not-possible-now', 'This name is already in use.');
  log.error(error, 'A request failed.');
  return new Problem(
    'server-error',
    'Something went wrong on the server.',
    `Your recordings are safe. Try again. Whoever runs the server finds the details in its log under ${requestId}.`,
  );
}
