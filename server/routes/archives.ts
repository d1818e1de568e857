import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { Router } from 'express';
import path from 'node:path';
import { accountId } from '../accounts/currentAccount';
import { ArchiveProblem } from '../backup/archive';
import { backup } from '../backup/backup';
import type { BringingsBack } from '../backup/bringingsBack';
import type { KeptArchives } from '../backup/keptArchives';
import type { BackgroundFiles } from '../jobs/backgroundFiles';
import { serve } from './serve';

export type ArchiveParts = { files: BackgroundFiles; bringings: BringingsBack; kept: KeptArchives; dataFolder: string };

/** Everything of an account in one file, and back. */
export function archiveRoutes({ files, bringings, kept, dataFolder }: ArchiveParts): Router {
  const router = Router();
  serve(router, ENDPOINTS.makeArchive, async ({ body: { passphrase } }) => {
    const account = accountId()!;
    return files.begin(100, async ({ view, folder, signal }) => {
      const target = path.join(folder, 'archive');
      await backup(dataFolder, target, {
        ...{ account, signal, onProgress: (share) => (view.done = Math.floor(share * 100)) },
        ...(passphrase ? { passphrase } : {}),
      }).catch((error: unknown) => {
        throw error instanceof ArchiveProblem ? new Problem('server-error', error.message) : error;
      });
      const day = new Date().toISOString().slice(0, 10);
      return { path: target, name: `Immeld ${day}.${passphrase ? 'immeld' : 'immeld.zip'}` };
    });
  });
  serve(router, ENDPOINTS.getKeptArchives, async () => kept.view);
  serve(router, ENDPOINTS.bringArchiveBack, async ({ params, body }) => bringings.begin(params.id, body.passphrase));
  serve(router, ENDPOINTS.getBringingBack, async ({ params }) => bringings.get(params.id));
  return router;
}
