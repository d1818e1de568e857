/** What an address of the HTTP interface is, and the parts that many of them share. */
import * as yup from './yup';

export type Method = 'get' | 'post' | 'patch' | 'put' | 'delete';

export type Endpoint<P, Q, B, R> = {
  method: Method;
  /** Express style: `/recordings/:id`, below `/api`. */
  path: string;
  summary: string;
  params: yup.ObjectSchema<P & yup.AnyObject>;
  query: yup.ObjectSchema<Q & yup.AnyObject>;
  body: yup.Schema<B> | null;
  /** Whether the body may have two megabytes; without it 100 kilobytes. */
  isLarge?: true;
  /** Null where the answer is not JSON; `answers` then names its media type. */
  response: yup.Schema<R> | null;
  answers?: string;
};

export const none = yup.object({});
export const byId = yup.object({ id: yup.string().uuid('This address is not valid.').required() });
const NO_SUCH_DAY = 'This date does not exist.';
/** Weeks are counted back from a day; before this year there would be none that the calendar can name. */
const FIRST_YEAR = '1000';

/** Whether a date that is well written stands in the calendar; what has no date passes. */
const isRealDay = (value: string | null | undefined): boolean => {
  if (!value) return true;
  const day = value.slice(0, 10);
  const date = new Date(`${day}T00:00:00Z`);
  return day >= FIRST_YEAR && !Number.isNaN(date.getTime()) && date.toISOString().startsWith(day);
};

/** A day of the calendar. @param message says how a day is written */
export const dateText = (message: string) =>
  yup
    .string()
    .matches(/^\d{4}-\d{2}-\d{2}$/, message)
    .test('real-date', NO_SUCH_DAY, isRealDay);
/** A day of the calendar, with a time or without. */
export const dateOrTimeText = (message: string) =>
  yup
    .string()
    .matches(/^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2})?$/, message)
    .test('real-date', NO_SUCH_DAY, isRealDay);
/** IANA name of the person's time zone; without it the server's own. */
export const zone = yup.string().max(60);
export const listOf = <T extends yup.Schema>(schema: T) => yup.array().of(schema).required();

/** Keeps the types of all four schemas. */
export const endpoint = <P, Q, B, R>(e: Endpoint<P, Q, B, R>): Endpoint<P, Q, B, R> => e;
