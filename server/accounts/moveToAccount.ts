import type { Transaction } from 'sequelize';
import { AccountRow } from '../models/account';
import { SettingsRow } from '../models/settings';
import { asServer } from './currentAccount';

const PLAIN = [
  ...['recordings', 'folders', 'todos', 'write_ups', 'jobs', 'slips', 'calendars', 'replacements'],
  ...['links', 'deeds', 'sheets', 'templates', 'note_versions', 'note_pictures', 'share_links'],
  'recalls',
];

/** Moves everything of a guest into an account; tags and projects of the same name become one. */
export async function moveToAccount(guest: string, account: string): Promise<void> {
  const database = AccountRow.sequelize!;
  await asServer(() =>
    database.transaction(async (transaction) => {
      const run = (sql: string) => database.query(sql, { transaction, replacements: { guest, account } });
      for (const table of PLAIN) await run(`UPDATE ${table} SET account_id = :account WHERE account_id = :guest`);
      await run(
        `UPDATE OR IGNORE recording_tags SET tag_id = (
           SELECT theirs.id FROM tags mine JOIN tags theirs ON theirs.name = mine.name AND theirs.account_id = :account
           WHERE mine.id = recording_tags.tag_id)
         WHERE tag_id IN (
           SELECT mine.id FROM tags mine JOIN tags theirs ON theirs.name = mine.name AND theirs.account_id = :account
           WHERE mine.account_id = :guest)`,
      );
      // Two notes of one day stay two: the guest's becomes a note of its own.
      await run(
        `UPDATE notes SET day = NULL, title = 'Note of ' || day WHERE account_id = :guest AND day IN (
           SELECT day FROM notes WHERE account_id = :account AND day IS NOT NULL)`,
      );
      await run('UPDATE notes SET account_id = :account WHERE account_id = :guest');
      for (const [table, links, column] of [
        ['people', 'recording_people', 'person_id'],
        ['projects', 'recordings', 'project_id'],
      ] as const) {
        await run(
          `UPDATE OR IGNORE ${links} SET ${column} = (
             SELECT theirs.id FROM ${table} mine JOIN ${table} theirs ON theirs.name = mine.name AND theirs.account_id = :account
             WHERE mine.id = ${links}.${column})
           WHERE ${column} IN (
             SELECT mine.id FROM ${table} mine JOIN ${table} theirs ON theirs.name = mine.name AND theirs.account_id = :account
             WHERE mine.account_id = :guest)`,
        );
      }
      for (const table of ['tags', 'projects', 'people', 'voices', 'language_models']) {
        await run(`UPDATE OR IGNORE ${table} SET account_id = :account WHERE account_id = :guest`);
      }
      await joinNames(guest, account, transaction);
      await run('DELETE FROM accounts WHERE id = :guest');
    }),
  );
}

/** Names and terms that the guest has listed go to the list of the account, behind its own. */
async function joinNames(guest: string, account: string, transaction: Transaction): Promise<void> {
  const mine = (await SettingsRow.findByPk(guest, { transaction }))?.settings.names ?? [];
  if (mine.length === 0) return;
  const row = await SettingsRow.findByPk(account, { transaction });
  const theirs = row?.settings.names ?? [];
  const names = [...theirs, ...mine.filter((m) => !theirs.some((t) => t.text === m.text))];
  await SettingsRow.upsert({ id: account, accountId: account, settings: { ...row?.settings, names } }, { transaction });
}
