import { DataTypes, type QueryInterface } from 'sequelize';
import { id, json, optionalText, references, times } from './columns';

/** Write-ups of several recordings, and which write-ups were made of a recording by themselves. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.renameTable('sheets', 'old_sheets');
  await schema.createTable('sheets', {
    id,
    account_id: references('accounts', 'CASCADE'),
    recording_id: { ...references('recordings', 'CASCADE'), allowNull: true },
    scope: { type: DataTypes.JSON, allowNull: true },
    template: json,
    sections: json,
    ...times,
  });
  await schema.sequelize.query(
    `INSERT INTO sheets (id, account_id, recording_id, template, sections, created_at, updated_at)
     SELECT id, account_id, recording_id, template, sections, created_at, updated_at FROM old_sheets`,
  );
  await schema.dropTable('old_sheets');
  await schema.addIndex('sheets', ['recording_id']);
  await schema.addColumn('recordings', 'usual_write_ups', optionalText);
}
