import { DataTypes, type QueryInterface } from 'sequelize';

/** Which pack of the recogniser is to be used; null for the server's own. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('jobs', 'quality', { type: DataTypes.TEXT, allowNull: true });
}
