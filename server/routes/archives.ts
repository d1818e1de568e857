import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { Router } from 'express';
import path from 'node:path';
import { accountId } from '../accounts/currentAccount';
import { ARCHIVE_PROBLEMS, ARCHIVE_RULES, type RestoreJobs } from '../backup/restoreJobs';
import type { ScheduledBackups } from '../backup/scheduledBackups';
import type { ExportJobs } from '../exports/exportJobs';
import { ProcessProblem, inProcess } from '../tasks/inProcess';
import { serve } from './serve';

export type ArchiveParts = { files: ExportJobs; bringings: RestoreJobs; kept: ScheduledBackups; dataFolder: string };

/** Everything of an account in one file, and back. */
export function archiveRoutes({ files, bringings, kept, dataFolder }: ArchiveParts): Router {
  const router = Router();
  serve(router, ENDPOINTS.makeArchive, async ({ body: { passphrase } }) => {
    const account = accountId()!;
    return files.begin(100, async ({ view, folder, signal }) => {
      const target = path.join(folder, 'archive');
      const onProgress = (share: number) => (view.done = Math.floor(share * 100));
      const task = { kind: 'backup', dataFolder, target, account, passphrase } as const;
      await inProcess(task, { ...ARCHIVE_RULES, signal, onProgress }).catch((error: unknown) => {
        const isTold = error instanceof ProcessProblem && ARCHIVE_PROBLEMS.has(error.kind);
        throw isTold ? new Problem('not-possible-now', error.message) : error;
      });
      view.done = 100;
      const day = new Date().toISOString().slice(0, 10);
      return { path: target, name: `Immeld ${day}.${passphrase ? 'immeld' : 'immeld.zip'}` };
    });
  });
  serve(router, ENDPOINTS.getKeptArchives, async () => kept.view);
  serve(router, ENDPOINTS.bringArchiveBack, async ({ params, body }) => bringings.begin(params.id, body.passphrase));
  serve(router, ENDPOINTS.getBringingBack, async ({ params }) => bringings.get(params.id));
  return router;
}
