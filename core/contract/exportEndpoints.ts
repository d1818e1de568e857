import * as yup from './yup';
import { cleaningSchema } from './cleaning';
import { byId, endpoint, listOf, none } from './endpoint';
import { EXPORT_FORMATS, SOUND_FORMATS, exportChoicesSchema, fileOptions, namePattern } from './exports';

const MAX_ITEMS = 2000;

export const exportItemSchema = yup
  .object({
    kind: yup.string().oneOf(['recording', 'note']).required(),
    id: yup.string().uuid().required(),
  })
  .noUnknown();
export type ExportItem = yup.InferType<typeof exportItemSchema>;

const soundWish = yup
  .object({
    format: yup.string().oneOf(SOUND_FORMATS).required(),
    /** How it is cleaned; without it the sound is as it was recorded. */
    cleaning: cleaningSchema.nullable().default(null),
    /** Only what was marked, one after the other. */
    marksOnly: yup.boolean().default(false),
  })
  .noUnknown();
export type SoundOptions = yup.InferType<typeof soundWish>;

export const newExportSchema = yup
  .object({
    items: yup
      .array()
      .of(exportItemSchema.required())
      .min(1, 'Choose at least one recording or note.')
      .max(MAX_ITEMS, 'You can export up to 2,000 items at once.')
      .required(),
    files: yup.array().of(fileOptions.required()).max(EXPORT_FORMATS.length).required(),
    sound: soundWish.nullable().default(null),
    pattern: namePattern().required(),
  })
  .noUnknown()
  .test('something', 'Choose at least one format or the audio.', (v) => Boolean(v.files?.length || v.sound));
export type NewExport = yup.InferType<typeof newExportSchema>;

/** A file, or a zip of several, that is being made or waits to be fetched. */
export const exportSchema = yup.object({
  id: yup.string().uuid().required(),
  state: yup.string().oneOf(['making', 'ready', 'failed', 'cancelled']).required(),
  /** How many of `total` recordings and notes are done. */
  done: yup.number().integer().min(0).required(),
  total: yup.number().integer().min(1).required(),
  fileName: yup.string().defined().nullable(),
  sizeBytes: yup.number().integer().min(0).defined().nullable(),
  problem: yup.string().defined().nullable(),
  /** What could not be taken along, one sentence each. */
  missing: yup.array().of(yup.string().required()).required(),
});
export type Export = yup.InferType<typeof exportSchema>;

export const EXPORT_ENDPOINTS = {
  makeExport: endpoint({
    isLarge: true,
    method: 'post',
    path: '/exports',
    summary: 'Export recordings and notes: one file, or a zip of several',
    params: none,
    query: none,
    body: newExportSchema,
    response: exportSchema,
  }),
  listExports: endpoint({
    method: 'get',
    path: '/exports',
    summary: 'Exports in progress, and finished ones that can be downloaded for a day',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(exportSchema.required()) }),
  }),
  getExport: endpoint({
    method: 'get',
    path: '/exports/:id',
    summary: 'Progress of an export',
    params: byId,
    query: none,
    body: null,
    response: exportSchema,
  }),
  cancelExport: endpoint({
    method: 'post',
    path: '/exports/:id/cancel',
    summary: 'Cancel an export',
    params: byId,
    query: none,
    body: yup.object({}).noUnknown(),
    response: exportSchema,
  }),
  getExportFile: endpoint({
    method: 'get',
    path: '/exports/:id/file',
    summary: 'The exported file',
    params: byId,
    query: none,
    body: null,
    response: null,
    answers: 'application/octet-stream',
  }),
  previewExport: endpoint({
    method: 'post',
    path: '/exports/preview',
    summary: 'Preview of an export: text, or HTML for formats with pages',
    params: none,
    query: none,
    body: yup
      .object({
        item: exportItemSchema.required(),
        format: yup.string().oneOf(EXPORT_FORMATS).required(),
        choices: exportChoicesSchema.required(),
      })
      .noUnknown(),
    response: yup.object({
      isHtml: yup.boolean().required(),
      text: yup.string().defined(),
      /** The same without its look, for where HTML cannot go. */
      plain: yup.string().defined(),
    }),
  }),
};
