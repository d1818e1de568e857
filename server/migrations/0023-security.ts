import { DataTypes, type QueryInterface } from 'sequelize';
import { FIRST_ACCOUNT } from '../accounts/firstAccount';
import { no, optionalDate } from './columns';

/**
 * The first account is given to one guest only. Secret addresses are looked up by a hash; they lie in the database sealed.
 * Links show what was accepted, and proposals only where that was wanted.
 */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('accounts', 'claimed_at', optionalDate);
  await schema.sequelize.query(
    `UPDATE accounts SET claimed_at = datetime('now') WHERE id = '${FIRST_ACCOUNT}'
     AND (email IS NOT NULL OR EXISTS (SELECT 1 FROM sessions WHERE owner = '${FIRST_ACCOUNT}'))`,
  );
  for (const table of ['todo_feeds', 'share_links']) {
    await schema.addColumn(table, 'token_hash', { type: DataTypes.TEXT, allowNull: true });
    await schema.sequelize.query(`CREATE UNIQUE INDEX ${table}_token_hash ON ${table} (token_hash)`);
  }
  await schema.addColumn('share_links', 'with_proposals', no);
}
