import { barsOf } from '@immeld/core/audio/peaks';
import type { RecordingCard } from '@immeld/core/contract/recordings';
import { QueryTypes, type Sequelize } from 'sequelize';
import { accountId } from '../accounts/currentAccount';
import { readTodos } from '../todos/readTodos';
import { STRIP_BARS, firstWords, inSpokenOrder, todoView } from './recordingView';

/** A card but for what takes more than the database to make. */
type Row = Omit<RecordingCard, 'strip' | 'pencilTodos' | 'firstWords'> & { firstWords: string | null };

const YES = `json('true')`;
const NO = `json('false')`;
const isSet = (column: string) => `iif(${column} IS NULL, ${NO}, ${YES})`;
const isTrue = (column: string) => `iif(${column}, ${YES}, ${NO})`;

/** So much of a passage is enough to cut its first words from. */
const READ_LENGTH = 400;

/** Made to JSON by the database: one text is read much sooner than fifty rows of twenty cells. */
const CARD = `json_object('id', r.id, 'title', r.title, 'fileName', r.file_name, 'source', r.source, 'state', r.state,
  'problem', r.problem, 'draft', r.draft, 'startedAt', r.started_at, 'durationMs', r.duration_ms, 'folderId', r.folder_id,
  'suggestion', json(r.suggestion), 'project', p.name, 'appointment', json(r.appointment),
  'isFiled', ${isSet('r.filed_at')}, 'isBinned', ${isSet('r.binned_at')}, 'isArchived', ${isSet('r.archived_at')},
  'isFavourite', ${isTrue('r.is_favourite')}, 'isRecovered', ${isTrue('r.is_recovered')},
  'tags', (SELECT json_group_array(t.name) FROM recording_tags l JOIN tags t ON t.id = l.tag_id WHERE l.recording_id = r.id),
  'people', (SELECT json_group_array(n.name) FROM recording_people l JOIN people n ON n.id = l.person_id
   WHERE l.recording_id = r.id),
  'firstWords', (SELECT group_concat(w.beginning, ' ') FROM (SELECT substr(written, 1, ${READ_LENGTH}) AS beginning
   FROM passages WHERE recording_id = r.id AND position < 2 ORDER BY position) w))`;

/** Strips by recording, as they were when the row was last written: they are looked at far more often than they change. */
const knownStrips = new Map<string, { updatedAt: string; strip: number[] }>();
const MAX_KNOWN = 5000;

type Select = <T extends object>(sql: string, replacements: Record<string, unknown>) => Promise<T[]>;

async function stripsOf(
  rows: readonly { id: string; updatedAt: string }[],
  select: Select,
): Promise<Map<string, number[]>> {
  if (knownStrips.size + rows.length > MAX_KNOWN) knownStrips.clear();
  const missing = rows.filter((r) => knownStrips.get(r.id)?.updatedAt !== r.updatedAt);
  const read = missing.length
    ? await select<{ id: string; peaks: string }>(
        'SELECT id, peaks FROM recordings WHERE id IN (SELECT value FROM json_each(:missing))',
        { missing: JSON.stringify(missing.map((r) => r.id)) },
      )
    : [];
  const updatedAt = new Map(missing.map((r) => [r.id, r.updatedAt]));
  for (const { id, peaks: text } of read) {
    const peaks = JSON.parse(text) as number[];
    knownStrips.set(id, { updatedAt: updatedAt.get(id)!, strip: peaks.length ? barsOf(peaks, STRIP_BARS) : [] });
  }
  return new Map(rows.map((r) => [r.id, knownStrips.get(r.id)?.strip ?? []]));
}

const byName = (names: readonly string[]): string[] => [...names].sort((a, b) => a.localeCompare(b));

/**
 * Recordings as lists show them, in the order of their ids; those that are not the account's are left out. A list is asked for
 * more often than anything else, so its rows are read as they lie in the database, without making models of them.
 */
export async function cardsOf(database: Sequelize, ids: readonly string[]): Promise<RecordingCard[]> {
  if (ids.length === 0) return [];
  const select: Select = <T extends object>(sql: string, replacements: Record<string, unknown>) =>
    database.query<T>(sql, { replacements, type: QueryTypes.SELECT });
  // The plus keeps SQLite from going through all recordings of the account instead of these few.
  const [read, todos] = await Promise.all([
    select<{ cards: string; changed: string }>(
      `SELECT json_group_array(${CARD}) AS cards, json_group_array(json_object('id', r.id, 'updatedAt', r.updated_at)) AS changed
       FROM recordings r LEFT JOIN projects p ON p.id = r.project_id
       WHERE +r.account_id = :account AND r.id IN (SELECT value FROM json_each(:ids))`,
      { account: accountId(), ids: JSON.stringify(ids) },
    ),
    readTodos(database, { states: ['pencil'], recordingIds: ids }),
  ]);
  const rows = new Map((JSON.parse(read[0]!.cards) as Row[]).map((r) => [r.id, r]));
  const strips = await stripsOf(JSON.parse(read[0]!.changed) as { id: string; updatedAt: string }[], select);
  return ids.flatMap((id) => {
    const row = rows.get(id);
    if (!row) return [];
    return {
      ...row,
      firstWords: firstWords(row.firstWords ?? ''),
      ...{ tags: byName(row.tags), people: byName(row.people) },
      strip: strips.get(id) ?? [],
      pencilTodos: inSpokenOrder(todos.filter((t) => t.recordingId === id)).map((t) => todoView(t, row)),
    };
  });
}
