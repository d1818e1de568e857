import type { Priority, Todo } from '@immeld/core/contract/todos';
import ICAL from 'ical.js';

/** Priorities of RFC 5545, 3.8.1.9: 1 the highest, 5 the middle, 9 the lowest. */
const PRIORITY: Record<Priority, number> = { high: 1, middle: 5, low: 9 };

const MAX_LINE = 75;

const timeOf = (due: string): ICAL.Time =>
  ICAL.Time.fromString(due.includes('T') ? `${due}:00` : due, undefined as never);
const utc = (instant: Date): ICAL.Time => ICAL.Time.fromJSDate(instant, true);

/**
 * To-dos as tasks of iCalendar (RFC 5545, 3.6.2, VTODO). Times are the person's own and carry no zone; the recording
 * a to-do came from stands in its description, as an address, and as a relation (RFC 9253, REFID).
 * @param address of this Immeld, such as `http://127.0.0.1:4100`
 */
export function todosAsCalendar(todos: readonly Todo[], address: string, now: Date): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('prodid', '-//Immeld//To-dos//EN');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('x-wr-calname', 'Immeld to-dos');
  for (const todo of todos) {
    const task = new ICAL.Component('vtodo');
    const set = (name: string, value: unknown) => task.updatePropertyWithValue(name, value as string);
    set('uid', `${todo.id}@immeld`);
    set('dtstamp', utc(now));
    set('summary', todo.who && todo.who !== 'me' ? `${todo.text} (${todo.who})` : todo.text);
    if (todo.due) {
      set('due', timeOf(todo.due));
      // A rule needs a beginning (RFC 5545, 3.8.5.3).
      if (todo.repeat) set('dtstart', timeOf(todo.due));
    }
    if (todo.repeat && todo.due) set('rrule', ICAL.Recur.fromString(todo.repeat));
    if (todo.priority) set('priority', PRIORITY[todo.priority]);
    if (todo.project) set('categories', todo.project);
    const said = todo.quote ? `“${todo.quote}”` : '';
    const from = todo.recordingTitle ? `From “${todo.recordingTitle}”` : '';
    const description = [todo.notes, said, from].filter(Boolean).join('\n');
    if (description) set('description', description);
    if (todo.recordingId) {
      set('url', `${address}/recordings/${todo.recordingId}?at=${todo.startMs ?? 0}`);
      set('refid', todo.recordingId);
    }
    set('status', todo.isDone ? 'COMPLETED' : 'NEEDS-ACTION');
    if (todo.doneAt) set('completed', utc(new Date(todo.doneAt)));
    calendar.addSubcomponent(task);
  }
  return `${folded(calendar.toString())}\r\n`;
}

/** Lines of at most 75 octets, the blank that continues one counted in, never through a character (RFC 5545, 3.1). */
function folded(calendar: string): string {
  const lines = calendar.replace(/\r\n[ \t]/g, '').split('\r\n');
  return lines
    .map((line) => {
      const parts = [''];
      let octets = 0;
      for (const character of line) {
        const size = Buffer.byteLength(character);
        if (octets + size > MAX_LINE) {
          parts.push(' ');
          octets = 1;
        }
        parts[parts.length - 1] += character;
        octets += size;
      }
      return parts.join('\r\n');
    })
    .join('\r\n');
}

/**
 * The date after this one by a rule of repetition, in the same form, or null when there is none.
 * @param due an ISO date or date-time without offset
 * @param after only a date later than this one counts: what was late does not come again in the past
 */
export function nextDate(rule: string, due: string, after: string): string | null {
  const dates = ICAL.Recur.fromString(rule).iterator(timeOf(due));
  for (let tries = 0; tries < 5000; tries++) {
    const date = dates.next() as ICAL.Time | null;
    if (!date) return null;
    const text = date.toString().slice(0, due.length);
    if (text > due && text.slice(0, 10) > after.slice(0, 10)) return text;
  }
  return null;
}
