import type { QueryInterface } from 'sequelize';

/** Lists of recordings are counted and read in their order without looking at every recording of the account. */
export async function up(schema: QueryInterface): Promise<void> {
  await schema.sequelize.query(
    `CREATE INDEX recordings_list_order ON recordings
     (account_id, binned_at, archived_at, started_at DESC, id, filed_at, is_favourite, folder_id, project_id)`,
  );
}
