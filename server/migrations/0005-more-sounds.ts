import { DataTypes, type QueryInterface } from 'sequelize';

/** A recording may go on in further sounds, each with its own file and date. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('recordings', 'more_sounds', { type: DataTypes.TEXT, allowNull: false, defaultValue: '[]' });
}
