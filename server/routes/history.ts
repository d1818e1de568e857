import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Router } from 'express';
import type { Sequelize } from 'sequelize';
import { undo } from '../history/changeSets';
import { DeedRow } from '../models/deed';
import { serve } from './serve';

const SHOWN = 100;

export function historyRoutes(database: Sequelize): Router {
  const router = Router();
  serve(router, ENDPOINTS.listDeeds, async () => {
    const rows = await DeedRow.findAll({
      attributes: ['id', 'text', 'undoneAt', 'createdAt'],
      order: [['createdAt', 'DESC']],
      limit: SHOWN,
    });
    return {
      items: rows.map((d) => ({
        id: d.id,
        text: d.text,
        doneAt: d.createdAt.toISOString(),
        isUndone: d.undoneAt !== null,
      })),
    };
  });
  serve(router, ENDPOINTS.undoDeed, ({ params }) => undo(database, params.id));
  return router;
}
