import type { QueryInterface } from 'sequelize';
import { id, json, references, text, times } from './columns';

/** Templates of one's own, and write-ups that are still in pencil. */
export async function up(schema: QueryInterface): Promise<void> {
  const owned = { account_id: references('accounts', 'CASCADE') };
  await schema.createTable('templates', { id, ...owned, name: text, template: json, ...times });
  await schema.createTable('sheets', {
    id,
    ...owned,
    recording_id: references('recordings', 'CASCADE'),
    template: json,
    sections: json,
    ...times,
  });
  await schema.addIndex('sheets', ['recording_id']);
}
