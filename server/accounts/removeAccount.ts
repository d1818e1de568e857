import fs from 'node:fs';
import path from 'node:path';
import type { Removed } from '@immeld/core/contract/account';
import type { Sequelize } from 'sequelize';
import type { RestoreJobs } from '../backup/restoreJobs';
import type { ExportJobs } from '../exports/exportJobs';
import type { JobQueue } from '../jobs/queue';
import { AccountRow } from '../models/account';
import { JobRow } from '../models/job';
import { NoteRow } from '../models/note';
import { Recording } from '../models/recording';
import { filesOfAccount } from '../storage/accountFiles';
import { uploadsOf } from '../storage/heldUploads';
import type { SoundStore } from '../storage/soundStore';
import { asServer } from './currentAccount';
import { log } from '../log';

export type RemovalParts = { sounds: SoundStore; queue: JobQueue; files: ExportJobs; bringings: RestoreJobs };

/**
 * Deletes an account for good: its rows, sound, pictures, what was being sent, and what was made to be taken along. The
 * database is written anew, so that nothing of it can be read from its free pages afterwards.
 * @returns what was removed; `left` names files that are still there
 */
export async function removeAccount(
  account: string,
  { sounds, queue, files, bringings }: RemovalParts,
): Promise<Removed> {
  return asServer(async () => {
    const database = AccountRow.sequelize!;
    const where = { accountId: account };
    for (const { id } of await JobRow.findAll({ where: { ...where, state: ['waiting', 'running'] } })) {
      await queue.cancel(id);
    }
    await files.forget(account);
    await bringings.forget(account);
    const [recordings, notes] = [await Recording.count({ where }), await NoteRow.count({ where })];
    const dataFolder = path.dirname(sounds.folder);
    const own = (await filesOfAccount(database, account)).map((name) => path.join(dataFolder, name));
    const held = await uploadsOf(account, sounds.uploadFolder);
    await database.query('DELETE FROM accounts WHERE id = ?', { replacements: [account] });
    const isWrittenOver = await writeOver(database);
    const there = [...own, ...held].filter((file) => fs.existsSync(file));
    for (const file of there) await fs.promises.rm(file, { force: true }).catch(() => undefined);
    const left = there.filter((file) => fs.existsSync(file)).map((file) => path.basename(file));
    if (!isWrittenOver) left.push('immeld.sqlite');
    return { recordings, notes, files: there.length - left.length, left };
  });
}

/** Writes the index and the database anew without what was deleted from them. Returns whether it could be done. */
async function writeOver(database: Sequelize): Promise<boolean> {
  try {
    await database.query("INSERT INTO found (found) VALUES ('optimize')");
    await database.query('VACUUM');
    await database.query('PRAGMA wal_checkpoint(TRUNCATE)');
    return true;
  } catch (error) {
    log.error(error, 'The database could not be compacted after an account was deleted.');
    return false;
  }
}
