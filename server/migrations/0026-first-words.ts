import type { QueryInterface } from 'sequelize';
import { optionalDate, optionalText } from './columns';

/** The text that a recording has until it is transcribed, and who is to be transcribed first. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('recordings', 'draft', optionalText);
  await schema.addColumn('jobs', 'front_at', optionalDate);
}
