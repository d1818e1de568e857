import { DataTypes, type QueryInterface } from 'sequelize';
import { id, json, no, optionalDate, optionalText, references, text, times } from './columns';

/**
 * People, notes, order and pins of shelves, favourites and archive, links between notes and recordings, and what was
 * done with its way back.
 */
export async function up(schema: QueryInterface): Promise<void> {
  const owned = { account_id: references('accounts', 'CASCADE') };
  await schema.addColumn('folders', 'position', { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 });
  await schema.addColumn('tags', 'is_pinned', no);
  await schema.addColumn('recordings', 'is_favourite', no);
  await schema.addColumn('recordings', 'archived_at', optionalDate);
  await schema.addColumn('recordings', 'project_id', references('projects', 'SET NULL'));
  await schema.addIndex('recordings', ['folder_id']);
  await schema.createTable('people', { id, ...owned, name: text, other_names: json, ...times });
  await schema.addIndex('people', ['account_id', 'name'], { unique: true });
  await schema.createTable('recording_people', {
    recording_id: { ...references('recordings', 'CASCADE'), primaryKey: true },
    person_id: { ...references('people', 'CASCADE'), primaryKey: true },
  });
  await schema.createTable('notes', {
    id,
    ...owned,
    title: text,
    body: optionalText,
    text,
    /** The day whose note this is. */
    day: optionalText,
    folder_id: references('folders', 'SET NULL'),
    is_favourite: no,
    binned_at: optionalDate,
    archived_at: optionalDate,
    ...times,
  });
  await schema.addIndex('notes', ['account_id', 'day'], { unique: true });
  await schema.addIndex('notes', ['folder_id']);
  await schema.createTable('note_tags', {
    note_id: { ...references('notes', 'CASCADE'), primaryKey: true },
    tag_id: { ...references('tags', 'CASCADE'), primaryKey: true },
  });
  await schema.createTable('links', {
    id,
    ...owned,
    from_note_id: references('notes', 'CASCADE'),
    to_note_id: { ...references('notes', 'CASCADE'), allowNull: true },
    to_recording_id: { ...references('recordings', 'CASCADE'), allowNull: true },
    ...times,
  });
  await schema.addIndex('links', ['from_note_id']);
  await schema.addIndex('links', ['to_note_id']);
  await schema.addIndex('links', ['to_recording_id']);
  await schema.createTable('deeds', { id, ...owned, text, steps: json, undone_at: optionalDate, ...times });
  await schema.addIndex('deeds', ['account_id', 'created_at']);
}
