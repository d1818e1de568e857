import type { QueryInterface } from 'sequelize';
import { id, references, text, times } from './columns';

/** Earlier texts of notes, and the pictures in them. */
export async function up(schema: QueryInterface): Promise<void> {
  const owned = { account_id: references('accounts', 'CASCADE'), note_id: references('notes', 'CASCADE') };
  await schema.createTable('note_versions', { id, ...owned, body: text, text, ...times });
  await schema.addIndex('note_versions', ['note_id', 'created_at']);
  await schema.createTable('note_pictures', { id, ...owned, file: text, ...times });
  await schema.addIndex('note_pictures', ['note_id']);
}
