import { Op, QueryTypes } from 'sequelize';
import { AccountRow } from '../models/account';
import { FIRST_ACCOUNT } from './firstAccount';
import { type RemovalParts, removeAccount } from './removeAccount';
import { SESSION_LIFETIME_MS } from './sessions';

const DAY_MS = 86_400_000;
/** A guest who has kept nothing is a visitor who went on. */
const EMPTY_AFTER_MS = 30 * DAY_MS;
const AT_ONCE = 500;
/** Whoever has something in one of these has kept something. */
const KEPT_IN = ['recordings', 'notes', 'todos', 'folders', 'calendars', 'settings', 'templates', 'people', 'projects'];

/**
 * Removes guests who kept nothing and have not been seen for 30 days, and those whose cookie has ended, so that nobody can
 * reach what they kept any more. Returns how many.
 */
export async function sweepGuests(parts: RemovalParts, now = Date.now()): Promise<number> {
  const database = AccountRow.sequelize!;
  const guests = (seenBefore: Date, more: string) =>
    database.query<{ id: string }>(
      `SELECT a.id FROM accounts a WHERE a.email IS NULL AND a.id <> :first AND a.created_at < :seenBefore
       AND NOT EXISTS (SELECT 1 FROM sessions s WHERE s.owner = a.id AND s.last_seen_at >= :seenBefore) ${more} LIMIT ${AT_ONCE}`,
      { replacements: { first: FIRST_ACCOUNT, seenBefore }, type: QueryTypes.SELECT },
    );
  const nothing = KEPT_IN.map((t) => `AND NOT EXISTS (SELECT 1 FROM ${t} k WHERE k.account_id = a.id)`).join(' ');
  const empty = await guests(new Date(now - EMPTY_AFTER_MS), nothing);
  await AccountRow.destroy({ where: { id: { [Op.in]: empty.map((a) => a.id) } } });
  const lost = await guests(new Date(now - SESSION_LIFETIME_MS - EMPTY_AFTER_MS), '');
  for (const { id } of lost) await removeAccount(id, parts);
  return empty.length + lost.length;
}
