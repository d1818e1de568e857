import { DataTypes, type QueryInterface } from 'sequelize';
import { id, json, references, text, times } from './columns';

/** The voices that were told apart in a recording, and those that a person has named. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('recordings', 'voices', { type: DataTypes.TEXT });
  await schema.createTable('voices', {
    id,
    account_id: references('accounts', 'CASCADE'),
    name: text,
    recording_id: references('recordings', 'SET NULL'),
    voice: json,
    ...times,
  });
  await schema.addIndex('voices', ['account_id', 'name'], { unique: true });
}
