import * as yup from './yup';
import { byId, dateOrTimeText, dateText, endpoint, listOf, none } from './endpoint';
import { PENCIL_STATES } from './pencil';

export const PRIORITIES = ['high', 'middle', 'low'] as const;
export type Priority = (typeof PRIORITIES)[number];
/** What people read. */
export const PRIORITY_NAMES: Record<Priority, string> = { high: 'high', middle: 'medium', low: 'low' };

/** The rules of RFC 5545 that the screens can show and the dates can follow. */
const RULE = /^FREQ=(?:DAILY|WEEKLY|MONTHLY|YEARLY)(?:;(?:INTERVAL=\d{1,3}|BYDAY=[A-Z,]{2,20}|BYMONTHDAY=-?\d{1,2}))*$/;

export const todoSchema = yup.object({
  id: yup.string().uuid().required(),
  recordingId: yup.string().uuid().defined().nullable(),
  recordingTitle: yup.string().defined().nullable(),
  /** The note whose check box it is. */
  noteId: yup.string().uuid().defined().nullable(),
  text: yup.string().required(),
  /** "me", a name, or null when nobody is named. */
  who: yup.string().defined().nullable(),
  due: yup.string().defined().nullable(),
  project: yup.string().defined().nullable(),
  quote: yup.string().defined().nullable(),
  startMs: yup.number().integer().defined().nullable(),
  state: yup.string().oneOf(PENCIL_STATES).required(),
  /** Found in pencil, but not surely: shown fainter. */
  isUnsure: yup.boolean().optional(),
  isDone: yup.boolean().required(),
  /** Instant at which it was done (ISO 8601, UTC), or null. */
  doneAt: yup.string().defined().nullable(),
  priority: yup.string().oneOf(PRIORITIES).defined().nullable(),
  /** Recurrence rule (RFC 5545, 3.3.10). Done, it comes again at its next date. */
  repeat: yup.string().defined().nullable(),
  notes: yup.string().defined(),
  /** Until this day it is not shown among what is to be done. */
  snoozedUntil: yup.string().defined().nullable(),
  /** Place in the order by hand, smaller first; until it is moved, the second in which it was made. */
  position: yup.number().required(),
});
export type Todo = yup.InferType<typeof todoSchema>;

const due = () => dateOrTimeText('Write the date like this: 2026-05-12 or 2026-05-12T09:30.');
const day = () => dateText('Write the day like this: 2026-05-12.');

const todoText = () =>
  yup.string().trim().min(1, 'Write what to do.').max(500, 'A to-do may have at most 500 characters.');

/** What can be said of a to-do when it is written, and afterwards. */
const details = () => ({
  who: yup.string().trim().max(120).nullable(),
  due: due().nullable(),
  project: yup.string().trim().max(120).nullable(),
  priority: yup.string().oneOf(PRIORITIES, 'The priority must be high, middle or low.').nullable(),
  repeat: yup.string().matches(RULE, 'Immeld does not know this way of repeating.').nullable(),
  notes: yup.string().max(5000, 'The notes of a to-do may have at most 5,000 characters.'),
});

export const todoChangeSchema = yup
  .object({
    text: todoText(),
    ...details(),
    snoozedUntil: day().nullable(),
    state: yup.string().oneOf(PENCIL_STATES),
    isDone: yup.boolean(),
    isBinned: yup.boolean(),
  })
  .noUnknown();
export type TodoChange = yup.InferType<typeof todoChangeSchema>;

export const newTodoSchema = yup
  .object({
    /** Given by the device, so that trying again makes no second one: one that is there already is answered. */
    id: yup.string().uuid(),
    text: todoText().required('Write what to do.'),
    ...details(),
    recordingId: yup.string().uuid().nullable(),
    startMs: yup.number().integer().min(0).nullable(),
  })
  .noUnknown();
export type NewTodo = yup.InferType<typeof newTodoSchema>;

/** A move sets as few apart as it takes. */
const MAX_PLACES = 2000;

const placesSchema = yup
  .object({
    places: yup
      .array()
      .of(yup.object({ id: yup.string().uuid().required(), position: yup.number().required() }).noUnknown())
      .min(1, 'Say which to-do to move.')
      .max(MAX_PLACES, `At most ${MAX_PLACES} to-dos at once.`)
      .required(),
  })
  .noUnknown();
/** Places in the order by hand that change together. */
export type TodoPlaces = yup.InferType<typeof placesSchema>;

const feedSchema = yup.object({
  /** Path of the private address below the server's own, or null when there is none. */
  address: yup.string().defined().nullable(),
});
export type TodoFeed = yup.InferType<typeof feedSchema>;

export const TODO_ENDPOINTS = {
  listTodos: endpoint({
    method: 'get',
    path: '/todos',
    summary: 'To-dos of all recordings',
    params: none,
    query: yup.object({ state: yup.string().oneOf(['ink', 'pencil', 'all']).default('ink') }),
    body: null,
    response: yup.object({ items: listOf(todoSchema.required()) }),
  }),
  addTodo: endpoint({
    method: 'post',
    path: '/todos',
    summary: 'Add a to-do',
    params: none,
    query: none,
    body: newTodoSchema,
    response: todoSchema,
  }),
  changeTodo: endpoint({
    method: 'patch',
    path: '/todos/:id',
    summary: 'Change, accept, drop, tick or bin a to-do',
    params: byId,
    query: none,
    body: todoChangeSchema,
    response: todoSchema,
  }),
  orderTodos: endpoint({
    isLarge: true,
    method: 'put',
    path: '/todo-order',
    summary: 'Set the positions of to-dos in “My order”; to-dos that no longer exist are skipped',
    params: none,
    query: none,
    body: placesSchema,
    /** How many of them are there. */
    response: yup.object({ count: yup.number().integer().required() }),
  }),
  todosAsCalendar: endpoint({
    method: 'get',
    path: '/todos.ics',
    summary: 'The to-dos as iCalendar tasks (RFC 5545, VTODO)',
    params: none,
    query: none,
    body: null,
    response: null,
    answers: 'text/calendar',
  }),
  todosAsList: endpoint({
    method: 'get',
    path: '/todos.md',
    summary: 'The to-dos as a Markdown checklist, by project',
    params: none,
    query: none,
    body: null,
    response: null,
    answers: 'text/markdown',
  }),
  todoFeed: endpoint({
    method: 'get',
    path: '/todo-feed',
    summary: 'The private address of the to-do calendar',
    params: none,
    query: none,
    body: null,
    response: feedSchema,
  }),
  changeTodoFeed: endpoint({
    method: 'put',
    path: '/todo-feed',
    summary: 'Create, replace or remove the private address; an old address stops working at once',
    params: none,
    query: none,
    body: yup.object({ isOn: yup.boolean().required() }).noUnknown(),
    response: feedSchema,
  }),
};
