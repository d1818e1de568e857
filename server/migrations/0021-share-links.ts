import type { QueryInterface } from 'sequelize';
import { id, no, optionalDate, optionalText, optionalWhole, references, text, times, whole } from './columns';

/** Links by which others read a recording or note. */
export async function up(schema: QueryInterface): Promise<void> {
  const ours = (table: string) => ({ ...references(table, 'CASCADE'), allowNull: true });
  await schema.createTable('share_links', {
    id,
    account_id: references('accounts', 'CASCADE'),
    recording_id: ours('recordings'),
    note_id: ours('notes'),
    token: { ...text, unique: true },
    with_sound: no,
    with_slips: no,
    with_write_ups: no,
    is_listed: no,
    password_hash: optionalText,
    last_day: optionalText,
    most_openings: optionalWhole,
    openings: whole,
    last_opened_at: optionalDate,
    stopped_at: optionalDate,
    ...times,
  });
}
