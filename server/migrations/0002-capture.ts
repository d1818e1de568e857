import { DataTypes, type QueryInterface } from 'sequelize';
import { id, no, optionalDate, optionalWhole, references, text, times, whole } from './columns';

/** What a device captured comes once, however often it is sent; slips stand in the margin at their moment. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('recordings', 'capture_id', { type: DataTypes.UUID, allowNull: true });
  await schema.addColumn('recordings', 'is_recovered', no);
  await schema.addIndex('recordings', ['capture_id'], { unique: true });
  await schema.createTable('slips', {
    id,
    recording_id: references('recordings', 'CASCADE'),
    kind: text,
    mark: { type: DataTypes.TEXT, allowNull: true },
    start_ms: whole,
    end_ms: optionalWhole,
    text,
    picture_file: { type: DataTypes.TEXT, allowNull: true },
    binned_at: optionalDate,
    ...times,
  });
  await schema.addIndex('slips', ['recording_id', 'start_ms']);
}
