import path from 'node:path';
import { Problem } from '@immeld/core/contract/problem';
import { type QueryOptionsWithType, type QueryTypes, Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';

/** What takes longer to be found is not waited for. */
const LIMIT_MS = 3000;
const CONNECTIONS = 2;

type Options = QueryOptionsWithType<QueryTypes.SELECT>;
/** Where finding asks its questions. */
export type FindDatabase = { query<T extends object>(sql: string, options: Options): Promise<T[]> };

type Connection = { database: Sequelize; handle: sqlite3.Database | null };

/**
 * Connections of their own for finding, which only read. A question that is hard to answer keeps no other request of the
 * server waiting, and is broken off after three seconds.
 */
export class FindReader implements FindDatabase {
  private readonly free: Connection[] = [];
  private readonly waiting: ((connection: Connection) => void)[] = [];
  private readonly all: Connection[] = [];

  constructor(dataFolder: string) {
    for (let i = 0; i < CONNECTIONS; i++) {
      const database = new Sequelize({
        ...{
          dialect: 'sqlite',
          dialectModule: sqlite3,
          storage: path.join(dataFolder, 'immeld.sqlite'),
          logging: false,
        },
        dialectOptions: { mode: sqlite3.OPEN_READONLY },
      });
      const connection: Connection = { database, handle: null };
      database.addHook('afterConnect', (handle) => {
        connection.handle = handle as sqlite3.Database;
      });
      this.all.push(connection);
      this.free.push(connection);
    }
  }

  /** @throws Problem where it takes too long */
  async query<T extends object>(sql: string, options: Options): Promise<T[]> {
    const connection = this.free.pop() ?? (await new Promise<Connection>((resolve) => this.waiting.push(resolve)));
    let isBroken = false;
    const limit = setTimeout(() => {
      isBroken = true;
      connection.handle?.interrupt();
    }, LIMIT_MS);
    try {
      return await connection.database.query<T>(sql, options);
    } catch (error) {
      if (isBroken) throw new Problem('too-large', 'This search takes too long. Use fewer or different words.');
      throw error;
    } finally {
      clearTimeout(limit);
      const next = this.waiting.shift();
      if (next) next(connection);
      else this.free.push(connection);
    }
  }

  async close(): Promise<void> {
    await Promise.all(this.all.map(({ database }) => database.close()));
  }
}
