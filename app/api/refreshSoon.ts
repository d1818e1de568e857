import type { QueryClient } from '@tanstack/react-query';

/** What changes while recordings arrive and are recognised. */
const KEYS = [['jobs'], ['recordings'], ['shelves']];
const PAUSE_MS = 1200;

type Pace = { last: number; timer: ReturnType<typeof setTimeout> | null };
const paces = new WeakMap<QueryClient, Pace>();

/**
 * Asks anew for what is shown, at once, and when much happens in a row once more after a pause: a hundred files that
 * arrive must not be slowed down by being watched.
 */
export function refreshSoon(client: QueryClient, now = Date.now): void {
  const pace = paces.get(client) ?? { last: -Infinity, timer: null };
  paces.set(client, pace);
  if (pace.timer !== null) return;
  const refresh = () => {
    pace.timer = null;
    pace.last = now();
    for (const queryKey of KEYS) void client.invalidateQueries({ queryKey });
  };
  const wait = pace.last + PAUSE_MS - now();
  if (wait <= 0) refresh();
  else pace.timer = setTimeout(refresh, wait);
}
