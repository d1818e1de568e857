import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Router } from 'express';
import type { Sequelize } from 'sequelize';
import { applyReplacement, previewReplacement, undoReplacement } from '../transcript/replacements';
import { serve } from './serve';

/** Words replaced in one recording, a folder, or everywhere. */
export function replacementRoutes(database: Sequelize): Router {
  const router = Router();
  serve(router, ENDPOINTS.previewReplacement, async ({ body }) => previewReplacement(database, body));
  serve(router, ENDPOINTS.replaceWords, async ({ body }) => applyReplacement(database, body));
  serve(router, ENDPOINTS.undoReplacement, async ({ params }) => undoReplacement(database, params.id));
  return router;
}
