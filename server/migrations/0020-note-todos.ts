import type { QueryInterface } from 'sequelize';
import { references } from './columns';

/** Check boxes that are written in a note are to-dos of it. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('todos', 'note_id', references('notes', 'SET NULL'));
  await schema.addIndex('todos', ['note_id']);
}
