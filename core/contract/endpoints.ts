/** Every address of the HTTP interface: the one table that the server serves, the app calls and the description shows. */
import * as yup from 'yup';
import { FORMATS } from '../formats/formats';
import { accountSchema, newAccountSchema, sessionSchema, signInSchema } from './account';
import { appointmentSchema, calendarSchema, newCalendarSchema } from './appointments';
import { captureReceiptSchema, packSchema } from './captures';
import { daySchema, findResultSchema } from './find';
import { jobSchema } from './jobs';
import {
  filingSchema,
  newTodoSchema,
  recordingCardSchema,
  recordingChangeSchema,
  recordingSchema,
  todoChangeSchema,
  todoSchema,
  writeUpChangeSchema,
  writeUpSchema,
} from './recordings';
import { newSlipsSchema, slipChangeSchema, slipSchema } from './slips';
import { settingsChangeSchema, settingsSchema } from './settings';
import { folderChangeSchema, folderSchema, newFolderSchema, shelvesSchema } from './shelves';

export type Method = 'get' | 'post' | 'patch' | 'put' | 'delete';

export type Endpoint<P, Q, B, R> = {
  method: Method;
  /** Express style: `/recordings/:id`, below `/api`. */
  path: string;
  summary: string;
  params: yup.ObjectSchema<P & yup.AnyObject>;
  query: yup.ObjectSchema<Q & yup.AnyObject>;
  body: yup.Schema<B> | null;
  /** Null where the answer is not JSON; `answers` then names its media type. */
  response: yup.Schema<R> | null;
  answers?: string;
};

const none = yup.object({});
const byId = yup.object({ id: yup.string().uuid('This address is not one of Immeld’s.').required() });
const dateText = (message: string) => yup.string().matches(/^\d{4}-\d{2}-\d{2}$/, message);
/** IANA name of the person's time zone; without it the server's own. */
const zone = yup.string().max(60);
const listOf = <T extends yup.Schema>(schema: T) => yup.array().of(schema).required();

/** Keeps the types of all four schemas. */
const endpoint = <P, Q, B, R>(e: Endpoint<P, Q, B, R>): Endpoint<P, Q, B, R> => e;

export const recordingListQuery = yup.object({
  place: yup.string().oneOf(['tray', 'shelves', 'bin', 'all']).default('all'),
  folderId: yup.string().uuid(),
  tag: yup.string().max(60),
  limit: yup.number().integer().min(1).max(200).default(50),
  offset: yup.number().integer().min(0).default(0),
});

export const ENDPOINTS = {
  status: endpoint({
    method: 'get',
    path: '/status',
    summary: 'Whether the server is ready, and which recogniser it runs',
    params: none,
    query: none,
    body: null,
    response: yup.object({
      isReady: yup.boolean().required(),
      model: yup.string().required(),
      isDemo: yup.boolean().required(),
    }),
  }),
  listRecordings: endpoint({
    method: 'get',
    path: '/recordings',
    summary: 'Recordings, newest first, a page at a time',
    params: none,
    query: recordingListQuery,
    body: null,
    response: yup.object({ total: yup.number().integer().required(), items: listOf(recordingCardSchema.required()) }),
  }),
  getRecording: endpoint({
    method: 'get',
    path: '/recordings/:id',
    summary: 'A recording with its passages, to-dos and write-ups',
    params: byId,
    query: none,
    body: null,
    response: recordingSchema,
  }),
  changeRecording: endpoint({
    method: 'patch',
    path: '/recordings/:id',
    summary: 'Change title, folder or tags, file or unfile, bin or restore',
    params: byId,
    query: none,
    body: recordingChangeSchema,
    response: recordingSchema,
  }),
  fileRecording: endpoint({
    method: 'post',
    path: '/recordings/:id/filing',
    summary: 'File a recording with what is accepted of the suggestions',
    params: byId,
    query: none,
    body: filingSchema,
    response: recordingSchema,
  }),
  recogniseAgain: endpoint({
    method: 'post',
    path: '/recordings/:id/recognition',
    summary: 'Recognise a recording again',
    params: byId,
    query: none,
    body: null,
    response: jobSchema,
  }),
  getSound: endpoint({
    method: 'get',
    path: '/recordings/:id/sound',
    summary: 'The sound, with byte ranges',
    params: byId,
    query: none,
    body: null,
    response: null,
    answers: 'audio/*',
  }),
  exportRecording: endpoint({
    method: 'get',
    path: '/recordings/:id/export/:format',
    summary: 'The text as a file',
    params: byId.shape({
      format: yup.string().oneOf(FORMATS, 'Immeld writes txt, vtt, srt, tsv and json.').required(),
    }),
    query: none,
    body: null,
    response: null,
    answers: 'text/*',
  }),
  listTodos: endpoint({
    method: 'get',
    path: '/todos',
    summary: 'To-dos over all recordings',
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
  changeWriteUp: endpoint({
    method: 'patch',
    path: '/write-ups/:id',
    summary: 'Accept, edit, drop a write-up or make it in another length',
    params: byId,
    query: none,
    body: writeUpChangeSchema,
    response: writeUpSchema,
  }),
  getShelves: endpoint({
    method: 'get',
    path: '/shelves',
    summary: 'Folders, tags, projects and counts',
    params: none,
    query: none,
    body: null,
    response: shelvesSchema,
  }),
  addFolder: endpoint({
    method: 'post',
    path: '/folders',
    summary: 'Make a folder',
    params: none,
    query: none,
    body: newFolderSchema,
    response: folderSchema,
  }),
  changeFolder: endpoint({
    method: 'patch',
    path: '/folders/:id',
    summary: 'Rename, tint, move, bin or restore a folder',
    params: byId,
    query: none,
    body: folderChangeSchema,
    response: folderSchema,
  }),
  find: endpoint({
    method: 'get',
    path: '/find',
    summary: 'Find titles and spoken words',
    params: none,
    query: yup.object({ q: yup.string().max(300, 'At most 300 characters.').defined().default('') }),
    body: null,
    response: findResultSchema,
  }),
  getDay: endpoint({
    method: 'get',
    path: '/days/:date',
    summary: 'Recordings and to-dos of a day, and its week at a glance',
    params: yup.object({ date: dateText('A day is written like 2026-05-12.').required() }),
    query: yup.object({ zone }),
    body: null,
    response: daySchema,
  }),
  listJobs: endpoint({
    method: 'get',
    path: '/jobs',
    summary: 'Recognitions that wait, run or have failed',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(jobSchema.required()) }),
  }),
  jobEvents: endpoint({
    method: 'get',
    path: '/jobs/events',
    summary: 'Progress as server-sent events named "job", each with a job as data',
    params: none,
    query: none,
    body: null,
    response: null,
    answers: 'text/event-stream',
  }),
  addSlips: endpoint({
    method: 'post',
    path: '/recordings/:id/slips',
    summary: 'Put slips into the margin; those that are there already stay as they are',
    params: byId,
    query: none,
    body: newSlipsSchema,
    response: yup.object({ items: listOf(slipSchema.required()) }),
  }),
  changeSlip: endpoint({
    method: 'patch',
    path: '/slips/:id',
    summary: 'Change, move, bin or restore a slip',
    params: byId,
    query: none,
    body: slipChangeSchema,
    response: slipSchema,
  }),
  putPicture: endpoint({
    method: 'put',
    path: '/slips/:id/picture',
    summary: 'The picture of a slip, as its bytes: PNG, JPEG, GIF or WebP, at most 20 MB',
    params: byId,
    query: none,
    body: null,
    response: slipSchema,
  }),
  getPicture: endpoint({
    method: 'get',
    path: '/slips/:id/picture',
    summary: 'The picture of a slip',
    params: byId,
    query: none,
    body: null,
    response: null,
    answers: 'image/*',
  }),
  getCapture: endpoint({
    method: 'get',
    path: '/captures/:id',
    summary: 'What has arrived of a capture, with its SHA-256',
    params: byId,
    query: none,
    body: null,
    response: captureReceiptSchema,
  }),
  getAccount: endpoint({
    method: 'get',
    path: '/account',
    summary: 'Whose recordings these are',
    params: none,
    query: none,
    body: null,
    response: accountSchema,
  }),
  signUp: endpoint({
    method: 'post',
    path: '/account',
    summary: 'Give this device’s guest an e-mail address and a password; everything is kept',
    params: none,
    query: none,
    body: newAccountSchema,
    response: accountSchema,
  }),
  beGuest: endpoint({
    method: 'post',
    path: '/session/guest',
    summary: 'Begin at once as a guest; what is recorded belongs to this device’s cookie',
    params: none,
    query: none,
    body: null,
    response: accountSchema,
  }),
  signIn: endpoint({
    method: 'post',
    path: '/session',
    summary: 'Sign this device in; what was recorded here as a guest goes along',
    params: none,
    query: none,
    body: signInSchema,
    response: accountSchema,
  }),
  signOut: endpoint({
    method: 'delete',
    path: '/session',
    summary: 'Sign this device out',
    params: none,
    query: none,
    body: null,
    response: yup.object({ isSignedOut: yup.boolean().required() }),
  }),
  listSessions: endpoint({
    method: 'get',
    path: '/sessions',
    summary: 'Devices that are signed in',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(sessionSchema.required()) }),
  }),
  endSession: endpoint({
    method: 'delete',
    path: '/sessions/:id',
    summary: 'Sign another device out',
    params: byId,
    query: none,
    body: null,
    response: yup.object({ isSignedOut: yup.boolean().required() }),
  }),
  getSettings: endpoint({
    method: 'get',
    path: '/settings',
    summary: 'Settings that hold on all devices',
    params: none,
    query: none,
    body: null,
    response: settingsSchema,
  }),
  changeSettings: endpoint({
    method: 'patch',
    path: '/settings',
    summary: 'Change settings that hold on all devices',
    params: none,
    query: none,
    body: settingsChangeSchema,
    response: settingsSchema,
  }),
  listCalendars: endpoint({
    method: 'get',
    path: '/calendars',
    summary: 'Calendars that were brought in or subscribed to',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(calendarSchema.required()) }),
  }),
  addCalendar: endpoint({
    method: 'post',
    path: '/calendars',
    summary: 'Bring in an iCalendar file or subscribe to a feed; nothing is ever written to it',
    params: none,
    query: none,
    body: newCalendarSchema,
    response: calendarSchema,
  }),
  refreshCalendar: endpoint({
    method: 'post',
    path: '/calendars/:id/refresh',
    summary: 'Fetch a feed now',
    params: byId,
    query: none,
    body: null,
    response: calendarSchema,
  }),
  removeCalendar: endpoint({
    method: 'delete',
    path: '/calendars/:id',
    summary: 'Take a calendar away; recordings keep the appointment they have',
    params: byId,
    query: none,
    body: null,
    response: calendarSchema,
  }),
  listAppointments: endpoint({
    method: 'get',
    path: '/appointments',
    summary: 'Appointments of some days, in their order',
    params: none,
    query: yup.object({
      from: dateText('A day is written like 2026-05-12.').required(),
      to: dateText('A day is written like 2026-05-12.').required(),
      zone,
    }),
    body: null,
    response: yup.object({ items: listOf(appointmentSchema.required()) }),
  }),
  listPacks: endpoint({
    method: 'get',
    path: '/packs',
    summary: 'Languages that a device can fetch to recognise speech by itself',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(packSchema.required()) }),
  }),
  cancelJob: endpoint({
    method: 'post',
    path: '/jobs/:id/cancel',
    summary: 'Cancel a recognition; the sound stays',
    params: byId,
    query: none,
    body: null,
    response: jobSchema,
  }),
  retryJob: endpoint({
    method: 'post',
    path: '/jobs/:id/retry',
    summary: 'Try a failed or cancelled recognition again',
    params: byId,
    query: none,
    body: null,
    response: jobSchema,
  }),
};

export type Endpoints = typeof ENDPOINTS;
/** What an endpoint answers. */
export type Answer<K extends keyof Endpoints> = Endpoints[K]['response'] extends yup.Schema<infer R> | null ? R : never;
