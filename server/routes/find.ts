import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { topicStems } from '@immeld/core/language/words';
import { Router } from 'express';
import { localDay } from '../calendar/localDay';
import { ask } from '../find/ask';
import { findPlaces } from '../find/findPlaces';
import type { FindDatabase } from '../find/reader';
import { relatedToRecording, linkedFrom } from '../find/relatedItems';
import { sharedSettings } from '../models/settings';
import { quickTasks } from '../tasks/taskPool';
import { serve } from './serve';

/** What forms of one term have in common; a word that carries no topic is compared as it is written. */
const termKey = (term: string): string => topicStems(term).join(' ') || term.toLowerCase();

export function findRoutes(database: FindDatabase): Router {
  const router = Router();
  serve(router, ENDPOINTS.find, ({ query }) => findPlaces(database, query.q));
  serve(router, ENDPOINTS.ask, ({ query }) =>
    ask(database, query.q, query.today ?? localDay(new Date(), query.zone), query.zone),
  );
  serve(router, ENDPOINTS.getMeaning, async ({ query: { word, context } }) => {
    const { glossary } = await sharedSettings();
    const own = glossary.find(({ term }) => termKey(term) === termKey(word))?.meaning ?? null;
    return { word, own, ...(await quickTasks.run({ kind: 'meaning', word, context })) };
  });
  serve(router, ENDPOINTS.getRelated, async ({ params }) => {
    const items = await relatedToRecording(database, params.id);
    if (!items) throw new Problem('not-found', 'This recording no longer exists.');
    return { items, linkedFrom: await linkedFrom({ toRecordingId: params.id }) };
  });
  return router;
}
