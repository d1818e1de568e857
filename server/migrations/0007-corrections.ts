import { DataTypes, type QueryInterface } from 'sequelize';
import { id, json, no, references, text, times } from './columns';

/** Passages are corrected one by one; what stood before is kept as a version of the whole text. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('passages', 'revision', { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 });
  await schema.addColumn('passages', 'is_corrected', no);
  await schema.createTable('transcript_versions', {
    id,
    recording_id: references('recordings', 'CASCADE'),
    kind: text,
    passages: json,
    ...times,
  });
  await schema.addIndex('transcript_versions', ['recording_id', 'created_at']);
}
