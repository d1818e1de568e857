import { TZDate } from '@date-fns/tz';
import { isZone } from './occurrences';

/** The day of an instant where the person is, `2026-03-09`. @param zone IANA name; the server's own where there is none */
export function localDay(instant: Date, zone: string | undefined): string {
  const name = zone && isZone(zone) ? zone : Intl.DateTimeFormat().resolvedOptions().timeZone;
  return new TZDate(instant.getTime(), name).toISOString().slice(0, 10);
}

const DAY_MS = 86_400_000;

/** Instants between which all lie that are within these days somewhere on earth; each still has to be looked at. */
export const paddedRange = (from: string, to: string): [Date, Date] => [
  new Date(Date.parse(`${from}T00:00:00Z`) - DAY_MS),
  new Date(Date.parse(`${to}T00:00:00Z`) + 2 * DAY_MS),
];
