import fs from 'node:fs';
import path from 'node:path';
import { Recording } from '../models/recording';
import { type HeldUpload, heldUpload } from './heldUploads';

/** What the database and what is made of a sound need, so that a large file does not take the last of the disk. */
const ROOM_LEFT_BYTES = 64 * 1024 ** 2;
/** So many files may be on their way from one account at once. */
export const MAX_OPEN_UPLOADS = 100;

type OnItsWay = { account: string | undefined; missingBytes: number; sizeBytes: number };

/** What has been announced and has not all arrived. */
async function onTheirWay(uploadFolder: string): Promise<OnItsWay[]> {
  const names = (await fs.promises.readdir(uploadFolder)).filter((n) => n.endsWith('.json'));
  const held = await Promise.all(names.map((n) => heldUpload(n.slice(0, -'.json'.length), uploadFolder)));
  return Promise.all(
    held
      .filter((h): h is HeldUpload => h !== null)
      .map(async ({ id, size = 0, metadata }) => {
        const stat = await fs.promises.stat(path.join(uploadFolder, path.basename(id))).catch(() => null);
        const arrived = stat?.size ?? 0;
        return {
          account: metadata?.['account'] ?? undefined,
          missingBytes: Math.max(0, size - arrived),
          sizeBytes: size,
        };
      }),
  );
}

export type Refusal = 'disk' | 'quota' | 'too many';

/**
 * Whether a file may come. What others have announced is reserved for them: ten announcements of twenty gigabytes do not
 * all fit because none of them has arrived yet.
 * @param quotaBytes what an account may keep; null for as much as the disk holds
 */
export async function checkRoom(
  bytes: number,
  { uploadFolder, account, quotaBytes }: { uploadFolder: string; account: string; quotaBytes: number | null },
): Promise<Refusal | null> {
  const coming = await onTheirWay(uploadFolder);
  const own = coming.filter((c) => c.account === account);
  if (own.length >= MAX_OPEN_UPLOADS) return 'too many';
  const { bavail, bsize } = await fs.promises.statfs(uploadFolder);
  const reserved = coming.reduce((sum, c) => sum + c.missingBytes, 0);
  if (bavail * bsize < bytes + reserved + ROOM_LEFT_BYTES) return 'disk';
  if (quotaBytes === null) return null;
  const kept = Number((await Recording.sum('sizeBytes')) ?? 0);
  return kept + own.reduce((sum, c) => sum + c.sizeBytes, 0) + bytes > quotaBytes ? 'quota' : null;
}
