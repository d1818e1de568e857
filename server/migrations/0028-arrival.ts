import type { QueryInterface } from 'sequelize';
import { optionalText } from './columns';

/** When a file was brought in, local time: the tray has it among what came then, however old its sound is. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.addColumn('recordings', 'arrived_at', optionalText);
  await schema.sequelize.query(
    `UPDATE recordings SET arrived_at = strftime('%Y-%m-%dT%H:%M:%S', substr(created_at, 1, 19), 'localtime') WHERE source = 'import'`,
  );
  await schema.sequelize.query(
    `CREATE INDEX recordings_arrival_order ON recordings
     (account_id, binned_at, archived_at, coalesce(arrived_at, started_at) DESC, id, filed_at)`,
  );
}
