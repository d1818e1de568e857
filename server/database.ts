import path from 'node:path';
import { Sequelize, Transaction } from 'sequelize';
import sqlite3 from 'sqlite3';
import { migrate } from './migrations/migrations';
import { initModels } from './models/models';

const BUSY_TIMEOUT_MS = 10_000;

/** These hold for one connection alone, and every transaction has its own. A power cut must not undo what was said to be safe. */
const FOR_EACH_CONNECTION = 'PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON';

async function prepare(connection: sqlite3.Database): Promise<void> {
  connection.configure('busyTimeout', BUSY_TIMEOUT_MS);
  await new Promise<void>((resolve, reject) =>
    connection.exec(FOR_EACH_CONNECTION, (error) => (error ? reject(error) : resolve())),
  );
}

/** Opens the database of a data folder, brings it to the newest form and binds the models to it. */
export async function openDatabase(dataFolder: string): Promise<Sequelize> {
  const database = new Sequelize({
    dialect: 'sqlite',
    dialectModule: sqlite3,
    storage: path.join(dataFolder, 'immeld.sqlite'),
    logging: false,
    define: { underscored: true },
    // Every transaction has a connection of its own: taking the write lock at once, they wait instead of failing.
    transactionType: Transaction.TYPES.IMMEDIATE,
    retry: { max: 5, match: [/SQLITE_BUSY/] },
  });
  database.addHook('afterConnect', (connection) => prepare(connection as sqlite3.Database));
  await database.query('PRAGMA journal_mode = WAL');
  await migrate(database);
  initModels(database);
  return database;
}
