import * as yup from './yup';
import { byId, endpoint, listOf, none } from './endpoint';
import { scopeSchema } from './scope';
import { doneSchema } from './shelves';

/** What can go into a section of a write-up. */
export const CONTENTS = [
  ...(['summary', 'key-points', 'decisions', 'own-todos', 'others-todos', 'all-todos', 'next-steps'] as const),
  ...([
    'questions',
    'asked',
    'dates-and-numbers',
    'terms',
    'asides',
    'marked',
    'links',
    'quotes',
    'parts',
    'text',
    'letter',
  ] as const),
] as const;
export type Content = (typeof CONTENTS)[number];

export const FORMS = ['text', 'points', 'numbered', 'checks', 'table'] as const;
export const UNITS = ['sentences', 'points', 'words', 'characters'] as const;
export const GROUPINGS = ['none', 'project', 'person', 'part'] as const;
/** All but the first change the form of sentences; what was said stays recognisable. */
export const WORDINGS = ['as said', 'reported', 'formal', 'friendly', 'brief'] as const;
export type Wording = (typeof WORDINGS)[number];

const LENGTH = 'The maximum of a section must be from 1 to 5,000.';
const CHARACTERS = 'The maximum length of a write-up must be from 20 to 100,000 characters.';

const sectionSchema = yup
  .object({
    heading: yup.string().trim().max(80, 'A heading may have at most 80 characters.').defined().default(''),
    content: yup
      .string()
      .oneOf(CONTENTS, '“${value}” is not a kind of content.')
      .required('Choose the content of the section.'),
    form: yup.string().oneOf(FORMS, '“${value}” is not a format.').default('points'),
    /** Upper bound of the length, kept exactly; without it everything that was found. */
    most: yup.number().integer().min(1, LENGTH).max(5000, LENGTH).nullable().default(null),
    unit: yup.string().oneOf(UNITS).default('points'),
    grouping: yup.string().oneOf(GROUPINGS).default('none'),
    /** Steps of indentation. */
    indent: yup.number().integer().min(0).max(4).default(0),
    /** Whether each line says at which second it was said. */
    hasTimes: yup.boolean().default(false),
    /** Left out where nothing was found, else said. */
    isOptional: yup.boolean().default(true),
  })
  .noUnknown('The template contains a section field that Immeld does not know.');
export type Section = yup.InferType<typeof sectionSchema>;

/** How a write-up is made: an open form, kept and shared as JSON or YAML. */
export const templateSchema = yup
  .object({
    name: yup
      .string()
      .trim()
      .min(1, 'Enter a name for the template.')
      .max(60, 'A name may have at most 60 characters.')
      .required('Enter a name for the template.'),
    about: yup.string().trim().max(200, 'The description may have at most 200 characters.').defined().default(''),
    wording: yup.string().oneOf(WORDINGS).default('as said'),
    /** Upper bound over the whole, in characters. */
    mostCharacters: yup.number().integer().min(20, CHARACTERS).max(100_000, CHARACTERS).nullable().default(null),
    sections: yup
      .array()
      .of(sectionSchema.required())
      .min(1, 'Add at least one section.')
      .max(30, 'A template may have at most 30 sections.')
      .required(),
  })
  .noUnknown('The template contains a field that Immeld does not know.');
export type Template = yup.InferType<typeof templateSchema>;

/** A line of a write-up with the moment it rests on. */
export const lineSchema = yup.object({
  text: yup.string().defined(),
  startMs: yup.number().integer().defined().nullable(),
  /** Which recording it is from, in a write-up of several. */
  recordingId: yup.string().uuid().nullable().default(null),
  /** For what is to be done. */
  todoId: yup.string().uuid().defined().nullable(),
  isDone: yup.boolean().required(),
  /** Who said it or has to do it, and by when: cells of a table, and what grouping goes by. */
  person: yup.string().defined().nullable(),
  due: yup.string().defined().nullable(),
  /** Written by a language model without saying what it rests on. */
  isUncited: yup.boolean().default(false),
});
export type Line = yup.InferType<typeof lineSchema>;

export const madeSectionSchema = yup.object({
  heading: yup.string().defined(),
  form: yup.string().oneOf(FORMS).required(),
  indent: yup.number().integer().required(),
  hasTimes: yup.boolean().required(),
  /** Stays as it is when the write-up is made again. */
  isKept: yup.boolean().default(false),
  groups: yup
    .array()
    .of(
      yup
        .object({ name: yup.string().defined().nullable(), lines: yup.array().of(lineSchema.required()).required() })
        .required(),
    )
    .required(),
});
export type MadeSection = yup.InferType<typeof madeSectionSchema>;

/** A template with where it is from; those that ship can be copied, not changed. */
export const keptTemplateSchema = yup.object({
  id: yup.string().required(),
  isShipped: yup.boolean().required(),
  template: templateSchema.required(),
});
export type KeptTemplate = yup.InferType<typeof keptTemplateSchema>;

/** A write-up in pencil: made by a template, to be made again in another way or kept as a note. */
export const sheetSchema = yup.object({
  id: yup.string().uuid().required(),
  /** The recording it is of; null for one of several. */
  recordingId: yup.string().uuid().defined().nullable(),
  scope: scopeSchema.nullable().default(null),
  /** Whether a language model wrote it. */
  isByModel: yup.boolean().default(false),
  /** The template as it was when it was made. */
  template: templateSchema.required(),
  sections: yup.array().of(madeSectionSchema.required()).required(),
});
export type Sheet = yup.InferType<typeof sheetSchema>;

const withTemplate = () => yup.object({ template: templateSchema.required() }).noUnknown();

export const partSchema = yup.object({
  title: yup.string().required(),
  startMs: yup.number().integer().min(0).required(),
});

/** The topics of a recording: its parts with the points that stand for them, and the terms that come back. */
const topicSchema = yup.object({ text: yup.string().required(), startMs: yup.number().integer().min(0).required() });
export const topicMapSchema = yup.object({
  title: yup.string().required(),
  parts: yup
    .array()
    .of(
      yup
        .object({
          /** Null where the whole is about one thing. */
          title: yup.string().defined().nullable(),
          startMs: yup.number().integer().min(0).required(),
          points: yup.array().of(topicSchema.required()).required(),
        })
        .required(),
    )
    .required(),
  /** Terms that come back in several parts, with the beginning of each sentence that says them. */
  terms: yup
    .array()
    .of(
      yup
        .object({
          text: yup.string().required(),
          saidMs: yup.array().of(yup.number().integer().min(0).required()).required(),
        })
        .required(),
    )
    .required(),
  durationMs: yup.number().integer().min(0).required(),
  /** Loudness over time, 0 to 100; empty where it is not known. */
  peaks: yup.array().of(yup.number().required()).required(),
});
export type TopicMap = yup.InferType<typeof topicMapSchema>;

export const TEMPLATE_ENDPOINTS = {
  getTopicMap: endpoint({
    method: 'get',
    path: '/recordings/:id/map',
    summary: 'Topic map of a recording: its parts and their main points',
    params: byId,
    query: none,
    body: null,
    response: topicMapSchema,
  }),
  listParts: endpoint({
    method: 'get',
    path: '/recordings/:id/parts',
    summary: 'Parts of a long recording with titles suggested from the text',
    params: byId,
    query: none,
    body: null,
    response: yup.object({ items: listOf(partSchema.required()) }),
  }),
  listTemplates: endpoint({
    method: 'get',
    path: '/templates',
    summary: 'Templates for write-ups: your own and those that come with Immeld',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(keptTemplateSchema.required()) }),
  }),
  addTemplate: endpoint({
    method: 'post',
    path: '/templates',
    summary: 'Save your own template: a copy or an import',
    params: none,
    query: none,
    body: withTemplate(),
    response: keptTemplateSchema,
  }),
  changeTemplate: endpoint({
    method: 'patch',
    path: '/templates/:id',
    summary: 'Change or remove your own template',
    params: byId,
    query: none,
    body: yup.object({ template: templateSchema.default(undefined), isRemoved: yup.boolean() }).noUnknown(),
    response: doneSchema,
  }),
  previewWriteUp: endpoint({
    method: 'post',
    path: '/recordings/:id/preview',
    summary: 'Preview a template on a recording without saving',
    params: byId,
    query: none,
    body: withTemplate(),
    response: yup.object({ sections: yup.array().of(madeSectionSchema.required()).required() }),
  }),
  listSheets: endpoint({
    method: 'get',
    path: '/recordings/:id/sheets',
    summary: 'Suggested write-ups of a recording, still in pencil',
    params: byId,
    query: none,
    body: null,
    response: yup.object({ items: listOf(sheetSchema.required()) }),
  }),
  makeSheet: endpoint({
    method: 'post',
    path: '/recordings/:id/sheets',
    summary: 'Make a write-up of a recording',
    params: byId,
    query: none,
    body: withTemplate(),
    response: sheetSchema,
  }),
  changeSheet: endpoint({
    method: 'patch',
    path: '/sheets/:id',
    summary: 'Make a write-up again with another template, length or wording; sections marked to keep stay',
    params: byId,
    query: none,
    body: yup
      .object({
        template: templateSchema.required(),
        /** Numbers of the sections that stay, counted as they are shown now. */
        kept: yup.array().of(yup.number().integer().min(0).required()).default([]),
      })
      .noUnknown(),
    response: sheetSchema,
  }),
  describeScope: endpoint({
    isLarge: true,
    method: 'post',
    path: '/together',
    summary: 'The recordings that a write-up of several would cover',
    params: none,
    query: none,
    body: yup.object({ scope: scopeSchema.required() }).noUnknown(),
    response: yup.object({
      title: yup.string().required(),
      recordings: yup
        .array()
        .of(
          yup
            .object({
              id: yup.string().uuid().required(),
              title: yup.string().required(),
              startedAt: yup.string().required(),
            })
            .required(),
        )
        .required(),
    }),
  }),
  listSheetsOfSeveral: endpoint({
    method: 'get',
    path: '/together/sheets',
    summary: 'Suggested write-ups of several recordings, still in pencil',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(sheetSchema.required()) }),
  }),
  makeSheetOfSeveral: endpoint({
    isLarge: true,
    method: 'post',
    path: '/together/sheets',
    summary: 'Make a write-up of several recordings',
    params: none,
    query: none,
    body: yup.object({ scope: scopeSchema.required(), template: templateSchema.required() }).noUnknown(),
    response: sheetSchema,
  }),
  dropSheet: endpoint({
    method: 'delete',
    path: '/sheets/:id',
    summary: 'Drop a write-up',
    params: byId,
    query: none,
    body: null,
    response: doneSchema,
  }),
  saveWriteUpAsNote: endpoint({
    method: 'post',
    path: '/sheets/:id/note',
    summary:
      'Keep a write-up as a note; its to-dos are accepted only where that is said, else they stand there as proposed',
    params: byId,
    query: none,
    body: yup.object({ acceptsTodos: yup.boolean().default(false) }).noUnknown(),
    response: yup.object({ noteId: yup.string().uuid().required(), done: doneSchema.required() }),
  }),
};
