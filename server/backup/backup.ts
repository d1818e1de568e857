import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { once } from 'node:events';
import { pipeline } from 'node:stream/promises';
import { Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';
import yazl from 'yazl';
import { sha256Of } from '../storage/soundStore';
import { ARCHIVE_VERSION, ArchiveProblem, FILE_FOLDERS, MANIFEST, type Manifest } from './archive';
import { locking } from './locked';
import { asJson, migrationsOf, objectTables, rowsOf } from './tables';

export type BackupOptions = {
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
  const { passphrase, onProgress = () => undefined } = options;
  const source = path.join(dataFolder, 'immeld.sqlite');
  if (!fs.existsSync(source)) throw new ArchiveProblem(`There is no data of Immeld in ${dataFolder}.`);
  const work = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-backup-'));
  const part = `${target}.part`;
  try {
    const snapshot = path.join(work, 'snapshot.sqlite');
    const live = plainDatabase(source);
    await live.query('VACUUM INTO ?', { replacements: [snapshot] });
    await live.close();
    const { files, ...about } = await writeObjects(snapshot, work);
    const toAdd = files.map((name) => ({ name, file: path.join(work, name) }));
    for (const folder of FILE_FOLDERS) {
      const there = path.join(dataFolder, folder);
      const names = fs.existsSync(there) ? fs.readdirSync(there).filter((n) => !n.endsWith('.part')) : [];
      toAdd.push(...names.map((name) => ({ name: `${folder}/${name}`, file: path.join(there, name) })));
    }
    const zip = new yazl.ZipFile();
    const written: Manifest['files'] = [];
    for (const [i, { name, file }] of toAdd.entries()) {
      written.push({ path: name, size: fs.statSync(file).size, sha256: await sha256Of(file) });
      // Sound is compressed already.
      zip.addFile(file, name, { compress: name.startsWith('objects/') });
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
    if (passphrase) await pipeline(zip.outputStream, locking(passphrase), out);
    else await pipeline(zip.outputStream, out);
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
