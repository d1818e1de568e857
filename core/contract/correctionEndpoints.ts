import * as yup from './yup';
import { byId, endpoint, listOf, none } from './endpoint';
import { recordingSchema } from './recordings';
import { correctedSchema, correctionSchema, rewritingSchema, versionSchema, versionTextSchema } from './corrections';
import { paragraphChangeSchema } from './paragraphs';
import { replacedSchema, replacementPreviewSchema, replacementSchema, replacementSearchSchema } from './replacements';
import { speakerChangeSchema } from './speakers';

const byPassage = byId.shape({ passageId: yup.number().integer().required() });
const byVersion = byId.shape({ versionId: yup.string().uuid('This address is not one of Immeld’s.').required() });

/** Addresses of the text: corrections, replacements, speakers, paragraphs and versions. */
export const CORRECTION_ENDPOINTS = {
  correctPassage: endpoint({
    isLarge: true,
    method: 'patch',
    path: '/recordings/:id/passages/:passageId',
    summary: 'Give a passage another text; what stayed keeps its times',
    params: byPassage,
    query: none,
    body: correctionSchema,
    response: correctedSchema,
  }),
  rewritePassages: endpoint({
    isLarge: true,
    method: 'put',
    path: '/recordings/:id/passages',
    summary: 'Write passages that follow each other anew: corrected, parted, joined, or as they were before',
    params: byId,
    query: none,
    body: rewritingSchema,
    response: correctedSchema,
  }),
  previewReplacement: endpoint({
    isLarge: true,
    method: 'post',
    path: '/replacements/preview',
    summary: 'Where words stand in a recording, a folder or everywhere, and what would be read there instead',
    params: none,
    query: none,
    body: replacementSearchSchema,
    response: replacementPreviewSchema,
  }),
  replaceWords: endpoint({
    isLarge: true,
    method: 'post',
    path: '/replacements',
    summary: 'Replace words in the chosen places; what was changed since stays',
    params: none,
    query: none,
    body: replacementSchema,
    response: replacedSchema,
  }),
  undoReplacement: endpoint({
    method: 'post',
    path: '/replacements/:id/undo',
    summary: 'Take a replacement back where nothing was changed since; counts passages',
    params: byId,
    query: none,
    body: null,
    response: replacedSchema,
  }),
  changeSpeaker: endpoint({
    isLarge: true,
    method: 'patch',
    path: '/recordings/:id/speakers',
    summary: 'Give all passages of a speaker, or single ones, to somebody: named, joined, or put right',
    params: byId,
    query: none,
    body: speakerChangeSchema,
    response: yup.object({
      recording: recordingSchema.required(),
      /** The passages that changed hands; given back by the same call. */
      changed: yup.array().of(yup.number().integer().required()).required(),
    }),
  }),
  changeParagraphs: endpoint({
    method: 'put',
    path: '/recordings/:id/paragraphs',
    summary: 'Begin paragraphs by another rule; the words and their corrections stay',
    params: byId,
    query: none,
    body: paragraphChangeSchema,
    response: yup.object({
      recording: recordingSchema.required(),
      /** The passages that began a paragraph before. */
      before: yup.array().of(yup.number().integer().required()).required(),
    }),
  }),
  listVersions: endpoint({
    method: 'get',
    path: '/recordings/:id/versions',
    summary: 'The kept versions of the text, newest first',
    params: byId,
    query: none,
    body: null,
    response: yup.object({ items: listOf(versionSchema.required()) }),
  }),
  getVersion: endpoint({
    method: 'get',
    path: '/recordings/:id/versions/:versionId',
    summary: 'A kept version of the text',
    params: byVersion,
    query: none,
    body: null,
    response: versionTextSchema,
  }),
  takeVersion: endpoint({
    method: 'post',
    path: '/recordings/:id/versions/:versionId/take',
    summary: 'Make this version the text; what stands there now is kept as a version',
    params: byVersion,
    query: none,
    body: null,
    response: recordingSchema,
  }),
};
