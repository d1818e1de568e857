import fs from 'node:fs';
import http from 'node:http';
import os from 'node:os';
import path from 'node:path';
import { RestoreJobs } from './backup/restoreJobs';
import { ScheduledBackups } from './backup/scheduledBackups';
import { sealOldTokens, useSealKeyOf } from './accounts/seal';
import { createApplication } from './application';
import { openDatabase } from './database';
import { FindReader } from './find/reader';
import { JobQueue } from './jobs/queue';
import { ExportJobs } from './exports/exportJobs';
import { type RecognitionPool, WorkerPool } from './jobs/workerPool';
import { Mailer } from './mail/mailer';
import { OutboundClient } from './outbound/outboundClient';
import { projectRoot } from './projectRoot';
import { sweepGuests } from './accounts/sweepGuests';
import { recoverFinishedUploads, sweepUploads } from './routes/uploads';
import { emptyBin } from './storage/emptyBin';
import type { OperatorSettings } from './settings';
import { lockDataFolder } from './storage/dataLock';
import { useWorkFolderOf } from './tasks/workFolder';
import { SoundStore } from './storage/soundStore';
import { log } from './log';

export type ServerOptions = Partial<OperatorSettings> & {
  dataFolder: string;
  port: number;
  pool?: RecognitionPool;
  appFolder?: string | null;
};

export type RunningServer = { address: string; close: () => Promise<void> };

const MAX_WORKERS = 2;
const CLEAN_EVERY_MS = 3_600_000;

/** The bundled worker thread. */
export const workerFile = (): string => path.join(projectRoot(), 'server', 'dist', 'recognitionWorker.cjs');

export const defaultPool = (): WorkerPool =>
  new WorkerPool(workerFile(), Math.max(1, Math.min(MAX_WORKERS, os.availableParallelism())));

/** Opens the data folder and listens. Rejects with the system's error when the port is taken or the folder closed. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const { dataFolder } = options;
  fs.mkdirSync(dataFolder, { recursive: true, mode: 0o700 });
  fs.chmodSync(dataFolder, 0o700);
  const giveFree = await lockDataFolder(dataFolder);
  try {
    return await startIn(options, giveFree);
  } catch (error) {
    await giveFree();
    throw error;
  }
}

/** @param giveFree gives the data folder free, once nothing works in it any more */
async function startIn(options: ServerOptions, giveFree: () => Promise<void>): Promise<RunningServer> {
  const { dataFolder, port, host = '127.0.0.1', isDemo = false, hosts = [], trustProxy = false } = options;
  useSealKeyOf(dataFolder);
  useWorkFolderOf(dataFolder);
  const database = await openDatabase(dataFolder);
  await sealOldTokens(database);
  const reader = new FindReader(dataFolder);
  const sounds = new SoundStore(dataFolder);
  const queue = new JobQueue(options.pool ?? defaultPool(), sounds);
  const files = new ExportJobs(path.join(dataFolder, 'exports'));
  const outside = new OutboundClient(options.allowsLocal ?? isDemo);
  const mailer = await Mailer.open(options.mail ?? null, isDemo);
  const bringings = new RestoreJobs(dataFolder, queue);
  const kept = new ScheduledBackups(dataFolder, options.keepArchives ?? null);
  const builtApp = path.join(projectRoot(), 'app', 'dist');
  const appFolder = options.appFolder !== undefined ? options.appFolder : fs.existsSync(builtApp) ? builtApp : null;
  const server = http.createServer(
    createApplication({
      database,
      reader,
      sounds,
      queue,
      files,
      bringings,
      kept,
      dataFolder,
      mailer,
      outside,
      appFolder,
      isDemo,
      hosts,
      trustProxy,
      quotaBytes: options.quotaBytes ?? null,
    }),
  );
  // A lecture over a slow line takes longer than the usual limit for one request.
  server.requestTimeout = 0;
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, resolve);
  });
  await queue.start();
  await recoverFinishedUploads(sounds, queue);
  const clean = async () => {
    await emptyBin(sounds);
    await sweepUploads(sounds);
    await sweepGuests({ sounds, queue, files, bringings });
  };
  const said = (error: unknown) => log.error(error, 'Cleaning up did not end well.');
  const cleaning = setInterval(() => void clean().catch(said), CLEAN_EVERY_MS).unref();
  await clean().catch(said);
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
      await outside.close();
      await reader.close();
      await database.close();
      await giveFree();
    },
  };
}
