import type { QueryInterface } from 'sequelize';
import { id, json, references, text, times } from './columns';

/** Words replaced in many passages at once, with what stood there before. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.createTable('replacements', {
    id,
    account_id: references('accounts', 'CASCADE'),
    find: text,
    by: text,
    passages: json,
    ...times,
  });
}
