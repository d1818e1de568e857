import * as yup from './yup';
import { byId, endpoint, listOf, none } from './endpoint';
import { recordingSchema } from './recordings';
import { correctedSchema, correctionSchema, rewritingSchema, versionSchema, versionTextSchema } from './corrections';
import { paragraphChangeSchema } from './paragraphs';
import { replacedSchema, replacementPreviewSchema, replacementSchema, replacementSearchSchema } from './replacements';
import { speakerChangeSchema } from './speakers';

const byPassage = byId.shape({ passageId: yup.number().integer().required() });
const byVersion = byId.shape({ versionId: yup.string().uuid('This address is not valid.').required() });

/** Addresses of the text: corrections, replacements, speakers, paragraphs and versions. */
export const CORRECTION_ENDPOINTS = {
  correctPassage: endpoint({
    isLarge: true,
    method: 'patch',
    path: '/recordings/:id/passages/:passageId',
    summary: 'Change the text of a passage; unchanged words keep their times',
    params: byPassage,
    query: none,
    body: correctionSchema,
    response: correctedSchema,
  }),
  rewritePassages: endpoint({
    isLarge: true,
    method: 'put',
    path: '/recordings/:id/passages',
    summary: 'Replace neighbouring passages: corrected, split, merged or reverted',
    params: byId,
    query: none,
    body: rewritingSchema,
    response: correctedSchema,
  }),
  previewReplacement: endpoint({
    isLarge: true,
    method: 'post',
    path: '/replacements/preview',
    summary: 'Where words occur in a recording, a folder or everywhere, and what would replace them',
    params: none,
    query: none,
    body: replacementSearchSchema,
    response: replacementPreviewSchema,
  }),
  replaceWords: endpoint({
    isLarge: true,
    method: 'post',
    path: '/replacements',
    summary: 'Replace words in the chosen places; passages changed since then stay',
    params: none,
    query: none,
    body: replacementSchema,
    response: replacedSchema,
  }),
  undoReplacement: endpoint({
    method: 'post',
    path: '/replacements/:id/undo',
    summary: 'Undo a replacement where nothing was changed since; counts passages',
    params: byId,
    query: none,
    body: null,
    response: replacedSchema,
  }),
  changeSpeaker: endpoint({
    isLarge: true,
    method: 'patch',
    path: '/recordings/:id/speakers',
    summary: 'Assign all passages of a speaker, or single passages, to a person',
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
    summary: 'Divide the text into paragraphs by another rule; words and corrections stay',
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
    summary: 'Saved versions of the text, newest first',
    params: byId,
    query: none,
    body: null,
    response: yup.object({ items: listOf(versionSchema.required()) }),
  }),
  getVersion: endpoint({
    method: 'get',
    path: '/recordings/:id/versions/:versionId',
    summary: 'A saved version of the text',
    params: byVersion,
    query: none,
    body: null,
    response: versionTextSchema,
  }),
  restoreVersion: endpoint({
    method: 'post',
    path: '/recordings/:id/versions/:versionId/take',
    summary: 'Restore a version of the text; the current text is saved as a version',
    params: byVersion,
    query: none,
    body: null,
    response: recordingSchema,
  }),
};
