import { AccountRow } from '../models/account';
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
      await run('DELETE FROM accounts WHERE id = :guest');
    }),
  );
}
