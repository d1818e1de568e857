import type { QueryInterface } from 'sequelize';
import { id, json, no, optionalDate, references, text, times, whole } from './columns';

/** Questions by which recordings are learned, each with its schedule. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.createTable('recalls', {
    id,
    account_id: references('accounts', 'CASCADE'),
    recording_id: references('recordings', 'CASCADE'),
    question: text,
    answer: text,
    start_ms: whole,
    end_ms: whole,
    is_own: no,
    schedule: json,
    due_at: text,
    binned_at: optionalDate,
    ...times,
  });
  await schema.addIndex('recalls', ['recording_id']);
  await schema.addIndex('recalls', ['account_id', 'due_at']);
}
