import path from 'node:path';
import sqlite3 from 'sqlite3';

/** Another server works in this data folder. */
export class FolderInUse extends Error {
  constructor(folder: string) {
    super(`Another Immeld server is already using ${folder}. Stop it first, or choose another folder.`);
    this.name = 'FolderInUse';
  }
}

/**
 * Takes a data folder for this server alone. Nothing in it may be touched before. The lock is one of the operating system,
 * held through a small database of its own (SQLite, “File Locking And Concurrency”), so it ends with the process, however
 * that ends.
 * @returns a function that gives it free
 * @throws FolderInUse where another server has it
 */
export async function lockDataFolder(folder: string): Promise<() => Promise<void>> {
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(path.join(folder, 'server.lock'), (error) =>
      error ? reject(error) : resolve(opened),
    );
  });
  const close = () => new Promise<void>((resolve) => database.close(() => resolve()));
  try {
    await new Promise<void>((resolve, reject) =>
      database.exec('PRAGMA journal_mode = DELETE; BEGIN EXCLUSIVE', (error) => (error ? reject(error) : resolve())),
    );
  } catch (error) {
    await close();
    if ((error as NodeJS.ErrnoException).code === 'SQLITE_BUSY') throw new FolderInUse(folder);
    throw error;
  }
  return close;
}
