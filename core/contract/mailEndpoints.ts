import * as yup from './yup';
import { byId, endpoint, listOf, none } from './endpoint';

/** What most mail servers still take, with room for how attachments are written (a third more). */
export const LARGEST_MAIL_BYTES = 18 * 1024 * 1024;
const MOST_PEOPLE = 20;

const address = () =>
  yup
    .string()
    .trim()
    .max(254, 'An e-mail address may have at most 254 characters.')
    .matches(/^[^\s@<>,;"]+@[^\s@<>,;".]+(?:\.[^\s@<>,;".]+)+$/, ({ value }) => `“${value}” is not an e-mail address.`)
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
      .min(1, 'To whom? Give at least one e-mail address.')
      .max(MOST_PEOPLE, 'To at most 20 people at once.')
      .required(),
    subject: yup
      .string()
      .trim()
      .min(1, 'A mail needs a subject.')
      .max(200, 'A subject may have at most 200 characters.')
      .required('A mail needs a subject.'),
    text: yup.string().max(5000, 'The words of a mail may be at most 5,000 characters.').defined(),
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
    summary: 'Whether files can be sent by mail from here',
    params: none,
    query: none,
    body: null,
    response: mailStateSchema,
  }),
  sendExport: endpoint({
    method: 'post',
    path: '/exports/:id/mail',
    summary: 'Send a file that was made by mail',
    params: byId,
    query: none,
    body: newMailSchema,
    response: yup.object({ sentTo: listOf(yup.string().required()), isStandIn: yup.boolean().required() }),
  }),
  listStandInMail: endpoint({
    method: 'get',
    path: '/mail/stand-in',
    summary: 'What the stand-in mailbox of the demo got from this account',
    params: none,
    query: none,
    body: null,
    response: yup.object({ items: listOf(standInMailSchema.required()) }),
  }),
};
