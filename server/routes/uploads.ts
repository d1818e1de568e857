import { FileStore } from '@tus/file-store';
import { Server, type Upload } from '@tus/server';
import fs from 'node:fs';
import path from 'node:path';
import { accountId, asAccount } from '../accounts/currentAccount';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import type { JobQueue } from '../jobs/queue';
import type { RestoreJobs } from '../backup/restoreJobs';
import { type HeldUpload, heldUpload } from '../storage/heldUploads';
import { type ImportedUpload, importUpload } from '../storage/importUpload';
import { type Refusal, checkRoom } from '../storage/storageRoom';
import type { SoundStore } from '../storage/soundStore';
import { log } from '../log';

export const UPLOAD_PATH = '/api/uploads';
/** Twenty gigabytes: five hours of video fit, a mistake does not fill the disk. */
const MAX_BYTES = 20 * 1024 ** 3;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;
const ABANDONED_AFTER_MS = 7 * 24 * 3600 * 1000;

/** Insufficient Storage (RFC 4918, section 11.5). */
const DISK_FULL = { status_code: 507, body: 'The server’s disk is full.\n' };
const REFUSALS = {
  disk: DISK_FULL,
  quota: { status_code: 507, body: 'The storage of this account is full.\n' },
  'too many': { status_code: 429, body: 'Too many uploads at once. Wait until some have finished.\n' },
} satisfies Record<Refusal, object>;
const NO_UPLOAD = { status_code: 404, body: 'This upload no longer exists.\n' };
/** Names that the package gives. */
const UPLOAD_ID = /^[0-9a-f]{32}$/;

/**
 * Resumable uploads by the tus protocol 1.0. The answer to the last piece names the recording in `Immeld-Recording`, the
 * hash of what lies on the disk in `Immeld-Sha256`, and, when the same sound was here already, says so in `Immeld-Already-Here`.
 * An archive, told by `archive` in its metadata, is named in `Immeld-Archive`.
 */
export function uploadServer(
  sounds: SoundStore,
  queue: JobQueue,
  archives: RestoreJobs,
  quotaBytes: number | null,
): Server {
  const server = new Server({
    path: UPLOAD_PATH,
    relativeLocation: true,
    maxSize: MAX_BYTES,
    datastore: new FileStore({ directory: sounds.uploadFolder, expirationPeriodInMilliseconds: ABANDONED_AFTER_MS }),
    exposedHeaders: ['Immeld-Archive', 'Immeld-Recording', 'Immeld-Already-Here', 'Immeld-Sha256'],
    onUploadCreate: async (_request, upload) => {
      const account = accountId()!;
      const refused = await checkRoom(upload.size ?? 0, { uploadFolder: sounds.uploadFolder, account, quotaBytes });
      if (refused) throw REFUSALS[refused];
      return { metadata: { ...upload.metadata, account } };
    },
    onResponseError: async (_request, error) => {
      if ('code' in error && error.code === 'ENOSPC') return DISK_FULL;
      // What the package has not been told to do is a fault of the request, not of the server.
      return 'status_code' in error && error.status_code === 501
        ? { status_code: 400, body: 'The length of an upload has to be known.\n' }
        : undefined;
    },
    onIncomingRequest: async (request, id) => {
      if (!UPLOAD_ID.test(id)) throw NO_UPLOAD;
      if (request.method === 'POST') return;
      const owner = (await heldUpload(id, sounds.uploadFolder))?.metadata?.['account'];
      if (owner !== accountId()) throw NO_UPLOAD;
    },
    onUploadFinish: async (_request, upload): Promise<{ headers: Record<string, string> }> => {
      const description = path.join(sounds.uploadFolder, `${upload.id}.json`);
      if (isArchive(upload)) {
        const id = await archives.take(uploadedFile(upload, sounds));
        await fs.promises.rm(description, { force: true });
        return { headers: { 'Immeld-Archive': id } };
      }
      const { recording, sha256, isNew, isAlreadyHere } = await importUpload(
        uploadedFile(upload, sounds),
        metadataOf(upload),
        sounds,
      );
      if (isNew && !recording.binnedAt) await queue.add(recording.id);
      await fs.promises.rm(description, { force: true });
      return {
        headers: {
          'Immeld-Recording': recording.id,
          'Immeld-Sha256': sha256,
          ...(isAlreadyHere ? { 'Immeld-Already-Here': recording.startedAt } : {}),
        },
      };
    },
  });
  return server;
}

const isArchive = (upload: Pick<Upload, 'metadata'>): boolean => upload.metadata?.['archive'] === '1';

/** Removes what was announced a week ago and never came. Returns how many. */
export const sweepUploads = (sounds: SoundStore): Promise<number> =>
  new FileStore({
    ...{ directory: sounds.uploadFolder, expirationPeriodInMilliseconds: ABANDONED_AFTER_MS },
  }).deleteExpired();

/**
 * Takes in what had arrived whole when the server died before it could make a recording of it: the device that sent
 * it believes it safe.
 */
export async function recoverFinishedUploads(sounds: SoundStore, queue: JobQueue): Promise<void> {
  for (const name of await fs.promises.readdir(sounds.uploadFolder)) {
    if (!name.endsWith('.json')) continue;
    const description = path.join(sounds.uploadFolder, name);
    try {
      const kept = JSON.parse(await fs.promises.readFile(description, 'utf8')) as HeldUpload;
      const file = path.join(sounds.uploadFolder, path.basename(kept.id));
      // Nobody waits any more for an archive that was sent to an earlier server.
      if (isArchive(kept)) {
        for (const left of [file, description]) await fs.promises.rm(left, { force: true });
        continue;
      }
      const { size } = await fs.promises.stat(file);
      if (kept.size === undefined || size !== kept.size) continue;
      await asAccount(kept.metadata?.['account'] ?? FIRST_ACCOUNT, async () => {
        const { recording, isNew } = await importUpload(file, metadataOf(kept), sounds);
        if (isNew && !recording.binnedAt) await queue.add(recording.id);
      });
      await fs.promises.rm(description, { force: true });
    } catch (error) {
      // One upload that cannot be read must not keep the others, or the server, from starting.
      log.error(error, `The upload ${name} could not be resumed.`);
    }
  }
}

const uploadedFile = (upload: Upload, sounds: SoundStore): string =>
  upload.storage?.path ?? path.join(sounds.uploadFolder, upload.id);

function metadataOf(upload: Pick<Upload, 'metadata'>): ImportedUpload {
  const metadata = upload.metadata ?? {};
  return {
    fileName: metadata['filename'] || 'Recording',
    startedAt: metadata['startedAt'] ?? null,
    durationMs: Number(metadata['durationMs']) || null,
    source: metadata['source'] === 'speak' ? 'speak' : 'import',
    captureId: metadata['captureId'] && UUID.test(metadata['captureId']) ? metadata['captureId'] : null,
    zone: metadata['zone'] || null,
    appointmentId: metadata['appointmentId'] || null,
    appendTo: metadata['appendTo'] && UUID.test(metadata['appendTo']) ? metadata['appendTo'] : null,
    videoOf: metadata['videoOf'] && UUID.test(metadata['videoOf']) ? metadata['videoOf'] : null,
    place: metadata['place'] ?? null,
    isRecovered: metadata['recovered'] === '1',
    isDictation: metadata['dictation'] === '1',
    isThrownAway: metadata['thrownAway'] === '1',
  };
}
