import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { once } from 'node:events';
import { pipeline } from 'node:stream/promises';
import { Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';
import yazl from 'yazl';
import { filesOfAccount } from '../storage/accountFiles';
import { sha256Of } from '../storage/soundStore';
import { ARCHIVE_VERSION, ArchiveProblem, FILE_FOLDERS, MANIFEST, type Manifest } from './archive';
import { encrypting } from './archiveEncryption';
import { asJson, migrationsOf, objectTables, rowsOf } from './tables';

export type BackupOptions = {
  /** Only what belongs to this account goes in; without it everything. */
  account?: string;
  /** Stops it; nothing is left of what was begun. */
  signal?: AbortSignal;
  /** Under it the archive is encrypted. */
  passphrase?: string;
  /** Told the share that is done, 0 to 1. */
  onProgress?: (share: number) => void;
};

const plainDatabase = (storage: string): Sequelize =>
  new Sequelize({ dialect: 'sqlite', dialectModule: sqlite3, storage, logging: false });

/**
 * Writes everything into one file, also while the server runs: a copy of the database at one instant (VACUUM INTO), its
 * objects as lines of JSON, and all sounds and pictures. The file is there whole or not at all.
 * @throws ArchiveProblem where there is nothing to keep
 */
export async function backup(dataFolder: string, target: string, options: BackupOptions = {}): Promise<Manifest> {
  const { passphrase, account, signal, onProgress = () => undefined } = options;
  const source = path.join(dataFolder, 'immeld.sqlite');
  if (!fs.existsSync(source)) throw new ArchiveProblem(`No Immeld data found in ${dataFolder}.`);
  const work = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-backup-'));
  const part = `${target}.part`;
  try {
    const snapshot = path.join(work, 'snapshot.sqlite');
    const live = plainDatabase(source);
    await live.query('VACUUM INTO ?', { replacements: [snapshot] });
    await live.close();
    await withoutSecrets(snapshot, account !== undefined);
    const own = account === undefined ? null : new Set(await keepOnly(snapshot, account));
    const { files, ...about } = await writeObjects(snapshot, work);
    const toAdd = files.map((name) => ({ name, file: path.join(work, name) }));
    for (const name of filesBelow(dataFolder)) {
      if (!own || own.has(name)) toAdd.push({ name, file: path.join(dataFolder, name) });
    }
    const zip = new yazl.ZipFile();
    const written: Manifest['files'] = [];
    for (const [i, { name, file }] of toAdd.entries()) {
      written.push({ path: name, size: fs.statSync(file).size, sha256: await sha256Of(file) });
      // Sound is compressed already.
      zip.addFile(file, name, { compress: name.startsWith('objects/') });
      signal?.throwIfAborted();
      onProgress(((i + 1) / toAdd.length) * 0.5);
    }
    const manifest: Manifest = {
      ...{ format: 'immeld-archive', version: ARCHIVE_VERSION, madeAt: new Date().toISOString() },
      ...about,
      files: written,
    };
    zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 1)), MANIFEST);
    zip.end();
    const out = fs.createWriteStream(part, { mode: 0o600 });
    const total = written.reduce((sum, f) => sum + f.size, 1);
    const counted = async function* (source: AsyncIterable<string | Buffer>) {
      let done = 0;
      for await (const bytes of source) {
        done += bytes.length;
        onProgress(0.5 + Math.min(1, done / total) * 0.5);
        yield bytes;
      }
    };
    if (passphrase) await pipeline(zip.outputStream, counted, await encrypting(passphrase), out, { signal });
    else await pipeline(zip.outputStream, counted, out, { signal });
    const handle = await fs.promises.open(part);
    await handle.sync();
    await handle.close();
    await fs.promises.rename(part, target);
    onProgress(1);
    return manifest;
  } finally {
    fs.rmSync(work, { recursive: true, force: true });
    fs.rmSync(part, { force: true });
  }
}

/** The files that go along, as paths below the data folder. */
const filesBelow = (dataFolder: string): string[] =>
  FILE_FOLDERS.flatMap((folder) => {
    const there = path.join(dataFolder, folder);
    const names = fs.existsSync(there) ? fs.readdirSync(there).filter((n) => !n.endsWith('.part')) : [];
    return names.map((name) => `${folder}/${name}`);
  });

/**
 * Takes out of a copy of the database what opens something: signed-in devices, secret addresses, the token of a language
 * model. Passwords' hashes stay in the archive of a whole server, as nobody could sign in without them.
 */
async function withoutSecrets(snapshot: string, isOfOneAccount: boolean): Promise<void> {
  const database = plainDatabase(snapshot);
  try {
    for (const table of ['sessions', 'share_links', 'todo_feeds']) await database.query(`DELETE FROM ${table}`);
    await database.query('UPDATE language_models SET token = NULL, is_on = 0, has_agreed = 0');
    if (isOfOneAccount) await database.query('UPDATE accounts SET password_hash = NULL');
    await database.query('VACUUM');
  } finally {
    await database.close();
  }
}

/** Takes out of a copy of the database what belongs to others. Returns the account's files. */
async function keepOnly(snapshot: string, account: string): Promise<string[]> {
  const database = plainDatabase(snapshot);
  try {
    await database.query('PRAGMA foreign_keys = ON');
    await database.query('DELETE FROM accounts WHERE id <> ?', { replacements: [account] });
    return await filesOfAccount(database, account);
  } finally {
    await database.close();
  }
}

/** Writes the objects of a copy of the database as files of JSON lines, one for each kind. */
async function writeObjects(
  snapshot: string,
  folder: string,
): Promise<{ migrations: string[]; objects: Record<string, number>; files: string[] }> {
  const database = plainDatabase(snapshot);
  fs.mkdirSync(path.join(folder, 'objects'));
  const objects: Record<string, number> = {};
  const files: string[] = [];
  for (const table of await objectTables(database)) {
    const name = `objects/${table}.jsonl`;
    const out = fs.createWriteStream(path.join(folder, name));
    objects[table] = 0;
    for await (const row of rowsOf(database, table)) {
      const line = JSON.stringify(Object.fromEntries(Object.entries(row).map(([k, v]) => [k, asJson(v)])));
      if (!out.write(`${line}\n`)) await once(out, 'drain');
      objects[table]++;
    }
    await new Promise<void>((resolve, reject) =>
      out.end((error?: Error | null) => (error ? reject(error) : resolve())),
    );
    files.push(name);
  }
  const migrations = await migrationsOf(database);
  await database.close();
  return { migrations, objects, files };
}
