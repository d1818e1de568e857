import { QueryTypes, type Sequelize } from 'sequelize';

/** Made anew from the others when they are written, or kept by the migrations themselves. */
const NOT_OBJECTS = /^(?:sqlite_|sequelize_?meta$|places$|found)/i;

type Column = { name: string };
const all = <T extends object>(database: Sequelize, sql: string): Promise<T[]> =>
  database.query<T>(sql, { type: QueryTypes.SELECT });

/** The tables of objects, each behind those it points to. */
export async function objectTables(database: Sequelize): Promise<string[]> {
  const rows = await all<{ name: string }>(
    database,
    "SELECT name FROM sqlite_master WHERE type = 'table' AND sql NOT LIKE 'CREATE VIRTUAL%' ORDER BY name",
  );
  const names = rows.map((r) => r.name).filter((name) => !NOT_OBJECTS.test(name));
  const ordered: string[] = [];
  const place = async (name: string, above: readonly string[]): Promise<void> => {
    if (ordered.includes(name) || above.includes(name)) return;
    for (const { table } of await all<{ table: string }>(database, `PRAGMA foreign_key_list("${name}")`)) {
      if (names.includes(table)) await place(table, [...above, name]);
    }
    ordered.push(name);
  };
  for (const name of names) await place(name, []);
  return ordered;
}

/** Names of the migrations that a database has gone through, in order. */
export async function migrationsOf(database: Sequelize): Promise<string[]> {
  const [table] = await all<{ name: string }>(
    database,
    "SELECT name FROM sqlite_master WHERE type = 'table' AND lower(replace(name, '_', '')) = 'sequelizemeta'",
  );
  if (!table) return [];
  return (await all<{ name: string }>(database, `SELECT name FROM "${table.name}" ORDER BY name`)).map((m) => m.name);
}

export const columnsOf = async (database: Sequelize, table: string): Promise<string[]> =>
  (await all<Column>(database, `PRAGMA table_info("${table}")`)).map((c) => c.name);

export type ForeignKey = { from: string; table: string; onDelete: string };

/** Columns of a table that point to rows of others. */
export const foreignKeysOf = async (database: Sequelize, table: string): Promise<ForeignKey[]> =>
  (await all<ForeignKey & { on_delete: string }>(database, `PRAGMA foreign_key_list("${table}")`)).map((k) => ({
    ...{ from: k.from, table: k.table, onDelete: k.on_delete },
  }));

const PAGE = 500;

/** The rows of a table in the order they were made, some at a time. */
export async function* rowsOf(database: Sequelize, table: string): AsyncGenerator<Record<string, unknown>> {
  // Tables without a rowid have none to page by; Immeld has none of them.
  for (let last = -1; ;) {
    const rows = await all<Record<string, unknown> & { archive_row: number }>(
      database,
      `SELECT rowid AS archive_row, * FROM "${table}" WHERE rowid > ${last} ORDER BY rowid LIMIT ${PAGE}`,
    );
    for (const { archive_row, ...row } of rows) {
      last = archive_row;
      yield row;
    }
    if (rows.length < PAGE) return;
  }
}

type Kept = string | number | null | { base64: string };

/** A value as JSON holds it; bytes as base64. */
export const asJson = (value: unknown): Kept =>
  Buffer.isBuffer(value) ? { base64: value.toString('base64') } : ((value ?? null) as Kept);
export const fromJson = (value: Kept): unknown =>
  typeof value === 'object' && value !== null ? Buffer.from(value.base64, 'base64') : value;
