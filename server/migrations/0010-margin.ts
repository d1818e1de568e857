import { DataTypes, type QueryInterface } from 'sequelize';

/** Links and files in the margin, whom a slip is for, and what is said about it. */
export async function up(schema: QueryInterface): Promise<void> {
  for (const column of ['address', 'file', 'assignee', 'comments']) {
    await schema.addColumn('slips', column, { type: DataTypes.TEXT, allowNull: true });
  }
}
