import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Router } from 'express';
import type { ExportJobs } from '../exports/exportJobs';
import { previewOf } from '../exports/makeFiles';
import type { SoundStore } from '../storage/soundStore';
import { asFile } from './asFile';
import { serve } from './serve';

/** Files to take along. */
export function exportRoutes(jobs: ExportJobs, sounds: SoundStore): Router {
  const router = Router();
  serve(router, ENDPOINTS.makeExport, async ({ body }) => jobs.start(body));
  serve(router, ENDPOINTS.listExports, async () => ({ items: jobs.list() }));
  serve(router, ENDPOINTS.getExport, async ({ params }) => jobs.get(params.id));
  serve(router, ENDPOINTS.cancelExport, async ({ params }) => jobs.cancel(params.id));
  serve(router, ENDPOINTS.getExportFile, async ({ params, response }) => {
    const { path, name } = jobs.fileOf(params.id);
    asFile(response, name);
    response.setHeader('Cache-Control', 'private, no-store');
    await new Promise<void>((resolve, reject) =>
      response.sendFile(path, { dotfiles: 'allow' }, (e) => (e && !response.headersSent ? reject(e) : resolve())),
    );
  });
  serve(router, ENDPOINTS.previewExport, async ({ body: { item, format, choices } }) =>
    previewOf(item, format, choices, sounds),
  );
  return router;
}
