import * as yup from 'yup';
import { accountSchema, newAccountSchema, sessionSchema, signInSchema } from './account';
import { byId, endpoint, listOf, none } from './endpoint';

/** Addresses of accounts and sessions. */
export const ACCOUNT_ENDPOINTS = {
  getAccount: endpoint({
    method: 'get',
    path: '/account',
    summary: 'Whose recordings these are',
    params: none,
    query: none,
    body: null,
    response: accountSchema,
  }),
  signUp: endpoint({
    method: 'post',
    path: '/account',
    summary: 'Give this device’s guest an e-mail address and a password; everything is kept',
    params: none,
    query: none,
    body: newAccountSchema,
    response: accountSchema,
  }),
  beGuest: endpoint({
    method: 'post',
    path: '/session/guest',
    summary: 'Begin at once as a guest; what is recorded belongs to this device’s cookie',
    params: none,
    query: none,
    body: null,
    response: accountSchema,
  }),
  signIn: endpoint({
    method: 'post',
    path: '/session',
    summary: 'Sign this device in; what was recorded here as a guest goes along',
    params: none,
    query: none,
    body: signInSchema,
    response: accountSchema,
  }),
  signOut: endpoint({
    method: 'delete',
    path: '/session',
    summary: 'Sign this device out',
    params: none,
    query: none,
    body: null,
    response: yup.object({ isSignedOut: yup.boolean().required() }),
  }),
  listSessions: endpoint({
    method: 'get',
    path: '/sessions',
    summary: 'Devices that are signed in',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(sessionSchema.required()) }),
  }),
  endSession: endpoint({
    method: 'delete',
    path: '/sessions/:id',
    summary: 'Sign another device out',
    params: byId,
    query: none,
    body: null,
    response: yup.object({ isSignedOut: yup.boolean().required() }),
  }),
};
