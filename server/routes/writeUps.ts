import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { shortSummary } from '@immeld/core/writeup/shortSummary';
import { Router } from 'express';
import { PassageRow } from '../models/passage';
import { WriteUpRow } from '../models/writeUp';
import { writeUpView } from '../views/recordingView';
import { serve } from './serve';

export function writeUpRoutes(): Router {
  const router = Router();

  serve(router, ENDPOINTS.changeWriteUp, async ({ params, body }) => {
    const row = await WriteUpRow.findByPk(params.id);
    if (!row) throw new Problem('not-found', 'This write-up no longer exists.');
    const { sentencesAsked } = body;
    const remade = sentencesAsked !== undefined && sentencesAsked !== row.sentencesAsked;
    const passages = remade
      ? await PassageRow.findAll({ where: { recordingId: row.recordingId }, order: [['position', 'ASC']] })
      : [];
    await row.update({
      ...body,
      ...(remade ? { sentences: shortSummary(passages, sentencesAsked), editedText: null } : {}),
    });
    return writeUpView(row);
  });

  return router;
}
