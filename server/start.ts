import fs from 'node:fs';
import http from 'node:http';
import os from 'node:os';
import path from 'node:path';
import { BringingsBack } from './backup/bringingsBack';
import { KeptArchives, type KeepOptions } from './backup/keptArchives';
import { createApplication } from './application';
import { openDatabase } from './database';
import { JobQueue } from './jobs/queue';
import { BackgroundFiles } from './jobs/backgroundFiles';
import { type RecognitionPool, WorkerPool } from './jobs/workerPool';
import { type MailOptions, Mailer } from './mail/mailer';
import { projectRoot } from './projectRoot';
import { recoverFinishedUploads } from './routes/uploads';
import { emptyBin } from './storage/emptyBin';
import { SoundStore } from './storage/soundStore';

export type ServerOptions = {
  dataFolder: string;
  port: number;
  host?: string;
  isDemo?: boolean;
  pool?: RecognitionPool;
  appFolder?: string | null;
  /** How the server keeps archives by itself. */
  keepArchives?: KeepOptions | null;
  /** By which mail server files are sent. */
  mail?: MailOptions | null;
};

export type RunningServer = { address: string; close: () => Promise<void> };

const MOST_WORKERS = 2;
const CLEAN_EVERY_MS = 3_600_000;

/** The bundled worker thread. */
export const workerFile = (): string => path.join(projectRoot(), 'server', 'dist', 'recognitionWorker.cjs');

export const defaultPool = (): WorkerPool =>
  new WorkerPool(workerFile(), Math.max(1, Math.min(MOST_WORKERS, os.availableParallelism())));

/** Opens the data folder and listens. Rejects with the system's error when the port is taken or the folder closed. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const { dataFolder, port, host = '127.0.0.1', isDemo = false } = options;
  fs.mkdirSync(dataFolder, { recursive: true });
  const database = await openDatabase(dataFolder);
  const sounds = new SoundStore(dataFolder);
  const queue = new JobQueue(options.pool ?? defaultPool(), sounds);
  const files = new BackgroundFiles(path.join(dataFolder, 'exports'));
  const mailer = await Mailer.open(options.mail ?? null, isDemo);
  const bringings = new BringingsBack(dataFolder, queue);
  const kept = new KeptArchives(dataFolder, options.keepArchives ?? null);
  const builtApp = path.join(projectRoot(), 'app', 'dist');
  const appFolder = options.appFolder !== undefined ? options.appFolder : fs.existsSync(builtApp) ? builtApp : null;
  const server = http.createServer(
    createApplication({ database, sounds, queue, files, bringings, kept, dataFolder, mailer, appFolder, isDemo }),
  );
  // A lecture over a slow line takes longer than the usual limit for one request.
  server.requestTimeout = 0;
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, resolve);
  });
  await queue.start();
  await recoverFinishedUploads(sounds, queue);
  const cleaning = setInterval(() => void emptyBin(sounds), CLEAN_EVERY_MS).unref();
  await emptyBin(sounds);
  kept.start();
  const { port: actual } = server.address() as { port: number };
  return {
    address: `http://${host === '0.0.0.0' ? 'localhost' : host}:${actual}`,
    close: async () => {
      clearInterval(cleaning);
      files.close();
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await queue.close();
      await kept.close();
      await mailer.close();
      await database.close();
    },
  };
}
