import { DataTypes, type QueryInterface } from 'sequelize';
import { id, json, no, optionalDate, optionalText, optionalWhole, references, text, times, whole } from './columns';

/** Recordings, passages, folders, tags, projects, to-dos, write-ups, jobs and the index of words. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.createTable('folders', {
    id,
    name: text,
    tint: text,
    parent_id: references('folders', 'SET NULL'),
    binned_at: optionalDate,
    ...times,
  });
  await schema.createTable('recordings', {
    id,
    title: optionalText,
    file_name: text,
    source: text,
    media_type: text,
    sound_file: text,
    playback_file: optionalText,
    sha256: { type: DataTypes.STRING(64), allowNull: false },
    size_bytes: whole,
    duration_ms: optionalWhole,
    started_at: text,
    state: text,
    problem: optionalText,
    folder_id: references('folders', 'SET NULL'),
    filed_at: optionalDate,
    binned_at: optionalDate,
    suggestion: json,
    peaks: json,
    model: optionalText,
    language: optionalText,
    ...times,
  });
  await schema.addIndex('recordings', ['sha256']);
  await schema.addIndex('recordings', ['started_at']);
  await schema.addIndex('recordings', ['filed_at', 'binned_at', 'started_at']);
  await schema.createTable('passages', {
    id: { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true },
    recording_id: references('recordings', 'CASCADE'),
    position: whole,
    start_ms: whole,
    end_ms: whole,
    speaker: optionalText,
    starts_paragraph: { type: DataTypes.BOOLEAN, allowNull: false },
    words: json,
    text,
  });
  await schema.addIndex('passages', ['recording_id', 'position'], { unique: true });
  await schema.createTable('tags', { id, name: { ...text, unique: true }, ...times });
  await schema.createTable('recording_tags', {
    recording_id: { ...references('recordings', 'CASCADE'), primaryKey: true },
    tag_id: { ...references('tags', 'CASCADE'), primaryKey: true },
  });
  await schema.createTable('projects', { id, name: { ...text, unique: true }, other_names: json, ...times });
  await schema.createTable('todos', {
    id,
    recording_id: references('recordings', 'SET NULL'),
    text,
    who: optionalText,
    due: optionalText,
    project: optionalText,
    quote: optionalText,
    start_ms: optionalWhole,
    state: text,
    done_at: optionalDate,
    binned_at: optionalDate,
    is_changed: no,
    ...times,
  });
  await schema.addIndex('todos', ['recording_id']);
  await schema.addIndex('todos', ['state', 'done_at', 'due']);
  await schema.createTable('write_ups', {
    id,
    recording_id: references('recordings', 'CASCADE'),
    template: text,
    sentences_asked: whole,
    state: text,
    sentences: json,
    edited_text: optionalText,
    ...times,
  });
  await schema.addIndex('write_ups', ['recording_id']);
  await schema.createTable('jobs', {
    id,
    recording_id: references('recordings', 'CASCADE'),
    state: text,
    percent: { type: DataTypes.FLOAT, allowNull: true },
    problem: optionalText,
    ...times,
  });
  await schema.addIndex('jobs', ['state', 'created_at']);
  await schema.sequelize.query(
    `CREATE VIRTUAL TABLE spoken USING fts5(text, recording_id UNINDEXED, start_ms UNINDEXED, kind UNINDEXED,
     tokenize = 'porter unicode61 remove_diacritics 2', prefix = '2 3')`,
  );
}
