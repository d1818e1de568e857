import fs from 'node:fs';
import path from 'node:path';
import type { ScheduledBackupState as View } from '@immeld/core/contract/archiveEndpoints';
import { ProcessProblem, inProcess } from '../tasks/inProcess';
import { ARCHIVE_PROBLEMS, ARCHIVE_RULES } from './restoreJobs';
import { log } from '../log';

export type ScheduledBackupOptions = {
  /** Where they lie: best another disk, or a folder that is copied elsewhere. */
  folder: string;
  everyHours: number;
  /** So many of the newest stay. */
  keep: number;
  passphrase?: string;
};

const HOUR_MS = 3_600_000;
const LOOK_EVERY_MS = 60_000;
/** Only what was written here is ever removed. */
const OWN_NAME = /^immeld-(\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2})\.immeld(?:\.zip)?$/;

/** How archives are kept by the server, from its environment; null where nobody has asked for it. */
export function scheduledBackupOptions(environment: NodeJS.ProcessEnv): ScheduledBackupOptions | null {
  const folder = environment['IMMELD_BACKUP_FOLDER'];
  if (!folder) return null;
  const number = (name: string, usual: number): number => {
    const text = environment[name];
    if (text === undefined || text === '') return usual;
    const value = Number(text);
    if (!Number.isFinite(value) || value < 1) throw new Error(`${name} must be a number from 1 up, not “${text}”.`);
    return value;
  };
  const passphrase = environment['IMMELD_PASSPHRASE'];
  return {
    folder: path.resolve(folder),
    everyHours: number('IMMELD_BACKUP_EVERY_HOURS', 24),
    keep: Math.floor(number('IMMELD_BACKUP_KEEP', 7)),
    ...(passphrase ? { passphrase } : {}),
  };
}

/** Archives of the whole server that it writes by itself; the oldest go when there are enough of them. */
export class ScheduledBackups {
  private timer: ReturnType<typeof setInterval> | null = null;
  private lastAt: Date | null = null;
  private problem: string | null = null;
  private working: Promise<void> | null = null;

  constructor(
    private readonly dataFolder: string,
    private readonly options: ScheduledBackupOptions | null,
    private readonly now: () => Date = () => new Date(),
  ) {}

  get view(): View {
    const { everyHours = 0, keep = 0 } = this.options ?? {};
    return {
      ...{ isOn: this.options !== null, everyHours, keep, problem: this.problem },
      lastAt: this.lastAt?.toISOString() ?? null,
    };
  }

  /** Looks from time to time whether one is due; also after a sleep of the machine. */
  start(): void {
    if (!this.options) return;
    this.lastAt = this.newest();
    const look = () => void this.keepIfDue();
    this.timer = setInterval(look, LOOK_EVERY_MS).unref();
    look();
  }

  async close(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    await this.working;
  }

  /** Writes one if the last is old enough. What fails is said, and tried again. */
  keepIfDue(): Promise<void> {
    const { options } = this;
    const isDue =
      options && (!this.lastAt || this.now().getTime() - this.lastAt.getTime() >= options.everyHours * HOUR_MS);
    if (isDue) this.working ??= this.keep(options).finally(() => (this.working = null));
    return this.working ?? Promise.resolve();
  }

  private async keep({ folder, keep, passphrase }: ScheduledBackupOptions): Promise<void> {
    const at = this.now();
    try {
      await fs.promises.mkdir(folder, { recursive: true, mode: 0o700 });
      const name = `immeld-${at.toISOString().slice(0, 19).replaceAll(':', '-')}.immeld${passphrase ? '' : '.zip'}`;
      const target = path.join(folder, name);
      const task = { kind: 'backup', dataFolder: this.dataFolder, target, account: null } as const;
      await inProcess({ ...task, passphrase: passphrase ?? null }, ARCHIVE_RULES);
      this.lastAt = at;
      this.problem = null;
      // Only when the new one is there, old ones go.
      for (const old of this.names().slice(keep)) await fs.promises.rm(path.join(folder, old), { force: true });
    } catch (error) {
      log.error(error, 'The scheduled backup could not be saved.');
      this.problem = sentenceFor(error);
    }
  }

  /** Those that were written here, newest first. */
  private names(): string[] {
    const { folder } = this.options!;
    if (!fs.existsSync(folder)) return [];
    return fs
      .readdirSync(folder)
      .filter((name) => OWN_NAME.test(name))
      .sort()
      .reverse();
  }

  private newest(): Date | null {
    const stamp = OWN_NAME.exec(this.names()[0] ?? '')?.[1];
    if (!stamp) return null;
    const [day, time] = stamp.split('T') as [string, string];
    return new Date(`${day}T${time.replaceAll('-', ':')}Z`);
  }
}

function sentenceFor(error: unknown): string {
  if (error instanceof ProcessProblem && ARCHIVE_PROBLEMS.has(error.kind)) return error.message;
  const { code } = error as NodeJS.ErrnoException;
  if (code === 'ENOSPC') return 'The last backup failed because the backup disk is full.';
  if (code === 'EACCES' || code === 'EPERM' || code === 'EROFS')
    return 'The last backup failed because Immeld may not write to the backup folder.';
  return 'The last backup failed.';
}
