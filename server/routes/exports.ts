import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Router } from 'express';
import { beginExport } from '../exports/exportWork';
import { exportPreview } from '../exports/exportFiles';
import type { ExportJobs } from '../exports/exportJobs';
import type { SoundStore } from '../storage/soundStore';
import { USER_CONTENT_HEADERS, sendStoredFile } from '../storage/sendStoredFile';
import { sendAsAttachment } from './sendAsAttachment';
import { serve } from './serve';

/** Files to take along. */
export function exportRoutes(files: ExportJobs, sounds: SoundStore): Router {
  const router = Router();
  serve(router, ENDPOINTS.makeExport, async ({ body }) => beginExport(files, sounds, body));
  serve(router, ENDPOINTS.listExports, async () => ({ items: files.list() }));
  serve(router, ENDPOINTS.getExport, async ({ params }) => files.get(params.id));
  serve(router, ENDPOINTS.cancelExport, async ({ params }) => files.cancel(params.id));
  serve(router, ENDPOINTS.getExportFile, async ({ params, response }) => {
    const { path, name } = files.fileOf(params.id);
    sendAsAttachment(response, name);
    response.set(USER_CONTENT_HEADERS);
    response.setHeader('Cache-Control', 'private, no-store');
    await sendStoredFile(response, path);
  });
  serve(router, ENDPOINTS.previewExport, async ({ body: { item, format, choices } }) =>
    exportPreview(item, format, choices, sounds),
  );
  return router;
}
