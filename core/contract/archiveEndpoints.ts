import * as yup from './yup';
import { byId, endpoint, none } from './endpoint';
import { exportSchema } from './exportEndpoints';

export const MIN_PASSPHRASE_LENGTH = 8;

const passphrase = () => yup.string().max(1000, 'A passphrase may have at most 1,000 characters.').nullable();

/** An archive that is being brought back into the account. */
export const restoreJobSchema = yup.object({
  id: yup.string().uuid().required(),
  state: yup.string().oneOf(['working', 'done', 'failed']).required(),
  percent: yup.number().min(0).max(100).required(),
  /** A sentence for the person; nothing was changed then. */
  problem: yup.string().defined().nullable(),
  /** Whether the archive is under a passphrase and this one was not given, or not right. */
  needsPassphrase: yup.boolean().required(),
  /** What came back, and how many recordings and notes were here already and stayed as they were. */
  result: yup
    .object({
      recordings: yup.number().integer().required(),
      notes: yup.number().integer().required(),
      todos: yup.number().integer().required(),
      alreadyHere: yup.number().integer().required(),
    })
    .defined()
    .nullable(),
});
export type RestoreJob = yup.InferType<typeof restoreJobSchema>;

/** Archives that the server writes by itself, if whoever runs it has said so. */
export const scheduledBackupsSchema = yup.object({
  isOn: yup.boolean().required(),
  everyHours: yup.number().required(),
  keep: yup.number().integer().required(),
  /** Instant of the last one that ended well (ISO 8601, UTC). */
  lastAt: yup.string().defined().nullable(),
  problem: yup.string().defined().nullable(),
});
export type ScheduledBackupState = yup.InferType<typeof scheduledBackupsSchema>;

export const ARCHIVE_ENDPOINTS = {
  makeArchive: endpoint({
    method: 'post',
    path: '/archives',
    summary: 'Make a backup of the account; it is downloaded like an export',
    params: none,
    query: none,
    body: yup
      .object({
        /** Under it the archive is encrypted; null for a plain zip. */
        passphrase: passphrase()
          .test(
            'long enough',
            `The passphrase needs at least ${MIN_PASSPHRASE_LENGTH} characters.`,
            (v) => v === null || v === undefined || v.length >= MIN_PASSPHRASE_LENGTH,
          )
          .defined(),
      })
      .noUnknown(),
    response: exportSchema,
  }),
  getKeptArchives: endpoint({
    method: 'get',
    path: '/archives/kept',
    summary: 'Whether the server makes scheduled backups, and the time of the last one',
    params: none,
    query: none,
    body: null,
    response: scheduledBackupsSchema,
  }),
  bringArchiveBack: endpoint({
    method: 'post',
    path: '/archives/:id/return',
    summary: 'Restore an uploaded backup into the account: adds what is missing and keeps what is here',
    params: byId,
    query: none,
    body: yup.object({ passphrase: passphrase().defined() }).noUnknown(),
    response: restoreJobSchema,
  }),
  getBringingBack: endpoint({
    method: 'get',
    path: '/archives/:id/return',
    summary: 'Progress of a restore',
    params: byId,
    query: none,
    body: null,
    response: restoreJobSchema,
  }),
};
