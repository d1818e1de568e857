import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { Router } from 'express';
import { localDay } from '../calendar/localDay';
import { ask } from '../find/ask';
import { findPlaces } from '../find/findPlaces';
import type { FindDatabase } from '../find/reader';
import { relatedToRecording, linkedFrom } from '../find/relatedItems';
import { serve } from './serve';

export function findRoutes(database: FindDatabase): Router {
  const router = Router();
  serve(router, ENDPOINTS.find, ({ query }) => findPlaces(database, query.q));
  serve(router, ENDPOINTS.ask, ({ query }) =>
    ask(database, query.q, query.today ?? localDay(new Date(), query.zone), query.zone),
  );
  serve(router, ENDPOINTS.getRelated, async ({ params }) => {
    const items = await relatedToRecording(database, params.id);
    if (!items) throw new Problem('not-found', 'This recording no longer exists.');
    return { items, linkedFrom: await linkedFrom({ toRecordingId: params.id }) };
  });
  return router;
}
