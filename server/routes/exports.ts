import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Router } from 'express';
import { beginExport } from '../exports/exportWork';
import { previewOf } from '../exports/makeFiles';
import type { BackgroundFiles } from '../jobs/backgroundFiles';
import type { SoundStore } from '../storage/soundStore';
import { PERSONS_BYTES, sendKept } from '../storage/sendKept';
import { asFile } from './asFile';
import { serve } from './serve';

/** Files to take along. */
export function exportRoutes(files: BackgroundFiles, sounds: SoundStore): Router {
  const router = Router();
  serve(router, ENDPOINTS.makeExport, async ({ body }) => beginExport(files, sounds, body));
  serve(router, ENDPOINTS.listExports, async () => ({ items: files.list() }));
  serve(router, ENDPOINTS.getExport, async ({ params }) => files.get(params.id));
  serve(router, ENDPOINTS.cancelExport, async ({ params }) => files.cancel(params.id));
  serve(router, ENDPOINTS.getExportFile, async ({ params, response }) => {
    const { path, name } = files.fileOf(params.id);
    asFile(response, name);
    response.set(PERSONS_BYTES);
    response.setHeader('Cache-Control', 'private, no-store');
    await sendKept(response, path);
  });
  serve(router, ENDPOINTS.previewExport, async ({ body: { item, format, choices } }) =>
    previewOf(item, format, choices, sounds),
  );
  return router;
}
