import { DataTypes, type QueryInterface } from 'sequelize';

/** When the text of a note was written last: its title, folder and tags change without it. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('notes', 'text_changed_at', { type: DataTypes.DATE, allowNull: true });
  await schema.sequelize.query('UPDATE notes SET text_changed_at = updated_at WHERE body IS NOT NULL');
}
