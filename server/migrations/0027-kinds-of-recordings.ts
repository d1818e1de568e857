import { DataTypes, type QueryInterface } from 'sequelize';
import { optionalText } from './columns';

/** What a recording is, as it was found and as its person says; whose the voice is; how sure a to-do was found. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('recordings', 'found_kind', optionalText);
  await schema.addColumn('recordings', 'chosen_kind', optionalText);
  await schema.addColumn('recordings', 'voice', optionalText);
  await schema.addColumn('todos', 'sure', { type: DataTypes.REAL, allowNull: true });
}
