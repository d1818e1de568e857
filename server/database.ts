import path from 'node:path';
import { Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';
import { migrate } from './migrations/migrations';
import { initModels } from './models/models';

/** Opens the database of a data folder, brings it to the newest form and binds the models to it. */
export async function openDatabase(dataFolder: string): Promise<Sequelize> {
  const database = new Sequelize({
    dialect: 'sqlite',
    dialectModule: sqlite3,
    storage: path.join(dataFolder, 'immeld.sqlite'),
    logging: false,
    define: { underscored: true },
    pool: { max: 1, min: 1, idle: Infinity as unknown as number },
    retry: { max: 5, match: [/SQLITE_BUSY/] },
  });
  await database.query('PRAGMA journal_mode = WAL');
  // A power cut must not undo what was said to be safe.
  await database.query('PRAGMA synchronous = FULL');
  await database.query('PRAGMA foreign_keys = ON');
  await database.query('PRAGMA busy_timeout = 5000');
  await migrate(database);
  initModels(database);
  return database;
}
