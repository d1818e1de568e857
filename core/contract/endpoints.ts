/** Every address of the HTTP interface: the one table that the server serves, the app calls and the description shows. */
import * as yup from './yup';
import { FORMATS } from '../formats/formats';
import { appointmentSchema, calendarSchema, newCalendarSchema } from './appointments';
import { captureReceiptSchema, deviceWordsSchema, packSchema } from './captures';
import { againSchema, cleaningSchema } from './cleaning';
import { byId, dateText, endpoint, listOf, none, zone } from './endpoint';
import { jobOrderSchema, jobSchema } from './jobs';
import {
  filingSchema,
  recordingCardSchema,
  recordingChangeSchema,
  recordingSchema,
  writeUpChangeSchema,
  writeUpSchema,
} from './recordings';
import { settingsChangeSchema, settingsSchema } from './settings';
import { recordingListQuery } from './shelves';
import { ACCOUNT_ENDPOINTS } from './accountEndpoints';
import { CORRECTION_ENDPOINTS } from './correctionEndpoints';
import { ARCHIVE_ENDPOINTS } from './archiveEndpoints';
import { MAIL_ENDPOINTS } from './mailEndpoints';
import { EXPORT_ENDPOINTS } from './exportEndpoints';
import { FILING_ENDPOINTS } from './filingEndpoints';
import { FINDING_ENDPOINTS } from './findingEndpoints';
import { LANGUAGE_MODEL_ENDPOINTS } from './languageModel';
import { NOTE_ENDPOINTS } from './noteEndpoints';
import { REWORK_ENDPOINTS } from './rework';
import { SHARE_LINK_ENDPOINTS } from './shareLinks';
import { SLIP_ENDPOINTS } from './slipEndpoints';
import { STUDY_ENDPOINTS } from './studyEndpoints';
import { TEMPLATE_ENDPOINTS } from './templates';
import { TODO_ENDPOINTS } from './todos';

export const ENDPOINTS = {
  ...ACCOUNT_ENDPOINTS,
  ...CORRECTION_ENDPOINTS,
  ...EXPORT_ENDPOINTS,
  ...ARCHIVE_ENDPOINTS,
  ...MAIL_ENDPOINTS,
  ...FILING_ENDPOINTS,
  ...FINDING_ENDPOINTS,
  ...NOTE_ENDPOINTS,
  ...LANGUAGE_MODEL_ENDPOINTS,
  ...REWORK_ENDPOINTS,
  ...SHARE_LINK_ENDPOINTS,
  ...SLIP_ENDPOINTS,
  ...STUDY_ENDPOINTS,
  ...TEMPLATE_ENDPOINTS,
  ...TODO_ENDPOINTS,
  status: endpoint({
    method: 'get',
    path: '/status',
    summary: 'Whether the server is ready, and which speech model it runs',
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
    summary: 'Recordings, newest first, in pages',
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
    summary: 'Change title, folder or tags; file, unfile, bin or restore',
    params: byId,
    query: none,
    body: recordingChangeSchema,
    response: recordingSchema,
  }),
  fileRecording: endpoint({
    isLarge: true,
    method: 'post',
    path: '/recordings/:id/filing',
    summary: 'File a recording with the accepted suggestions',
    params: byId,
    query: none,
    body: filingSchema,
    response: recordingSchema,
  }),
  recogniseAgain: endpoint({
    method: 'post',
    path: '/recordings/:id/recognition',
    summary: 'Transcribe a recording again, optionally with cleaned-up audio',
    params: byId,
    query: none,
    body: againSchema,
    response: jobSchema,
  }),
  getSound: endpoint({
    method: 'get',
    path: '/recordings/:id/sound',
    summary: 'The audio, with byte ranges',
    params: byId,
    query: none,
    body: null,
    response: null,
    answers: 'audio/*',
  }),
  getCleanedSound: endpoint({
    method: 'get',
    path: '/recordings/:id/sound/cleaned',
    summary: 'The audio cleaned up as requested, as an M4A file; the original stays as it is',
    params: byId,
    query: cleaningSchema,
    body: null,
    response: null,
    answers: 'audio/mp4',
  }),
  getVideo: endpoint({
    method: 'get',
    path: '/recordings/:id/video',
    summary: 'The video of a recording, with byte ranges',
    params: byId,
    query: none,
    body: null,
    response: null,
    answers: 'video/*',
  }),
  exportRecording: endpoint({
    method: 'get',
    path: '/recordings/:id/export/:format',
    summary: 'The text as a file',
    params: byId.shape({
      format: yup.string().oneOf(FORMATS, 'The format must be txt, vtt, srt, tsv or json.').required(),
    }),
    /** `consent`: the consent note with it, in the formats that have a place for it (txt, vtt, json). */
    query: yup.object({ consent: yup.boolean() }),
    body: null,
    response: null,
    answers: 'text/*',
  }),
  changeWriteUp: endpoint({
    method: 'patch',
    path: '/write-ups/:id',
    summary: 'Accept, edit or drop a write-up, or change its length',
    params: byId,
    query: none,
    body: writeUpChangeSchema,
    response: writeUpSchema,
  }),
  listJobs: endpoint({
    method: 'get',
    path: '/jobs',
    summary: 'Transcriptions that are waiting, running or failed',
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
  getCapture: endpoint({
    method: 'get',
    path: '/captures/:id',
    summary: 'What has arrived of a recording, with its SHA-256',
    params: byId,
    query: none,
    body: null,
    response: captureReceiptSchema,
  }),
  sendDeviceWords: endpoint({
    isLarge: true,
    method: 'post',
    path: '/captures/:id/words',
    summary: 'The words that a device heard while it recorded: the text until the recording is transcribed',
    params: byId,
    query: none,
    body: deviceWordsSchema,
    response: yup.object({ isTaken: yup.boolean().required() }),
  }),
  pauseJob: endpoint({
    method: 'post',
    path: '/jobs/:id/pause',
    summary: 'Pause a transcription that waits or runs; it goes on from there',
    params: byId,
    query: none,
    body: null,
    response: jobSchema,
  }),
  resumeJob: endpoint({
    method: 'post',
    path: '/jobs/:id/resume',
    summary: 'Let a paused transcription go on',
    params: byId,
    query: none,
    body: null,
    response: jobSchema,
  }),
  moveJobToFront: endpoint({
    method: 'post',
    path: '/jobs/:id/front',
    summary: 'Transcribe this recording before all others that wait',
    params: byId,
    query: none,
    body: null,
    response: jobSchema,
  }),
  orderJobs: endpoint({
    method: 'put',
    path: '/job-order',
    summary: 'Transcribe these recordings first, in this order; those that have ended are skipped',
    params: none,
    query: none,
    body: jobOrderSchema,
    /** All that have not ended, in the order in which they come. */
    response: yup.object({ items: listOf(jobSchema.required()) }),
  }),
  getSettings: endpoint({
    method: 'get',
    path: '/settings',
    summary: 'Settings shared by all devices',
    params: none,
    query: none,
    body: null,
    response: settingsSchema,
  }),
  getOlderTranscripts: endpoint({
    method: 'get',
    path: '/transcripts/older',
    summary: 'How many recordings were transcribed by a model with more mistakes than the chosen one',
    params: none,
    query: none,
    body: null,
    response: yup.object({
      count: yup.number().integer().required(),
      /** Length of their sound. */
      soundMs: yup.number().integer().required(),
      /** Whether they are being transcribed again. */
      isWorking: yup.boolean().required(),
    }),
  }),
  changeSettings: endpoint({
    isLarge: true,
    method: 'patch',
    path: '/settings',
    summary: 'Change settings shared by all devices',
    params: none,
    query: none,
    body: settingsChangeSchema,
    response: settingsSchema,
  }),
  listCalendars: endpoint({
    method: 'get',
    path: '/calendars',
    summary: 'Imported and subscribed calendars',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(calendarSchema.required()) }),
  }),
  addCalendar: endpoint({
    isLarge: true,
    method: 'post',
    path: '/calendars',
    summary: 'Import an iCalendar file or subscribe to a feed; Immeld never writes to it',
    params: none,
    query: none,
    body: newCalendarSchema,
    response: calendarSchema,
  }),
  refreshCalendar: endpoint({
    method: 'post',
    path: '/calendars/:id/refresh',
    summary: 'Refresh a feed',
    params: byId,
    query: none,
    body: null,
    response: calendarSchema,
  }),
  removeCalendar: endpoint({
    method: 'delete',
    path: '/calendars/:id',
    summary: 'Remove a calendar; recordings keep their appointments',
    params: byId,
    query: none,
    body: null,
    response: calendarSchema,
  }),
  listAppointments: endpoint({
    method: 'get',
    path: '/appointments',
    summary: 'Appointments of several days, in order',
    params: none,
    query: yup.object({
      from: dateText('Write the day like this: 2026-05-12.').required(),
      to: dateText('Write the day like this: 2026-05-12.').required(),
      zone,
    }),
    body: null,
    response: yup.object({ items: listOf(appointmentSchema.required()) }),
  }),
  listPacks: endpoint({
    method: 'get',
    path: '/packs',
    summary: 'Language packs that a device can download for transcription on the device',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(packSchema.required()) }),
  }),
  cancelJob: endpoint({
    method: 'post',
    path: '/jobs/:id/cancel',
    summary: 'Cancel a transcription; the audio stays',
    params: byId,
    query: none,
    body: null,
    response: jobSchema,
  }),
  retryJob: endpoint({
    method: 'post',
    path: '/jobs/:id/retry',
    summary: 'Retry a failed or cancelled transcription',
    params: byId,
    query: none,
    body: null,
    response: jobSchema,
  }),
};

export type Endpoints = typeof ENDPOINTS;
/** What an endpoint answers. */
export type Answer<K extends keyof Endpoints> = Endpoints[K]['response'] extends yup.Schema<infer R> | null ? R : never;
