import type { Transaction } from 'sequelize';
import { AccountRow } from '../models/account';
import { SettingsRow } from '../models/settings';
import { asServer } from './currentAccount';

const PLAIN = ['recordings', 'folders', 'todos', 'write_ups', 'jobs', 'slips', 'calendars'];

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
      for (const table of ['tags', 'projects', 'voices']) {
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
