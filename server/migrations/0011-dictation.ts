import type { QueryInterface } from 'sequelize';
import { no } from './columns';

/** Recordings in which spoken commands are done and not written. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('recordings', 'is_dictation', no);
}
