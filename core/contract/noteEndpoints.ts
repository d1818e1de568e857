/** Addresses of notes. */
import * as yup from 'yup';
import { byId, endpoint, listOf, none } from './endpoint';
import { relatedSchema } from './find';
import { linkTargetSchema, newNoteSchema, noteCardSchema, noteChangeSchema, noteListQuery, noteSchema } from './notes';

export const NOTE_ENDPOINTS = {
  listNotes: endpoint({
    method: 'get',
    path: '/notes',
    summary: 'Notes, last changed first',
    params: none,
    query: noteListQuery,
    body: null,
    response: yup.object({ items: listOf(noteCardSchema.required()) }),
  }),
  addNote: endpoint({
    method: 'post',
    path: '/notes',
    summary: 'Begin a note',
    params: none,
    query: none,
    body: newNoteSchema,
    response: noteSchema,
  }),
  getNote: endpoint({
    method: 'get',
    path: '/notes/:id',
    summary: 'A note with what it links to and what links to it',
    params: byId,
    query: none,
    body: null,
    response: noteSchema,
  }),
  changeNote: endpoint({
    method: 'patch',
    path: '/notes/:id',
    summary: 'Write, file, tag, archive, bin or restore a note',
    params: byId,
    query: none,
    body: noteChangeSchema,
    response: noteSchema,
  }),
  getRelatedToNote: endpoint({
    method: 'get',
    path: '/notes/:id/related',
    summary: 'Up to five recordings and notes that belong beside this note, with the reason',
    params: byId,
    query: none,
    body: null,
    response: yup.object({ items: listOf(relatedSchema.required()) }),
  }),
  listLinkTargets: endpoint({
    method: 'get',
    path: '/link-targets',
    summary: 'Recordings and notes whose title has these words, for a link to be made',
    params: none,
    query: yup.object({ q: yup.string().max(100).defined().default('') }),
    body: null,
    response: yup.object({ items: listOf(linkTargetSchema.required()) }),
  }),
};
