import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type { RestoreJob } from '@immeld/core/contract/archiveEndpoints';
import { Problem } from '@immeld/core/contract/problem';
import { Op } from 'sequelize';
import { accountId, asServer } from '../accounts/currentAccount';
import type { JobQueue } from '../jobs/queue';
import { Recording } from '../models/recording';
import { ProcessProblem, inProcess } from '../tasks/inProcess';
import { ArchiveProblem } from './archive';
import { PassphraseProblem } from './archiveEncryption';
import { log } from '../log';

const KEPT_MS = 86_400_000;

export const ARCHIVE_RULES = { memoryMb: 1500, limitMs: 6 * 3_600_000 };
export const ARCHIVE_PROBLEMS: ReadonlySet<string> = new Set([ArchiveProblem.name, PassphraseProblem.name]);

type Kept = { account: string; file: string; view: RestoreJob | null };

/** Archives that were sent to this server, and the work of bringing them back. What was sent waits a day. */
export class RestoreJobs {
  private readonly folder: string;
  private readonly kept = new Map<string, Kept>();

  constructor(
    private readonly dataFolder: string,
    private readonly queue: JobQueue,
  ) {
    this.folder = path.join(dataFolder, 'archives');
    // What an earlier server was sent, nobody can name any more.
    fs.rmSync(this.folder, { recursive: true, force: true });
    fs.mkdirSync(this.folder, { recursive: true });
  }

  /** Takes in a file that has arrived. @returns the id by which it is named from now on */
  async take(source: string): Promise<string> {
    const id = randomUUID();
    const file = path.join(this.folder, `${id}.immeld`);
    await fs.promises.rename(source, file);
    this.kept.set(id, { account: accountId()!, file, view: null });
    setTimeout(() => void this.drop(id), KEPT_MS).unref();
    return id;
  }

  /** Begins, or begins again with another passphrase. */
  begin(id: string, passphrase: string | null): RestoreJob {
    const kept = this.find(id);
    if (kept.view?.state === 'working') throw new Problem('not-possible-now', 'This backup is already being restored.');
    kept.view = { id, state: 'working', percent: 0, problem: null, needsPassphrase: false, result: null };
    void this.work(id, kept, passphrase);
    return { ...kept.view };
  }

  get(id: string): RestoreJob {
    const { view } = this.find(id);
    if (!view) throw new Problem('not-found', 'This restore has not started.');
    return { ...view };
  }

  /** Removes what an account has sent. */
  async forget(account: string): Promise<void> {
    for (const [id, kept] of this.kept) if (kept.account === account) await this.drop(id);
  }

  private find(id: string): Kept {
    const kept = this.kept.get(id);
    if (!kept || kept.account !== accountId()) {
      throw new Problem('not-found', 'This backup is no longer on the server. Choose the file again.');
    }
    return kept;
  }

  private async drop(id: string): Promise<void> {
    const kept = this.kept.get(id);
    if (!kept || kept.view?.state === 'working') return;
    this.kept.delete(id);
    await fs.promises.rm(kept.file, { force: true });
  }

  private async work(id: string, kept: Kept, passphrase: string | null): Promise<void> {
    const view = kept.view!;
    try {
      const { file, account } = kept;
      view.result = await inProcess(
        { kind: 'bring back', file, dataFolder: this.dataFolder, account, passphrase },
        { ...ARCHIVE_RULES, onProgress: (share) => (view.percent = Math.round(share * 100)) },
      );
      view.percent = 100;
      view.state = 'done';
      await fs.promises.rm(kept.file, { force: true });
      await this.recogniseRest(kept.account);
    } catch (error) {
      view.state = 'failed';
      view.needsPassphrase = error instanceof ProcessProblem && error.kind === PassphraseProblem.name;
      view.problem = sentenceFor(error);
      // A passphrase can be tried again with what was sent; anything else needs another file.
      if (!view.needsPassphrase) await fs.promises.rm(kept.file, { force: true });
    }
  }

  /** What had not been recognised when the archive was made, is now. */
  private async recogniseRest(account: string): Promise<void> {
    await asServer(async () => {
      const rows = await Recording.findAll({
        where: { accountId: account, binnedAt: null, state: { [Op.in]: ['waiting', 'recognising'] } },
      });
      for (const row of rows) await this.queue.add(row.id);
    });
  }
}

function sentenceFor(error: unknown): string {
  if (error instanceof ProcessProblem && ARCHIVE_PROBLEMS.has(error.kind)) return error.message;
  if (error instanceof ProcessProblem && error.kind === 'TooHeavy') {
    return 'This archive is too large for the server to read. Nothing was changed.';
  }
  if ((error as NodeJS.ErrnoException)?.code === 'ENOSPC') {
    return 'The server’s disk is full. Nothing was changed. Free up space on the server, then try again.';
  }
  log.error(error, 'A backup could not be restored.');
  return 'The backup could not be restored. Nothing was changed. Try again.';
}
