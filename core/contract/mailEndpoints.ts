import * as yup from './yup';
import { byId, endpoint, listOf, none } from './endpoint';

/** What most mail servers still take, with room for how attachments are written (a third more). */
export const MAX_MAIL_BYTES = 18 * 1024 * 1024;
const MAX_PEOPLE = 20;

const address = () =>
  yup
    .string()
    .trim()
    .max(254, 'The email address may have at most 254 characters.')
    .matches(
      /^[^\s@<>,;"]+@[^\s@<>,;".]+(?:\.[^\s@<>,;".]+)+$/,
      ({ value }) => `“${value}” is not a valid email address.`,
    )
    .required();

/** Whether and how this server sends mail. */
export const mailStateSchema = yup.object({
  isPossible: yup.boolean().required(),
  /** Whether mails go to the stand-in of the demo, which nobody gets. */
  isStandIn: yup.boolean().required(),
  largestBytes: yup.number().integer().required(),
});

export const newMailSchema = yup
  .object({
    to: yup
      .array()
      .of(address())
      .min(1, 'Enter at least one email address.')
      .max(MAX_PEOPLE, 'You can send to up to 20 people at once.')
      .required(),
    subject: yup
      .string()
      .trim()
      .min(1, 'Enter a subject.')
      .max(200, 'A subject may have at most 200 characters.')
      .required('Enter a subject.'),
    text: yup.string().max(5000, 'The message may have at most 5,000 characters.').defined(),
  })
  .noUnknown();
export type NewMail = yup.InferType<typeof newMailSchema>;

/** A mail as the stand-in got it. */
export const standInMailSchema = yup.object({
  id: yup.string().required(),
  /** Instant in ISO 8601, UTC. */
  receivedAt: yup.string().required(),
  to: listOf(yup.string().required()),
  subject: yup.string().defined(),
  text: yup.string().defined(),
  files: listOf(yup.object({ name: yup.string().required(), sizeBytes: yup.number().integer().required() }).required()),
});
export type StandInMail = yup.InferType<typeof standInMailSchema>;

export const MAIL_ENDPOINTS = {
  getMail: endpoint({
    method: 'get',
    path: '/mail',
    summary: 'Whether this server can send files by email',
    params: none,
    query: none,
    body: null,
    response: mailStateSchema,
  }),
  sendExport: endpoint({
    method: 'post',
    path: '/exports/:id/mail',
    summary: 'Email an exported file',
    params: byId,
    query: none,
    body: newMailSchema,
    response: yup.object({ sentTo: listOf(yup.string().required()), isStandIn: yup.boolean().required() }),
  }),
  listStandInMail: endpoint({
    method: 'get',
    path: '/mail/stand-in',
    summary: 'Emails in the demo’s stand-in mailbox for this account',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(standInMailSchema.required()) }),
  }),
};
