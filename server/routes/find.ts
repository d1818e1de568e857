import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Router } from 'express';
import type { Sequelize } from 'sequelize';
import { findWords } from '../find/wordIndex';
import { serve } from './serve';

export function findRoutes(database: Sequelize): Router {
  const router = Router();
  serve(router, ENDPOINTS.find, ({ query }) => findWords(database, query.q));
  return router;
}
