import type { QueryInterface } from 'sequelize';
import { no, optionalText, references, text, times, whole } from './columns';

/** The language model of an account, and which write-ups one wrote. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.createTable('language_models', {
    account_id: { ...references('accounts', 'CASCADE'), primaryKey: true },
    is_on: no,
    address: text,
    model: text,
    token: optionalText,
    timeout_seconds: whole,
    has_agreed: no,
    ...times,
  });
  await schema.addColumn('sheets', 'is_by_model', no);
}
