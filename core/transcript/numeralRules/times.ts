import { SCALES, readBelowHundred } from './amounts';
import { isMeasureWord } from './measureWords';
import { type Figure, Reader, type Token, before } from './tokens';

const CLOCK_LEADS = new Set([
  'at',
  'by',
  'until',
  'till',
  'before',
  'after',
  'since',
  "it's",
  'it’s',
  'from',
  'around',
]);
export const twoDigits = (value: number): string => String(value).padStart(2, '0');

export function time(tokens: readonly Token[], at: number): Figure | null {
  const r = new Reader(tokens, at);
  const lead = before(tokens, at);
  r.take('a');
  const half = r.take('half') ? 30 : r.take('quarter') ? 15 : null;
  if (half !== null) {
    if (r.take('past')) return clock(r, half, 'past');
    if (half === 15 && r.take('to')) return clock(r, half, 'to');
    return half === 30 && CLOCK_LEADS.has(lead) ? clock(r, half, 'past') : null;
  }
  r.at = at;
  const minutes = readBelowHundred(r);
  if (minutes !== null && minutes > 0 && minutes < 60) {
    const hasMinutes = r.take('minutes') || r.take('minute');
    const isFive = minutes % 5 === 0;
    if ((hasMinutes || isFive) && r.take('past')) return clock(r, minutes, 'past');
    if ((hasMinutes ? isFive : isFive && minutes < 30 && CLOCK_LEADS.has(lead) && lead !== 'from') && r.take('to')) {
      return clock(r, minutes, 'to');
    }
  }
  r.at = at;
  const isMilitary = r.word === 'oh' && (r.at++, true);
  const hour = readBelowHundred(r) ?? numberOf(r);
  if (hour === null || hour > 24) return null;
  if (r.take("o'clock") || r.take('o’clock')) return hour >= 1 && hour <= 12 ? { text: `${hour}:00`, end: r.at } : null;
  const start = r.at;
  const isOh = r.take('oh');
  let minute = readBelowHundred(r);
  if (minute !== null && (isOh ? minute > 9 : minute < 10 || minute > 59)) minute = null;
  if (minute === null) r.at = start;
  const half12 = readHalfOfDay(r);
  const shown = isMilitary ? twoDigits(hour) : String(hour);
  if (half12 && hour >= 1 && hour <= 12)
    return { text: `${shown}${minute === null ? '' : `:${twoDigits(minute)}`} ${half12}`, end: r.at };
  if (minute === null || hour === 0) return null;
  const isLed = CLOCK_LEADS.has(lead) && !isMeasureWord(r.word) && !(r.word in SCALES) && r.word !== 'hundred';
  return isLed &&
    !(hour >= 19 && (lead === 'since' || lead === 'from' || lead === 'by' || lead === 'before' || lead === 'after'))
    ? { text: `${shown}:${twoDigits(minute)}`, end: r.at }
    : null;
}

function numberOf(r: Reader): number | null {
  if (!/^\d{1,2}$/.test(r.word)) return null;
  r.at++;
  return Number(r.tokens[r.at - 1]!.word);
}

function readHalfOfDay(r: Reader): string | null {
  if (r.take('am') || r.take('a', 'm')) return 'am';
  return r.take('pm') || r.take('p', 'm') ? 'pm' : null;
}

/** The hour after "past" or "to", and the time it makes. */
function clock(r: Reader, minutes: number, side: 'past' | 'to'): Figure | null {
  const hour = readBelowHundred(r) ?? numberOf(r);
  if (hour === null || hour < 1 || hour > 12 || isMeasureWord(r.word) || r.word === 'hundred' || r.word in SCALES)
    return null;
  if (!r.take("o'clock")) r.take('o’clock');
  const half = readHalfOfDay(r);
  const shown = side === 'past' ? hour : ((hour + 10) % 12) + 1;
  const minute = side === 'past' ? minutes : 60 - minutes;
  return { text: `${shown}:${twoDigits(minute)}${half ? ` ${half}` : ''}`, end: r.at };
}
