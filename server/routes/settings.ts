import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Router } from 'express';
import { olderTranscripts } from '../jobs/olderTranscripts';
import type { JobQueue } from '../jobs/queue';
import { changeSharedSettings, sharedSettings } from '../models/settings';
import { serve } from './serve';

export function settingsRoutes(queue: JobQueue): Router {
  const router = Router();
  serve(router, ENDPOINTS.getSettings, () => sharedSettings());
  serve(router, ENDPOINTS.getOlderTranscripts, () => olderTranscripts());
  serve(router, ENDPOINTS.changeSettings, async ({ body }) => {
    const settings = await changeSharedSettings(body);
    if (body.improvesOlder) queue.fill();
    return settings;
  });
  return router;
}
