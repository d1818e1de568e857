import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { Router } from 'express';
import { Recording } from '../models/recording';
import { TodoRow } from '../models/todo';
import { todoView } from '../views/recordingView';
import { serve } from './serve';

const withRecording = { include: { model: Recording, as: 'recording' } };

export function todoRoutes(): Router {
  const router = Router();

  serve(router, ENDPOINTS.listTodos, async ({ query }) => {
    const rows = await TodoRow.findAll({
      where: { binnedAt: null, ...(query.state === 'all' ? {} : { state: query.state }) },
      ...withRecording,
      order: [['createdAt', 'ASC']],
    });
    return { items: rows.filter((t) => !t.recording?.binnedAt).map((t) => todoView(t)) };
  });

  serve(router, ENDPOINTS.addTodo, async ({ body }) => {
    if (body.recordingId && !(await Recording.count({ where: { id: body.recordingId } }))) {
      throw new Problem('invalid-request', 'The recording of this to-do does not exist any more.');
    }
    const row = await TodoRow.create({
      text: body.text,
      who: body.who ?? null,
      due: body.due ?? null,
      project: body.project ?? null,
      recordingId: body.recordingId ?? null,
      startMs: body.startMs ?? null,
      ...{ quote: null, state: 'ink', doneAt: null, binnedAt: null, isChanged: true },
    });
    return todoView(await row.reload(withRecording));
  });

  serve(router, ENDPOINTS.changeTodo, async ({ params, body }) => {
    const row = await TodoRow.findByPk(params.id, withRecording);
    if (!row) throw new Problem('not-found', 'There is no such to-do.');
    const { isDone, isBinned, ...rest } = body;
    await row.update({
      ...rest,
      ...(isDone === undefined ? {} : { doneAt: isDone ? new Date() : null }),
      ...(isBinned === undefined ? {} : { binnedAt: isBinned ? new Date() : null }),
      isChanged: true,
    });
    return todoView(row);
  });

  return router;
}
