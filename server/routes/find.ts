import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { Router } from 'express';
import type { Sequelize } from 'sequelize';
import { ask } from '../find/ask';
import { findPlaces } from '../find/findPlaces';
import { besidesRecording, linkedFrom } from '../find/relatedItems';
import { serve } from './serve';

export function findRoutes(database: Sequelize): Router {
  const router = Router();
  serve(router, ENDPOINTS.find, ({ query }) => findPlaces(database, query.q));
  serve(router, ENDPOINTS.ask, ({ query }) =>
    ask(database, query.q, query.today ?? new Date().toISOString().slice(0, 10)),
  );
  serve(router, ENDPOINTS.getRelated, async ({ params }) => {
    const items = await besidesRecording(database, params.id);
    if (!items) throw new Problem('not-found', 'There is no such recording here. It may have been removed.');
    return { items, linkedFrom: await linkedFrom({ toRecordingId: params.id }) };
  });
  return router;
}
