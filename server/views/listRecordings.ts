import type { RecordingCard } from '@immeld/core/contract/recordings';
import type { RecordingListQuery } from '@immeld/core/contract/shelves';
import { QueryTypes, type Sequelize } from 'sequelize';
import { accountId } from '../accounts/currentAccount';
import { cardsOf } from './cards';

const PLACES: Record<RecordingListQuery['place'], string> = {
  all: 'binned_at IS NULL AND archived_at IS NULL',
  tray: 'binned_at IS NULL AND archived_at IS NULL AND filed_at IS NULL',
  shelves: 'binned_at IS NULL AND archived_at IS NULL AND filed_at IS NOT NULL',
  favourites: 'binned_at IS NULL AND archived_at IS NULL AND is_favourite = 1',
  archive: 'binned_at IS NULL AND archived_at IS NOT NULL',
  bin: 'binned_at IS NOT NULL',
};

const ORDERS: Record<RecordingListQuery['sort'], string> = {
  newest: 'started_at DESC, id',
  oldest: 'started_at, id',
  title: "coalesce(title, json_extract(suggestion, '$.title'), file_name) COLLATE NOCASE, id",
  longest: 'duration_ms DESC, id',
  arrived: 'coalesce(arrived_at, started_at) DESC, id',
};

/**
 * A page of the account's recordings, and how many there are in all. It is asked for more often than anything else, so the
 * database is asked directly: `server/migrations/0024-list-order.ts` has the index for it.
 */
export async function listRecordings(
  database: Sequelize,
  { place, sort, limit, offset, ...only }: RecordingListQuery,
): Promise<{ total: number; items: RecordingCard[] }> {
  const where = [
    `account_id = :account AND ${PLACES[place]}`,
    ...(only.folderId ? ['folder_id = :folderId'] : []),
    ...(only.projectId ? ['project_id = :projectId'] : []),
    ...(only.personId ? ['id IN (SELECT recording_id FROM recording_people WHERE person_id = :personId)'] : []),
    ...(only.tag
      ? [
          'id IN (SELECT recording_id FROM recording_tags JOIN tags t ON t.id = tag_id WHERE t.name = :tag AND t.account_id = :account)',
        ]
      : []),
  ].join(' AND ');
  const [page] = await database.query<{ total: number; ids: string }>(
    `SELECT (SELECT count(*) FROM recordings WHERE ${where}) AS total,
       (SELECT json_group_array(id) FROM
         (SELECT id FROM recordings WHERE ${where} ORDER BY ${ORDERS[sort]} LIMIT :limit OFFSET :offset)) AS ids`,
    { replacements: { account: accountId(), limit, offset, ...only }, type: QueryTypes.SELECT },
  );
  return { total: page!.total, items: await cardsOf(database, JSON.parse(page!.ids) as string[]) };
}
