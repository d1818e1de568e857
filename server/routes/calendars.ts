import type { Calendar } from '@immeld/core/contract/appointments';
import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import { Problem } from '@immeld/core/contract/problem';
import { Router } from 'express';
import { appointmentsBetween, checkCalendar, fetchFeed, refresh, serverZone } from '../calendar/calendars';
import { CalendarError } from '../calendar/occurrences';
import type { OutboundClient } from '../outbound/outboundClient';
import { CalendarRow } from '../models/calendar';
import { STAND_IN_NAME } from '../standIns/calendarFeed';
import { serve } from './serve';

const view = ({ id, name, address, fetchedAt, problem, content }: CalendarRow): Calendar => ({
  ...{ id, name, address, problem },
  fetchedAt: fetchedAt?.toISOString() ?? null,
  isStandIn: content.includes(STAND_IN_NAME),
});

const MAX_DAYS = 400;
const DAY_MS = 86_400_000;

async function find(id: string): Promise<CalendarRow> {
  const row = await CalendarRow.findByPk(id);
  if (!row) throw new Problem('not-found', 'This calendar no longer exists.');
  return row;
}

export function calendarRoutes(outside: OutboundClient): Router {
  const router = Router();

  serve(router, ENDPOINTS.listCalendars, async () => ({
    items: (await CalendarRow.findAll({ order: [['name', 'ASC']] })).map(view),
  }));

  serve(router, ENDPOINTS.addCalendar, async ({ body }) => {
    const { name, address = null } = body;
    try {
      const content = address ? await fetchFeed(address, outside) : body.content!;
      if (!address) await checkCalendar(content);
      return view(await CalendarRow.create({ name, address, content, fetchedAt: new Date(), problem: null }));
    } catch (error) {
      if (error instanceof CalendarError) throw new Problem('invalid-request', error.message);
      throw error;
    }
  });

  serve(router, ENDPOINTS.refreshCalendar, async ({ params }) => {
    const row = await find(params.id);
    await refresh(row, outside);
    return view(row);
  });

  serve(router, ENDPOINTS.removeCalendar, async ({ params }) => {
    const row = await find(params.id);
    await row.destroy();
    return view(row);
  });

  serve(router, ENDPOINTS.listAppointments, async ({ query: { from, to, zone } }) => {
    if (Date.parse(to) - Date.parse(from) > MAX_DAYS * DAY_MS) {
      throw new Problem('invalid-request', `Ask for at most ${MAX_DAYS} days at once.`);
    }
    return { items: await appointmentsBetween(from, to, zone ?? serverZone()) };
  });

  return router;
}
