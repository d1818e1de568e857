import * as yup from './yup';
import { exportItemSchema } from './exportEndpoints';
import { byId, dateText, endpoint, listOf, none } from './endpoint';

export const MIN_LINK_PASSWORD_LENGTH = 6;
const mostOpenings = () =>
  yup
    .number()
    .integer()
    .min(1, 'Allow at least one opening.')
    .max(100_000, 'You can allow up to 100,000 openings.')
    .nullable();
const lastDay = () => dateText('Write the day like this: 2026-03-09.').nullable();

/** A link by which others read a recording or note without an account. */
export const shareLinkSchema = yup.object({
  id: yup.string().uuid().required(),
  item: exportItemSchema.required(),
  title: yup.string().defined(),
  /** The address below that of Immeld: `/s/…`. */
  path: yup.string().required(),
  withSound: yup.boolean().required(),
  withSlips: yup.boolean().required(),
  /** What was accepted: write-ups and to-dos. */
  withWriteUps: yup.boolean().required(),
  /** Also what nobody has accepted, marked as proposed. */
  withProposals: yup.boolean().required(),
  /** Whether search engines may list it. */
  isListed: yup.boolean().required(),
  hasPassword: yup.boolean().required(),
  /** The last day on which it opens. */
  lastDay: lastDay().defined(),
  mostOpenings: mostOpenings().defined(),
  openings: yup.number().integer().min(0).required(),
  /** Instants in ISO 8601. */
  lastOpenedAt: yup.string().defined().nullable(),
  madeAt: yup.string().required(),
  isStopped: yup.boolean().required(),
});
export type ShareLink = yup.InferType<typeof shareLinkSchema>;

export const newShareLinkSchema = yup
  .object({
    item: exportItemSchema.required(),
    withSound: yup.boolean().default(false),
    withSlips: yup.boolean().default(false),
    withWriteUps: yup.boolean().default(false),
    withProposals: yup.boolean().default(false),
    isListed: yup.boolean().default(false),
    password: yup
      .string()
      .min(MIN_LINK_PASSWORD_LENGTH, `The password needs at least ${MIN_LINK_PASSWORD_LENGTH} characters.`)
      .max(200, 'A password may have at most 200 characters.')
      .nullable()
      .default(null),
    lastDay: lastDay().default(null),
    mostOpenings: mostOpenings().default(null),
  })
  .noUnknown();
export type NewShareLink = yup.InferType<typeof newShareLinkSchema>;

export const SHARE_LINK_ENDPOINTS = {
  listShareLinks: endpoint({
    method: 'get',
    path: '/share-links',
    summary: 'All share links of recordings and notes, newest first',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(shareLinkSchema.required()) }),
  }),
  makeShareLink: endpoint({
    method: 'post',
    path: '/share-links',
    summary: 'Create a share link for a recording or note',
    params: none,
    query: none,
    body: newShareLinkSchema,
    response: shareLinkSchema,
  }),
  changeShareLink: endpoint({
    method: 'patch',
    path: '/share-links/:id',
    summary: 'Turn a share link off at once, even for current readers, or on again',
    params: byId,
    query: none,
    body: yup.object({ isStopped: yup.boolean().required() }).noUnknown(),
    response: shareLinkSchema,
  }),
  getShareLinkQr: endpoint({
    method: 'get',
    path: '/share-links/:id/qr',
    summary: 'The QR code of a share link',
    params: byId,
    query: none,
    body: null,
    response: null,
    answers: 'image/svg+xml',
  }),
};
