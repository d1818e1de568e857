import { DataTypes, type QueryInterface } from 'sequelize';

/** The video that belongs to a sound, and the place that a file states. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('recordings', 'video', { type: DataTypes.TEXT });
  await schema.addColumn('recordings', 'place', { type: DataTypes.TEXT });
}
