/** Addresses of notes. */
import * as yup from './yup';
import { byId, endpoint, listOf, none } from './endpoint';
import { relatedSchema } from './find';
import {
  type NoteBody,
  linkTargetSchema,
  newNoteSchema,
  noteCardSchema,
  noteChangeSchema,
  noteListQuery,
  noteSchema,
} from './notes';

const versionOfNote = byId.shape({ versionId: yup.string().uuid().required() });

export const NOTE_ENDPOINTS = {
  listNotes: endpoint({
    method: 'get',
    path: '/notes',
    summary: 'Notes, most recently changed first',
    params: none,
    query: noteListQuery,
    body: null,
    response: yup.object({ items: listOf(noteCardSchema.required()) }),
  }),
  addNote: endpoint({
    isLarge: true,
    method: 'post',
    path: '/notes',
    summary: 'Create a note',
    params: none,
    query: none,
    body: newNoteSchema,
    response: noteSchema,
  }),
  getNote: endpoint({
    method: 'get',
    path: '/notes/:id',
    summary: 'A note with its links and the notes that link to it',
    params: byId,
    query: none,
    body: null,
    response: noteSchema,
  }),
  changeNote: endpoint({
    isLarge: true,
    method: 'patch',
    path: '/notes/:id',
    summary: 'Write, file, tag, archive, bin or restore a note',
    params: byId,
    query: none,
    body: noteChangeSchema,
    response: noteSchema,
  }),
  quoteInNote: endpoint({
    isLarge: true,
    method: 'post',
    path: '/notes/:id/quotations',
    summary: 'Add a quotation from a recording at the end of a note, with a link to its moment',
    params: byId,
    query: none,
    body: yup
      .object({
        recordingId: yup.string().uuid().required(),
        startMs: yup.number().integer().min(0).required(),
        text: yup
          .string()
          .trim()
          .required('There is no text to add.')
          .max(20_000, 'The text may have at most 20,000 characters.'),
      })
      .noUnknown(),
    response: noteSchema,
  }),
  listNoteVersions: endpoint({
    method: 'get',
    path: '/notes/:id/versions',
    summary: 'Earlier versions of a note, newest first',
    params: byId,
    query: none,
    body: null,
    response: yup.object({
      items: listOf(
        yup
          .object({
            id: yup.string().uuid().required(),
            /** Instant in ISO 8601: until then it stood. */
            until: yup.string().required(),
            words: yup.number().integer().required(),
          })
          .required(),
      ),
    }),
  }),
  getNoteVersion: endpoint({
    method: 'get',
    path: '/notes/:id/versions/:versionId',
    summary: 'An earlier version of a note',
    params: versionOfNote,
    query: none,
    body: null,
    response: yup.object({ body: yup.mixed<NoteBody>().defined().nullable() }),
  }),
  takeNoteVersion: endpoint({
    method: 'post',
    path: '/notes/:id/versions/:versionId',
    summary: 'Restore an earlier version of a note; the current text becomes a version',
    params: versionOfNote,
    query: none,
    body: yup.object({}).noUnknown(),
    response: noteSchema,
  }),
  addNotePicture: endpoint({
    method: 'post',
    path: '/notes/:id/pictures',
    summary: 'A picture for a note, as its bytes: PNG, JPEG, GIF or WebP, at most 20 MB',
    params: byId,
    query: none,
    body: null,
    response: yup.object({ id: yup.string().uuid().required() }),
  }),
  getNotePicture: endpoint({
    method: 'get',
    path: '/note-pictures/:id',
    summary: 'A picture of a note',
    params: byId,
    query: none,
    body: null,
    response: null,
    answers: 'image/*',
  }),
  getRelatedToNote: endpoint({
    method: 'get',
    path: '/notes/:id/related',
    summary: 'Up to five related recordings and notes, each with the reason',
    params: byId,
    query: none,
    body: null,
    response: yup.object({ items: listOf(relatedSchema.required()) }),
  }),
  listLinkTargets: endpoint({
    method: 'get',
    path: '/link-targets',
    summary: 'Recordings and notes whose title contains these words, for adding a link',
    params: none,
    query: yup.object({ q: yup.string().max(100).defined().default('') }),
    body: null,
    response: yup.object({ items: listOf(linkTargetSchema.required()) }),
  }),
};
