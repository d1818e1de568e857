import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { QueryTypes, Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';
import { MIGRATION_NAMES, migrate } from '../migrations/migrations';
import { Archive, ArchiveProblem, type Manifest } from './archive';
import { LineTooLong, linesOf } from './lines';
import { PassphraseProblem, isEncrypted, decrypt } from './archiveEncryption';
import { columnsOf, fromJson, objectTables } from './tables';

export type ReadOptions = {
  passphrase?: string;
  onProgress?: (share: number) => void;
  /** Bytes that may still be written below a folder; asked of the file system unless it is given. */
  freeBytes?: (folder: string) => number;
};

const freeBytesOf = (folder: string): number => {
  const { bavail, bsize } = fs.statfsSync(folder);
  return bavail * bsize;
};
/** The database with its indices, as a multiple of the objects' JSON, at most. */
const DATABASE_PER_OBJECTS = 3;
const GIGABYTE = 1024 ** 3;
const MAX_OBJECTS = 2 * GIGABYTE;
const inGigabytes = (bytes: number): string => `${Math.max(0.1, bytes / GIGABYTE).toFixed(1)} GB`;

/**
 * Sound and pictures lie in an archive as they are, so unpacked they are no larger than the archive itself; of words there
 * are at most two gigabytes.
 * @throws ArchiveProblem where what the archive holds is made up, or does not fit on the disk
 */
function refuseTooLarge({ files }: Manifest, archiveBytes: number, free: number): void {
  const bytesOf = (areObjects: boolean) =>
    files.filter((f) => f.path.startsWith('objects/') === areObjects).reduce((sum, f) => sum + f.size, 0);
  if (bytesOf(false) > archiveBytes || bytesOf(true) > MAX_OBJECTS) {
    throw new ArchiveProblem('This archive unpacks to more than Immeld wrote. It was changed after Immeld made it.');
  }
  const needed = files.reduce(
    (sum, { path: name, size }) => sum + size * (name.startsWith('objects/') ? DATABASE_PER_OBJECTS : 1),
    0,
  );
  if (needed > free) {
    throw new ArchiveProblem(
      `Restoring this backup needs ${inGigabytes(needed)} on Immeld’s disk, and only ${inGigabytes(free)} are free. Free up space, then restore it again.`,
    );
  }
}

/** Opens an archive, locked or not, and gives it to `work`; what was unlocked is gone afterwards. */
async function withArchive<T>(
  file: string,
  { passphrase }: ReadOptions,
  work: (archive: Archive) => Promise<T>,
): Promise<T> {
  if (!fs.existsSync(file)) throw new ArchiveProblem(`The file ${file} does not exist.`);
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-archive-'));
  try {
    let plain = file;
    if (await isEncrypted(file)) {
      if (!passphrase) throw new PassphraseProblem('This backup is protected. Enter its passphrase.');
      plain = path.join(folder, 'archive.zip');
      await decrypt(file, passphrase, plain);
    }
    const archive = await Archive.open(plain);
    try {
      return await work(archive);
    } finally {
      archive.close();
    }
  } finally {
    fs.rmSync(folder, { recursive: true, force: true });
  }
}

/**
 * Reads a whole archive and compares every file with what the manifest says.
 * @throws ArchiveProblem where it is no whole archive
 */
export const verify = (file: string, options: ReadOptions = {}): Promise<Manifest> =>
  withArchive(file, options, async (archive) => {
    await refuseDamaged(archive, options.onProgress);
    return archive.manifest;
  });

async function refuseDamaged(archive: Archive, onProgress?: (share: number) => void): Promise<void> {
  const problems = await archive.problems(onProgress);
  if (problems.length) throw new ArchiveProblem(`The backup is damaged. ${problems.slice(0, 10).join(' ')}`);
}

/**
 * Brings everything back into a data folder that is empty or not there. It is built beside it and put in its place at
 * the end: an archive that cannot be used leaves everything as it was.
 * @throws ArchiveProblem where the archive cannot be used, or the folder holds data
 */
export function restore(file: string, dataFolder: string, options: ReadOptions = {}): Promise<Manifest> {
  return withArchive(file, options, async (archive) => {
    const { onProgress = () => undefined } = options;
    if (fs.existsSync(dataFolder) && fs.readdirSync(dataFolder).length > 0) {
      throw new ArchiveProblem(`${dataFolder} is not empty. Choose a new folder, or move this one away.`);
    }
    const { manifest } = archive;
    const unknown = manifest.migrations.filter((m) => !MIGRATION_NAMES.includes(m));
    if (unknown.length) {
      throw new ArchiveProblem('This backup was made by a newer version of Immeld. Update this one first.');
    }
    fs.mkdirSync(path.dirname(path.resolve(dataFolder)), { recursive: true });
    refuseTooLarge(
      manifest,
      archive.sizeBytes,
      (options.freeBytes ?? freeBytesOf)(path.dirname(path.resolve(dataFolder))),
    );
    await refuseDamaged(archive, (share) => onProgress(share * 0.4));
    const building = `${dataFolder.replace(/(?<![/\\])[/\\]+$/, '')}.restoring`;
    fs.rmSync(building, { recursive: true, force: true });
    fs.mkdirSync(building, { recursive: true, mode: 0o700 });
    try {
      const files = manifest.files.filter((f) => !f.path.startsWith('objects/'));
      for (const [i, { path: name }] of files.entries()) {
        await archive.extract(name, building);
        onProgress(0.4 + ((i + 1) / files.length) * 0.4);
      }
      await rebuild(archive, path.join(building, 'immeld.sqlite'));
      if (fs.existsSync(dataFolder)) fs.rmdirSync(dataFolder);
      fs.renameSync(building, dataFolder);
      onProgress(1);
      return manifest;
    } finally {
      fs.rmSync(building, { recursive: true, force: true });
    }
  });
}

const BATCH = 100;

/** A database as it was when the archive was made, then brought to the newest form. */
async function rebuild(archive: Archive, storage: string): Promise<void> {
  const { manifest } = archive;
  const database = new Sequelize({
    ...{ dialect: 'sqlite', dialectModule: sqlite3, storage, logging: false },
    // As the server opens it: the table of migrations is named by it.
    define: { underscored: true },
    pool: { max: 1, idle: Infinity, maxUses: Infinity },
  });
  try {
    await migrate(database, manifest.migrations);
    const run = (sql: string, replacements: unknown[] = []) => database.query(sql, { replacements });
    await run('PRAGMA foreign_keys = OFF');
    const tables = await objectTables(database);
    await run('BEGIN');
    // What the migrations put in is in the archive, as it has become since.
    for (const table of [...tables].reverse()) await run(`DELETE FROM "${table}"`);
    for (const table of tables) {
      const columns = await columnsOf(database, table);
      const names = columns.map((c) => `"${c}"`).join(', ');
      const places = `(${columns.map(() => '?').join(', ')})`;
      let waiting: unknown[][] = [];
      let count = 0;
      const write = async () => {
        if (waiting.length === 0) return;
        await run(`INSERT INTO "${table}" (${names}) VALUES ${waiting.map(() => places).join(', ')}`, waiting.flat());
        waiting = [];
      };
      for await (const line of linesOf(await archive.stream(`objects/${table}.jsonl`))) {
        if (!line) continue;
        const row = JSON.parse(line) as Record<string, Parameters<typeof fromJson>[0]>;
        waiting.push(columns.map((c) => fromJson(row[c] ?? null)));
        count++;
        if (waiting.length >= BATCH) await write();
      }
      await write();
      if (count !== manifest.objects[table]) {
        throw new ArchiveProblem(
          `The backup is damaged: ${table} has ${count} entries instead of ${manifest.objects[table]}.`,
        );
      }
    }
    await run('COMMIT');
    const loose = await database.query('PRAGMA foreign_key_check', { type: QueryTypes.SELECT });
    if (loose.length) throw new ArchiveProblem('The backup is damaged: some entries refer to others that are missing.');
    await migrate(database);
  } catch (error) {
    throw error instanceof LineTooLong ? new ArchiveProblem('This archive was changed after Immeld made it.') : error;
  } finally {
    await database.close();
  }
}
