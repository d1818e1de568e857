import * as yup from './yup';
import { byId, endpoint, listOf, none } from './endpoint';
import { newCommentSchema, newSlipsSchema, slipChangeSchema, slipSchema } from './slips';

/** Addresses of what stands in the margin. */
export const SLIP_ENDPOINTS = {
  addSlips: endpoint({
    isLarge: true,
    method: 'post',
    path: '/recordings/:id/slips',
    summary: 'Add slips to the margin; slips that already exist stay as they are',
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
  addComment: endpoint({
    method: 'post',
    path: '/slips/:id/comments',
    summary: 'Add a comment to a slip; sending it twice adds it once',
    params: byId,
    query: none,
    body: newCommentSchema,
    response: slipSchema,
  }),
  removeComment: endpoint({
    method: 'delete',
    path: '/slips/:id/comments/:commentId',
    summary: 'Remove a comment',
    params: byId.shape({ commentId: yup.string().uuid('This address is not valid.').required() }),
    query: none,
    body: null,
    response: slipSchema,
  }),
  putSlipFile: endpoint({
    method: 'put',
    path: '/slips/:id/file',
    summary: 'Upload the file of a slip, as bytes, at most 50 MB',
    params: byId,
    query: yup.object({
      name: yup.string().trim().required('The file needs a name.').max(300, 'The file name is too long.'),
    }),
    body: null,
    response: slipSchema,
  }),
  getSlipFile: endpoint({
    method: 'get',
    path: '/slips/:id/file',
    summary: 'The file of a slip',
    params: byId,
    query: none,
    body: null,
    response: null,
    answers: 'application/octet-stream',
  }),
  putPicture: endpoint({
    method: 'put',
    path: '/slips/:id/picture',
    summary: 'Upload the picture of a slip, as bytes: PNG, JPEG, GIF or WebP, at most 20 MB',
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
};
