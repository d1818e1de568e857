import { DataTypes, type QueryInterface } from 'sequelize';

/** How the sound is cleaned before it is recognised, where somebody wanted that. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('jobs', 'cleaning', { type: DataTypes.TEXT, allowNull: true });
}
