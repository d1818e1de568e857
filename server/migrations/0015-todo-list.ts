import { DataTypes, type QueryInterface } from 'sequelize';
import { optionalText, references, text, times } from './columns';

/** Priority, order, notes, repetition and snoozing of to-dos, and private addresses for calendar programs. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('todos', 'found_text', optionalText);
  await schema.addColumn('todos', 'priority', optionalText);
  await schema.addColumn('todos', 'repeat', optionalText);
  await schema.addColumn('todos', 'notes', { ...text, defaultValue: '' });
  await schema.addColumn('todos', 'snoozed_until', optionalText);
  await schema.addColumn('todos', 'position', { type: DataTypes.REAL, allowNull: true });
  await schema.addColumn('todos', 'next_id', { type: DataTypes.UUID, allowNull: true });
  await schema.sequelize.query('UPDATE todos SET found_text = text WHERE quote IS NOT NULL');
  await schema.createTable('todo_feeds', {
    account_id: { ...references('accounts', 'CASCADE'), primaryKey: true },
    token: { ...text, unique: true },
    ...times,
  });
}
