import * as yup from './yup';
import { byId, endpoint, listOf, none } from './endpoint';
import { newCommentSchema, newSlipsSchema, slipChangeSchema, slipSchema } from './slips';

/** Addresses of what stands in the margin. */
export const SLIP_ENDPOINTS = {
  addSlips: endpoint({
    isLarge: true,
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
  addComment: endpoint({
    method: 'post',
    path: '/slips/:id/comments',
    summary: 'Say something about a slip; sent twice it stands there once',
    params: byId,
    query: none,
    body: newCommentSchema,
    response: slipSchema,
  }),
  removeComment: endpoint({
    method: 'delete',
    path: '/slips/:id/comments/:commentId',
    summary: 'Take a comment away',
    params: byId.shape({ commentId: yup.string().uuid('This address is not one of Immeld’s.').required() }),
    query: none,
    body: null,
    response: slipSchema,
  }),
  putSlipFile: endpoint({
    method: 'put',
    path: '/slips/:id/file',
    summary: 'The file of a slip, as its bytes, at most 50 MB',
    params: byId,
    query: yup.object({
      name: yup.string().trim().required('A file needs its name.').max(300, 'The name is too long.'),
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
};
