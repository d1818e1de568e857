import { DataTypes, type QueryInterface } from 'sequelize';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import { id, optionalText, references, text, times } from './columns';

const OWNED = ['recordings', 'folders', 'todos', 'write_ups', 'jobs', 'slips', 'calendars', 'settings'];

/** Accounts and their devices; everything that was there before belongs to the first account. */
export async function up(schema: QueryInterface): Promise<void> {
  const run = (sql: string) => schema.sequelize.query(sql);
  await schema.createTable('accounts', {
    id,
    email: { ...optionalText, unique: true },
    password_hash: optionalText,
    ...times,
  });
  await schema.createTable('sessions', {
    id,
    owner: references('accounts', 'CASCADE'),
    token_hash: { ...text, unique: true },
    device: text,
    last_seen_at: { type: DataTypes.DATE, allowNull: false },
    ...times,
  });
  await run(
    `INSERT INTO accounts (id, created_at, updated_at) VALUES ('${FIRST_ACCOUNT}', datetime('now'), datetime('now'))`,
  );
  for (const table of OWNED) {
    await run(`ALTER TABLE ${table} ADD COLUMN account_id UUID REFERENCES accounts (id) ON DELETE CASCADE`);
    await run(`UPDATE ${table} SET account_id = '${FIRST_ACCOUNT}'`);
    await run(`CREATE INDEX ${table}_account_id ON ${table} (account_id)`);
  }
  await run(`UPDATE settings SET id = '${FIRST_ACCOUNT}'`);
  await run('DROP INDEX recordings_capture_id');
  await run('CREATE UNIQUE INDEX recordings_capture_id ON recordings (account_id, capture_id)');
  // Two people may have a tag or project of the same name: the rule moves from the name to account and name.
  await run('PRAGMA foreign_keys = OFF');
  for (const [table, more] of [
    ['tags', ''],
    ['projects', ', other_names'],
  ] as const) {
    await run(
      `CREATE TABLE new_${table} (id UUID NOT NULL PRIMARY KEY, account_id UUID REFERENCES accounts (id) ON DELETE CASCADE,
       name TEXT NOT NULL${more ? ', other_names JSON NOT NULL' : ''}, created_at DATETIME NOT NULL, updated_at DATETIME NOT NULL,
       UNIQUE (account_id, name))`,
    );
    await run(
      `INSERT INTO new_${table} (id, account_id, name${more}, created_at, updated_at)
       SELECT id, '${FIRST_ACCOUNT}', name${more}, created_at, updated_at FROM ${table}`,
    );
    await run(`DROP TABLE ${table}`);
    await run(`ALTER TABLE new_${table} RENAME TO ${table}`);
  }
  await run('PRAGMA foreign_keys = ON');
}
