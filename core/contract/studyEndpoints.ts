import * as yup from './yup';
import { byId, endpoint, listOf, none } from './endpoint';
import {
  dueRecallSchema,
  newRecallCardSchema,
  recallCardSchema,
  recallChangeSchema,
  recallProposalSchema,
  recallReviewSchema,
} from './study';

/** Addresses of what is learned from recordings. */
export const STUDY_ENDPOINTS = {
  listRecall: endpoint({
    method: 'get',
    path: '/recordings/:id/recall',
    summary: 'The questions of a recording, and those that are proposed',
    params: byId,
    query: none,
    body: null,
    response: yup.object({
      items: listOf(recallCardSchema.required()),
      proposals: listOf(recallProposalSchema.required()),
    }),
  }),
  addRecall: endpoint({
    method: 'post',
    path: '/recordings/:id/recall',
    summary: 'Keep a question; one that exists stays as it is',
    params: byId,
    query: none,
    body: newRecallCardSchema,
    response: recallCardSchema,
  }),
  changeRecall: endpoint({
    method: 'patch',
    path: '/recall/:id',
    summary: 'Change, bin or restore a question',
    params: byId,
    query: none,
    body: recallChangeSchema,
    response: recallCardSchema,
  }),
  reviewRecall: endpoint({
    method: 'post',
    path: '/recall/:id/reviews',
    summary: 'Say how well a question was answered; its next day follows',
    params: byId,
    query: none,
    body: recallReviewSchema,
    response: recallCardSchema,
  }),
  listDueRecall: endpoint({
    method: 'get',
    path: '/recall-due',
    summary: 'Recordings whose questions are due, most first',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(dueRecallSchema.required()) }),
  }),
};
