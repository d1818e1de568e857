/** Addresses of finding, asking and looking back. */
import * as yup from './yup';
import { byId, dateText, endpoint, listOf, none, zone } from './endpoint';
import { answerSchema, daySchema, findResultSchema, relatedSchema, weekSchema } from './find';
import { meaningSchema } from './meanings';
import { noteSchema, quickWordsSchema } from './notes';

const DAY = 'Write the day like this: 2026-05-12.';
const byDay = yup.object({ date: dateText(DAY).required() });
/** Longer is cut, not refused: what is pasted into the find bar by mistake is not worth an error. */
const MAX_QUERY = 5000;
const typed = () => yup.string().max(MAX_QUERY, 'The search may have at most 5,000 characters.').defined().default('');

export const FINDING_ENDPOINTS = {
  find: endpoint({
    method: 'get',
    path: '/find',
    summary: 'Search titles, passages, notes, slips, to-dos, tags, people and files',
    params: none,
    query: yup.object({ q: typed() }),
    body: null,
    response: findResultSchema,
  }),
  ask: endpoint({
    method: 'get',
    path: '/ask',
    summary: 'Answer a question with sentences from your own recordings and notes',
    params: none,
    /** `today` is the day on which it is asked. */
    query: yup.object({ q: typed(), today: dateText(DAY), zone }),
    body: null,
    response: answerSchema,
  }),
  getMeaning: endpoint({
    method: 'get',
    path: '/meanings',
    summary: 'What a word means, by your own glossary and by WordNet; nothing is asked outside',
    params: none,
    /** What stands around it decides which meaning is likeliest. */
    query: yup.object({
      word: yup.string().trim().max(80, 'Choose up to 80 characters.').required('Choose a word.'),
      context: yup.string().max(1000, 'The text around the word may have at most 1,000 characters.').default(''),
    }),
    body: null,
    response: meaningSchema,
  }),
  getRelated: endpoint({
    method: 'get',
    path: '/recordings/:id/related',
    summary: 'Up to five related recordings and notes, each with the reason',
    params: byId,
    query: none,
    body: null,
    response: yup.object({ items: listOf(relatedSchema.required()), linkedFrom: listOf(relatedSchema.required()) }),
  }),
  getDay: endpoint({
    method: 'get',
    path: '/days/:date',
    summary: 'Appointments, recordings, to-dos and the note of a day, and an overview of its week',
    params: byDay,
    query: yup.object({ zone }),
    body: null,
    response: daySchema,
  }),
  addQuickWords: endpoint({
    method: 'post',
    path: '/days/:date/words',
    summary: 'Add text to the note of a day',
    params: byDay,
    query: none,
    body: quickWordsSchema,
    response: noteSchema,
  }),
  getWeeks: endpoint({
    method: 'get',
    path: '/weeks',
    summary: 'Minutes recorded, minutes transcribed and to-dos done, by week',
    params: none,
    query: yup.object({
      until: dateText(DAY).required(),
      count: yup.number().integer().min(1).max(53).default(12),
      zone,
    }),
    body: null,
    response: yup.object({ weeks: listOf(weekSchema.required()) }),
  }),
};
