import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { PENCIL_STATES } from '@immeld/core/contract/pencil';
import { Problem } from '@immeld/core/contract/problem';
import type { Todo } from '@immeld/core/contract/todos';
import { type Express, type Request, Router } from 'express';
import { randomBytes } from 'node:crypto';
import { asAccount, accountId } from '../accounts/currentAccount';
import { hashOf, seal, unseal } from '../accounts/seal';
import { Recording } from '../models/recording';
import { TodoRow } from '../models/todo';
import { TodoFeedRow } from '../models/todoFeed';
import { todosAsCheckList } from '../todos/checkList';
import { readTodos, readTodosRecordings } from '../todos/readTodos';
import { nextDate, todosAsCalendar } from '../todos/icalendar';
import { todoView } from '../views/recordingView';
import { serve } from './serve';

const withRecording = {
  include: { model: Recording, as: 'recording', attributes: ['id', 'title', 'fileName', 'suggestion', 'binnedAt'] },
};
/** Outside of what needs a cookie: calendar programs have none. */
const FEEDS = '/feeds';

const STATES = { ink: ['ink'], pencil: ['pencil'], all: PENCIL_STATES };

async function todosIn(state: keyof typeof STATES): Promise<Todo[]> {
  const rows = await readTodos(TodoRow.sequelize!, { states: STATES[state] });
  // Not joined: a recording with a hundred to-dos would be read a hundred times.
  const ids = [...new Set(rows.flatMap((t) => t.recordingId ?? []))];
  const recordings = await readTodosRecordings(TodoRow.sequelize!, ids);
  const sorted = new Set(rows.flatMap((t) => (t.project ? (t.recordingId ?? []) : [])));
  return rows.flatMap((t) => {
    const recording = t.recordingId ? recordings.get(t.recordingId) : undefined;
    if (recording?.binnedAt) return [];
    const view = todoView(t, recording);
    // Where nothing that was said names a project, it is that of the recording.
    const project = t.recordingId && !sorted.has(t.recordingId) ? (recording?.project ?? null) : null;
    return [{ ...view, project: view.project ?? project }];
  });
}

const addressOf = (request: Request): string => `${request.protocol}://${request.get('host')}`;
const TASKS = 'text/calendar; charset=utf-8';

export function todoRoutes(): Router {
  const router = Router();

  serve(router, ENDPOINTS.listTodos, async ({ query }) => ({ items: await todosIn(query.state) }));

  serve(router, ENDPOINTS.addTodo, async ({ body }) => {
    if (body.recordingId && !(await Recording.count({ where: { id: body.recordingId } }))) {
      throw new Problem('invalid-request', 'The recording of this to-do no longer exists.');
    }
    const known = body.id && (await TodoRow.findByPk(body.id, withRecording));
    if (known) return todoView(known);
    const { who = null, due = null, project = null, recordingId = null, startMs = null, ...rest } = body;
    const row = await TodoRow.create({
      ...{ ...rest, who, due, project, recordingId, startMs },
      ...{ quote: null, state: 'ink', doneAt: null, binnedAt: null, isChanged: true },
    });
    return todoView(await row.reload(withRecording));
  });

  serve(router, ENDPOINTS.changeTodo, async ({ params, body }) => {
    const row = await TodoRow.findByPk(params.id, withRecording);
    if (!row) throw new Problem('not-found', 'This to-do no longer exists.');
    const { isDone, isBinned, ...rest } = body;
    await row.sequelize.transaction(async (transaction) => {
      const wasDone = row.doneAt !== null;
      await row.update(
        {
          ...rest,
          ...(isDone === undefined ? {} : { doneAt: isDone ? new Date() : null }),
          ...(isBinned === undefined ? {} : { binnedAt: isBinned ? new Date() : null }),
          isChanged: true,
        },
        { transaction },
      );
      if (isDone === true && !wasDone) await comeAgain(row);
      if (isDone === false && row.nextId) {
        // Ticked by mistake: the next one goes again, unless something was done with it.
        await TodoRow.destroy({ where: { id: row.nextId, doneAt: null, isChanged: false }, transaction });
        await row.update({ nextId: null }, { transaction });
      }
      async function comeAgain(done: TodoRow): Promise<void> {
        const today = new Date(Date.now() - new Date().getTimezoneOffset() * 60_000).toISOString().slice(0, 10);
        const due = done.repeat && nextDate(done.repeat, done.due ?? today, today);
        if (!due) return;
        const { text, who, project, quote, recordingId, startMs, priority, repeat, notes, position } = done;
        const next = await TodoRow.create(
          {
            ...{ text, who, project, quote, recordingId, startMs, priority, repeat, notes, position, due },
            ...{ state: 'ink', doneAt: null, binnedAt: null },
          },
          { transaction },
        );
        await done.update({ nextId: next.id }, { transaction });
      }
    });
    return todoView(row);
  });

  serve(router, ENDPOINTS.orderTodos, async ({ body }) => {
    const [moved] = await TodoRow.sequelize!.query(
      `UPDATE todos SET position = p.position FROM (
         SELECT json_extract(value, '$.id') AS id, json_extract(value, '$.position') AS position FROM json_each(:places)) p
       WHERE p.id = todos.id AND todos.account_id = :account RETURNING todos.id`,
      { replacements: { places: JSON.stringify(body.places), account: accountId() } },
    );
    return { count: moved.length };
  });

  serve(router, ENDPOINTS.todosAsCalendar, async ({ request, response }) => {
    response.type(TASKS).attachment('Immeld to-dos.ics');
    response.send(todosAsCalendar(await todosIn('ink'), addressOf(request), new Date()));
  });
  serve(router, ENDPOINTS.todosAsList, async ({ request, response }) => {
    response.type('text/markdown; charset=utf-8').attachment('Immeld to-dos.md');
    response.send(todosAsCheckList(await todosIn('ink'), addressOf(request)));
  });

  const feed = async () => {
    const row = await TodoFeedRow.findOne();
    const token = row && unseal(row.token);
    return { address: token ? `${FEEDS}/${token}.ics` : null };
  };
  serve(router, ENDPOINTS.todoFeed, feed);
  serve(router, ENDPOINTS.changeTodoFeed, async ({ body }) => {
    await TodoFeedRow.destroy({ where: {} });
    // 128 bits: nobody comes upon it by guessing.
    const token = randomBytes(16).toString('hex');
    if (body.isOn) await TodoFeedRow.create({ token: seal(token), tokenHash: hashOf(token) } as TodoFeedRow);
    return feed();
  });
  return router;
}

/** Serves the to-dos of whoever made the private address; without a cookie, as calendar programs ask. */
export function serveTodoFeeds(application: Express): void {
  application.get(`${FEEDS}/:token.ics`, async (request, response) => {
    const token = /^[0-9a-f]{32}$/.exec(String(request.params['token']))?.[0];
    const row = token ? await TodoFeedRow.findOne({ where: { tokenHash: hashOf(token) } }) : null;
    if (!row) throw new Problem('not-found', 'This calendar address does not exist or was turned off.');
    const todos = await asAccount(row.accountId, () => todosIn('ink'));
    response.type(TASKS).set('Cache-Control', 'private, no-cache').set('X-Robots-Tag', 'noindex');
    response.send(todosAsCalendar(todos, addressOf(request), new Date()));
  });
}
