import { ENDPOINTS } from '@immeld/core/contract/endpoints';
import type { Appointment } from '@immeld/core/contract/appointments';
import type { Piece, Way } from '@immeld/core/contract/rework';
import { type Sense, senseInContext } from '@immeld/core/language/wordSenses';
import { Speller } from '@immeld/core/rework/proofread';
import { rework } from '@immeld/core/rework/rework';
import { ValidationError } from 'yup';
import { CalendarError, occurrences, readCalendar } from '../calendar/occurrences';
import { sensesOf } from '../meanings/wordNet';
import { isHardToGuess } from './passwords';
import { commonMisspellings, spellingDictionary } from './dictionaries';
import { type LongTask, type LongResults, doLongTask } from './longWork';

/** What the body of a request comes to: its value by the contract, or why it is refused. */
export type Checked = { value: unknown } | { refused: string };

export type Task =
  | LongTask
  | { kind: 'check'; endpoint: keyof typeof ENDPOINTS; body: unknown }
  | { kind: 'calendar'; content: string }
  | {
      kind: 'occurrences';
      calendarId: string;
      content: string;
      from: string;
      to: string;
      zone: string;
    }
  | { kind: 'meaning'; word: string; context: string }
  | { kind: 'password'; password: string; email: string }
  | { kind: 'rework'; blocks: readonly string[]; way: Way; known: readonly string[] };

type Results = LongResults & {
  check: Checked;
  /** Null where it is a calendar, else why it is none. */
  calendar: string | null;
  occurrences: Appointment[];
  rework: Piece[];
  meaning: { senses: Sense[]; likeliest: number };
  /** Whether it is hard enough to guess. */
  password: boolean;
};
export type TaskResult<T extends Task> = Results[T['kind']];
/** `hasBegun` comes first: until then a new thread was being started. */
export type FromTaskWorker = { hasBegun: true } | { result: unknown } | { problem: string };

/** Does one piece of work; in a thread of its own. */
export async function doTask(task: Task): Promise<Results[Task['kind']]> {
  switch (task.kind) {
    case 'check':
      return check(task);
    case 'calendar':
      return calendarProblem(task.content);
    case 'occurrences':
      return occurrences(knownCalendar(task.calendarId, task.content), task.calendarId, task);
    case 'password':
      return isHardToGuess(task.password, [task.email, ...task.email.split(/[@.]/)]);
    case 'meaning': {
      const senses = sensesOf(task.word);
      return { senses, likeliest: senses.length ? senseInContext(task.word, senses, task.context) : 0 };
    }
    case 'rework': {
      const isRead = task.way === 'proofread';
      return rework(
        task.blocks,
        task.way,
        new Speller(isRead ? spellingDictionary() : [], new Set(task.known), isRead ? commonMisspellings() : new Map()),
      );
    }
    default:
      return doLongTask(task);
  }
}

const MAX_KNOWN = 20;
const known = new Map<string, { content: string; calendar: ReturnType<typeof readCalendar> }>();

/** A calendar as it was read before; reading a large one takes longer than looking into it. */
function knownCalendar(id: string, content: string): ReturnType<typeof readCalendar> {
  const before = known.get(id);
  if (before?.content === content) return before.calendar;
  const calendar = readCalendar(content);
  if (known.size >= MAX_KNOWN) known.clear();
  known.set(id, { content, calendar });
  return calendar;
}

async function check({ endpoint, body }: Extract<Task, { kind: 'check' }>): Promise<Checked> {
  try {
    return { value: await ENDPOINTS[endpoint].body!.validate(body, { abortEarly: true, stripUnknown: false }) };
  } catch (error) {
    if (error instanceof ValidationError) return { refused: error.errors.join(' ') };
    throw error;
  }
}

function calendarProblem(content: string): string | null {
  try {
    readCalendar(content);
    return null;
  } catch (error) {
    if (error instanceof CalendarError) return error.message;
    throw error;
  }
}
