import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { QueryTypes, Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';
import { filesOfAccount } from '../storage/accountFiles';
import { sha256Of } from '../storage/soundStore';
import { ArchiveProblem } from './archive';
import { type ReadOptions, restore } from './restore';
import { type ForeignKey, columnsOf, foreignKeysOf, objectTables } from './tables';

/** What came back, and what was there already and stayed as it was. */
export type MergedArchive = { recordings: number; notes: number; todos: number; alreadyHere: number };

/**
 * Stays behind: whose it is and on which devices, work that was under way, addresses that are secret to one server, and
 * the way back from changes, which names rows as they were there.
 */
const LEFT_OUT = new Set([
  ...['accounts', 'sessions', 'jobs', 'deeds', 'replacements', 'settings'],
  ...['todo_feeds', 'share_links', 'language_models'],
]);
/** Of one name there is one: what the account has already takes the place of the archive's. */
const BY_NAME: Readonly<Record<string, string>> = { tag_id: 'tags', person_id: 'people', project_id: 'projects' };
/** What these hold comes back with them only: a recording that is here keeps the words it has. */
const WHOLES = ['recordings', 'notes'] as const;
/** Whose rows must not belong to another account of this server. */
const OWN = [...WHOLES, 'folders', 'todos', 'slips', 'templates'];
const BUSY_TIMEOUT_MS = 60_000;

/**
 * Brings an archive into an account of a server that runs. What is missing comes back, what is here stays as it is;
 * either all of it or, when anything fails, nothing.
 * @throws ArchiveProblem where the archive cannot be used, holds several accounts, or belongs to somebody else here
 */
export async function mergeArchive(
  file: string,
  dataFolder: string,
  account: string,
  { onProgress = () => undefined, ...options }: ReadOptions = {},
): Promise<MergedArchive> {
  // On the same disk as where the files will lie, so that they only need to be renamed.
  const coming = path.join(dataFolder, 'archives', `${randomUUID()}.coming`);
  fs.mkdirSync(path.dirname(coming), { recursive: true });
  try {
    await restore(file, coming, { ...options, onProgress: (share) => onProgress(share * 0.9) });
    return await merge(coming, dataFolder, account);
  } finally {
    fs.rmSync(coming, { recursive: true, force: true });
  }
}

async function merge(coming: string, dataFolder: string, account: string): Promise<MergedArchive> {
  const database = new Sequelize({
    ...{ dialect: 'sqlite', dialectModule: sqlite3, storage: path.join(dataFolder, 'immeld.sqlite'), logging: false },
    pool: { max: 1, idle: Infinity, maxUses: Infinity },
  });
  database.addHook('afterConnect', (connection) => {
    (connection as sqlite3.Database).configure('busyTimeout', BUSY_TIMEOUT_MS);
  });
  const moved: string[] = [];
  try {
    const run = (sql: string, more: Record<string, unknown> = {}) =>
      database.query(sql, { replacements: { account, ...more } });
    await run('PRAGMA foreign_keys = ON');
    await run('ATTACH :file AS arch', { file: path.join(coming, 'immeld.sqlite') });
    const source = await sourceAccount(database, account);
    await refuseOfOthers(database, account);
    const archived = new Sequelize({
      ...{ dialect: 'sqlite', dialectModule: sqlite3, storage: path.join(coming, 'immeld.sqlite'), logging: false },
    });
    const files = await filesOfAccount(archived, source).finally(() => archived.close());
    const known = new Set(await filesOfAccount(database, account));
    await run('BEGIN IMMEDIATE');
    try {
      await prepare(run);
      for (const table of await objectTables(database)) {
        if (!LEFT_OUT.has(table)) await copy(database, run, table, source);
      }
      await run(
        `INSERT INTO settings (id, account_id, settings, created_at, updated_at)
         SELECT :account, :account, settings, created_at, updated_at FROM arch.settings WHERE account_id = :source
         ON CONFLICT (id) DO UPDATE SET settings = json_patch(excluded.settings, settings.settings)`,
        { source },
      );
      const result = await counted(database, source);
      for (const name of files) {
        if (!known.has(name)) await refuseForeign(coming, dataFolder, name);
        if (await takeFile(coming, dataFolder, name)) moved.push(name);
      }
      await run('COMMIT');
      return result;
    } catch (error) {
      await run('ROLLBACK').catch(() => undefined);
      throw error;
    }
  } catch (error) {
    for (const name of moved) await fs.promises.rm(path.join(dataFolder, name), { force: true });
    throw error;
  } finally {
    await database.close();
  }
}

type Run = (sql: string, more?: Record<string, unknown>) => Promise<unknown>;

const select = <T extends object>(database: Sequelize, sql: string, replacements: Record<string, unknown> = {}) =>
  database.query<T>(sql, { type: QueryTypes.SELECT, replacements });

/** The account of the archive that is meant: the only one with something in it, or the one of the same e-mail address. */
async function sourceAccount(database: Sequelize, account: string): Promise<string> {
  const found = await select<{ id: string; isSame: number }>(
    database,
    `SELECT a.id, coalesce(a.email = (SELECT email FROM main.accounts WHERE id = :account), 0) AS isSame
     FROM arch.accounts a WHERE EXISTS (SELECT 1 FROM arch.recordings WHERE account_id = a.id)
       OR EXISTS (SELECT 1 FROM arch.notes WHERE account_id = a.id) OR EXISTS (SELECT 1 FROM arch.todos WHERE account_id = a.id)`,
    { account },
  );
  const same = found.filter((f) => f.isSame);
  const [only, ...more] = same.length ? same : found;
  if (!only) throw new ArchiveProblem('This backup is empty: it contains no recordings, notes or to-dos.');
  if (more.length) {
    throw new ArchiveProblem(
      'This backup holds several accounts, but none with your email address. Restore it on the command line: immeld restore.',
    );
  }
  return only.id;
}

async function refuseOfOthers(database: Sequelize, account: string): Promise<void> {
  for (const table of OWN) {
    const [other] = await select(
      database,
      `SELECT 1 FROM arch.${table} a JOIN main.${table} m ON m.id = a.id WHERE m.account_id <> :account LIMIT 1`,
      { account },
    );
    if (other) {
      throw new ArchiveProblem(
        'The contents of this backup already belong to another account here. Sign in to that account; there is nothing to restore.',
      );
    }
  }
}

/** Notes what is here before anything is added. */
async function prepare(run: Run): Promise<void> {
  for (const table of WHOLES) {
    await run(`CREATE TEMP TABLE here_${table} AS SELECT id FROM main.${table}`);
    await run(`CREATE UNIQUE INDEX temp.here_${table}_id ON here_${table} (id)`);
  }
  for (const table of Object.values(BY_NAME)) {
    await run(
      `CREATE TEMP TABLE same_${table} AS SELECT a.id AS theirs, m.id AS mine
       FROM arch.${table} a JOIN main.${table} m ON m.name = a.name AND m.account_id = :account`,
    );
  }
}

const isWhole = (table: string): boolean => (WHOLES as readonly string[]).includes(table);

/** Adds the rows of a table that are missing, with the account that they belong to now. */
async function copy(database: Sequelize, run: Run, table: string, source: string): Promise<void> {
  const keys = await foreignKeysOf(database, table);
  const all = await columnsOf(database, table);
  const byColumn = new Map(keys.map((k) => [k.from, k]));
  // A key that is only a number is given anew.
  const columns = all.filter((c) => !(table === 'passages' && c === 'id'));
  const isNoted = table === 'notes';
  const ofDayHere = `a.day IN (SELECT day FROM main.notes WHERE account_id = :account AND day IS NOT NULL)`;
  const value = (column: string): string => {
    const byName = BY_NAME[column];
    if (column === 'account_id') return ':account';
    if (byName) return renamed(column, byName);
    // Two notes of one day stay two: the archive's becomes a note of its own.
    if (isNoted && column === 'day') return `CASE WHEN ${ofDayHere} THEN NULL ELSE a.day END`;
    if (isNoted && column === 'title') return `CASE WHEN ${ofDayHere} THEN 'Note for ' || a.day ELSE a.title END`;
    const key = byColumn.get(column);
    if (!key || key.table === table) return `a."${column}"`;
    return `CASE WHEN EXISTS (SELECT 1 FROM main."${key.table}" p WHERE p.id = a."${column}") THEN a."${column}" END`;
  };
  const conditions = [...(all.includes('account_id') ? ['a.account_id = :source'] : []), ...conditionsFor(table, keys)];
  if (Object.values(BY_NAME).includes(table)) conditions.push(`a.id NOT IN (SELECT theirs FROM same_${table})`);
  const names = columns.map((c) => `"${c}"`).join(', ');
  await run(
    `INSERT OR IGNORE INTO main."${table}" (${names}) SELECT ${columns.map(value).join(', ')} FROM arch."${table}" a
     ${conditions.length ? `WHERE ${conditions.join(' AND ')}` : ''} ORDER BY a.rowid`,
    { source },
  );
}

const renamed = (column: string, table: string): string =>
  `coalesce((SELECT mine FROM same_${table} WHERE theirs = a."${column}"), a."${column}")`;

/** What belongs to a recording or note comes only with it; what ties two things together needs both. */
function conditionsFor(table: string, keys: readonly ForeignKey[]): string[] {
  if (isWhole(table)) return [];
  const toWholes = keys.filter((k) => isWhole(k.table) && (k.onDelete === 'CASCADE' || table === 'todos'));
  if (toWholes.length === 0) return [];
  const isNew = toWholes.map(
    (k) =>
      `(EXISTS (SELECT 1 FROM main."${k.table}" p WHERE p.id = a."${k.from}")
        AND a."${k.from}" NOT IN (SELECT id FROM here_${k.table}))`,
  );
  const isAlone = toWholes.map((k) => `a."${k.from}" IS NULL`).join(' AND ');
  const areThere = keys
    .filter((k) => k.onDelete === 'CASCADE' && k.table !== 'accounts')
    .map((k) => {
      const column = BY_NAME[k.from] ? renamed(k.from, k.table) : `a."${k.from}"`;
      return `(${column} IS NULL OR EXISTS (SELECT 1 FROM main."${k.table}" p WHERE p.id = ${column}))`;
    });
  return [`(${isNew.join(' OR ')} OR (${isAlone}))`, ...areThere];
}

/** How much of the archive is here now that was not before. */
async function counted(database: Sequelize, source: string): Promise<MergedArchive> {
  const count = async (sql: string) => (await select<{ n: number }>(database, sql, { source }))[0]!.n;
  const ofArchive = (table: string) =>
    count(`SELECT count(*) AS n FROM arch.${table} WHERE account_id = :source AND binned_at IS NULL`);
  const isNew = (table: string) =>
    count(
      `SELECT count(*) AS n FROM arch.${table} a JOIN main.${table} m ON m.id = a.id
       WHERE a.account_id = :source AND a.binned_at IS NULL AND a.id NOT IN (SELECT id FROM here_${table})`,
    );
  const [recordings, notes] = [await isNew('recordings'), await isNew('notes')];
  const all = (await ofArchive('recordings')) + (await ofArchive('notes'));
  const todos = await count(
    `SELECT count(*) AS n FROM arch.todos a JOIN main.todos m ON m.id = a.id
     WHERE a.account_id = :source AND a.state = 'ink' AND a.binned_at IS NULL
       AND (a.recording_id IS NULL OR a.recording_id NOT IN (SELECT id FROM here_recordings))`,
  );
  return { recordings, notes, todos, alreadyHere: all - recordings - notes };
}

/** An archive names only files that it holds: nobody reaches by it what others have here. */
async function refuseForeign(coming: string, dataFolder: string, name: string): Promise<void> {
  const [from, to] = [path.join(coming, name), path.join(dataFolder, name)];
  if (!fs.existsSync(to)) return;
  if (!fs.existsSync(from) || (await sha256Of(from)) !== (await sha256Of(to))) {
    throw new ArchiveProblem(
      'This backup refers to files that it does not contain. It was changed after Immeld made it.',
    );
  }
}

/** Puts a file in its place. Returns false where it lies there already, or the archive does not have it. */
async function takeFile(coming: string, dataFolder: string, name: string): Promise<boolean> {
  const [from, to] = [path.join(coming, name), path.join(dataFolder, name)];
  if (fs.existsSync(to) || !fs.existsSync(from)) return false;
  await fs.promises.rename(from, to);
  return true;
}
