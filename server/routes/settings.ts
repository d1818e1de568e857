import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Router } from 'express';
import { changeSharedSettings, sharedSettings } from '../models/settings';
import { serve } from './serve';

export function settingsRoutes(): Router {
  const router = Router();
  serve(router, ENDPOINTS.getSettings, () => sharedSettings());
  serve(router, ENDPOINTS.changeSettings, ({ body }) => changeSharedSettings(body));
  return router;
}
