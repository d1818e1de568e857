import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Router } from 'express';
import { Op, QueryTypes, type Sequelize } from 'sequelize';
import { accountId } from '../accounts/currentAccount';
import { paddedRange, localDay } from '../calendar/localDay';
import { appointmentsBetween, serverZone } from '../calendar/calendars';
import { Recording } from '../models/recording';
import { NoteRow } from '../models/note';
import { TodoRow } from '../models/todo';
import { cardsOf } from '../views/cards';
import { todoView } from '../views/recordingView';
import { serve } from './serve';

const DAY_MS = 86_400_000;

/** The seven dates from Monday (ISO 8601) of the week that holds this date. */
function weekOf(date: string): string[] {
  const day = new Date(`${date}T00:00:00Z`);
  const monday = day.getTime() - ((day.getUTCDay() + 6) % 7) * DAY_MS;
  return Array.from({ length: 7 }, (_, i) => new Date(monday + i * DAY_MS).toISOString().slice(0, 10));
}

export function dayRoutes(database: Sequelize): Router {
  const router = Router();

  serve(router, ENDPOINTS.getDay, async ({ params: { date }, query: { zone } }) => {
    const week = weekOf(date);
    const [appointments, recordings, todos, note, totals] = await Promise.all([
      appointmentsBetween(date, date, zone ?? serverZone()),
      Recording.findAll({
        where: { startedAt: { [Op.startsWith]: date }, binnedAt: null },
        attributes: ['id'],
        order: [['startedAt', 'ASC']],
        raw: true,
      }),
      TodoRow.findAll({
        where: { due: { [Op.startsWith]: date }, state: 'ink', binnedAt: null },
        include: { model: Recording, as: 'recording', attributes: ['id', 'title', 'suggestion', 'fileName'] },
      }),
      NoteRow.findOne({ where: { day: date, binnedAt: null } }),
      database.query<{ date: string; recordingCount: number; spokenMs: number }>(
        `SELECT substr(started_at, 1, 10) AS date, COUNT(*) AS recordingCount, COALESCE(SUM(duration_ms), 0) AS spokenMs
         FROM recordings WHERE account_id = ? AND binned_at IS NULL AND started_at >= ? AND started_at < ? GROUP BY 1`,
        { replacements: [accountId(), week[0], `${week[6]}T99`], type: QueryTypes.SELECT },
      ),
    ]);
    const byDate = new Map(totals.map((t) => [t.date, t]));
    return {
      ...{ date, appointments },
      recordings: await cardsOf(
        database,
        recordings.map((r) => r.id),
      ),
      todos: todos.map((t) => todoView(t)),
      note: note && { id: note.id, lines: note.text.split('\n').filter(Boolean) },
      week: week.map((d) => byDate.get(d) ?? { date: d, recordingCount: 0, spokenMs: 0 }),
    };
  });

  serve(router, ENDPOINTS.getWeeks, async ({ query: { until, count, zone } }) => {
    const last = Date.parse(`${weekOf(until)[0]!}T00:00:00Z`);
    const mondays = Array.from({ length: count }, (_, i) =>
      new Date(last - (count - 1 - i) * 7 * DAY_MS).toISOString().slice(0, 10),
    );
    const after = new Date(last + 7 * DAY_MS).toISOString().slice(0, 10);
    const inWeek = (column: string) => `date(${column}, 'weekday 0', '-6 days')`;
    const ask = <T extends object>(sql: string) =>
      database.query<T>(sql, { replacements: [accountId(), mondays[0], after], type: QueryTypes.SELECT });
    const week = (instant: Date) => weekOf(localDay(instant, zone))[0]!;
    const within = { [Op.between]: paddedRange(mondays[0]!, after) };
    const [said, found, done] = await Promise.all([
      ask<{ monday: string; spokenMs: number; transcribedMs: number; spoken: number; broughtIn: number }>(
        `SELECT ${inWeek('substr(started_at, 1, 10)')} AS monday, COALESCE(SUM(duration_ms), 0) AS spokenMs,
           COALESCE(SUM(CASE state WHEN 'ready' THEN duration_ms END), 0) AS transcribedMs,
           SUM(source <> 'import') AS spoken, SUM(source = 'import') AS broughtIn
         FROM recordings WHERE account_id = ? AND binned_at IS NULL AND started_at >= ? AND started_at < ? GROUP BY 1`,
      ),
      TodoRow.findAll({
        where: { binnedAt: null, state: { [Op.ne]: 'dropped' }, createdAt: within },
        attributes: ['createdAt'],
      }),
      TodoRow.findAll({ where: { binnedAt: null, doneAt: within }, attributes: ['doneAt'] }),
    ]);
    const nothing = { spokenMs: 0, transcribedMs: 0, spoken: 0, broughtIn: 0 };
    return {
      weeks: mondays.map((monday) => ({
        ...nothing,
        ...said.find((w) => w.monday === monday),
        monday,
        todosFound: found.filter((t) => week(t.createdAt) === monday).length,
        todosDone: done.filter((t) => week(t.doneAt!) === monday).length,
      })),
    };
  });

  return router;
}
