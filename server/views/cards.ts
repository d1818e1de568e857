import { barsOf } from '@immeld/core/audio/peaks';
import type { RecordingCard, RecordingState, Suggestion } from '@immeld/core/contract/recordings';
import { QueryTypes, type Sequelize } from 'sequelize';
import { accountId } from '../accounts/currentAccount';
import { TodoRow } from '../models/todo';
import { STRIP_BARS, firstWords, inOrder, todoView } from './recordingView';

type Row = {
  id: string;
  title: string | null;
  fileName: string;
  source: RecordingCard['source'];
  state: RecordingState;
  problem: string | null;
  startedAt: string;
  durationMs: number | null;
  updatedAt: string;
  folderId: string | null;
  filedAt: string | null;
  binnedAt: string | null;
  archivedAt: string | null;
  isFavourite: number;
  isRecovered: number;
  appointment: string | null;
  suggestion: string;
  project: string | null;
};

const COLUMNS = `r.id, r.title, r.file_name AS fileName, r.source, r.state, r.problem, r.started_at AS startedAt,
  r.duration_ms AS durationMs, r.updated_at AS updatedAt, r.folder_id AS folderId, r.filed_at AS filedAt, r.binned_at AS binnedAt,
  r.archived_at AS archivedAt, r.is_favourite AS isFavourite, r.is_recovered AS isRecovered, r.appointment, r.suggestion,
  p.name AS project`;

/** Strips by recording, as they were when the row was last written: they are looked at far more often than they change. */
const knownStrips = new Map<string, { updatedAt: string; strip: number[] }>();
const MOST_KNOWN = 5000;

type Select = <T extends object>(sql: string, more?: Record<string, unknown>) => Promise<T[]>;

async function stripsOf(rows: readonly Row[], select: Select): Promise<Map<string, number[]>> {
  if (knownStrips.size + rows.length > MOST_KNOWN) knownStrips.clear();
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

/**
 * Recordings as lists show them, in the order of their ids; those that are not the account's are left out. A list is asked for
 * more often than anything else, so its rows are read as they lie in the database, without making models of them.
 */
export async function cardsOf(database: Sequelize, ids: readonly string[]): Promise<RecordingCard[]> {
  const all: Select = <T extends object>(sql: string, more = {}) =>
    database.query<T>(sql, {
      replacements: { account: accountId(), ids: JSON.stringify(ids), ...more },
      type: QueryTypes.SELECT,
    });
  const inIds = 'IN (SELECT value FROM json_each(:ids))';
  const named = (table: string, links: string, column: string) =>
    all<{ id: string; name: string }>(
      `SELECT l.recording_id AS id, n.name FROM ${links} l JOIN ${table} n ON n.id = l.${column} WHERE l.recording_id ${inIds}`,
    );
  const [rows, tags, people, passages, todos] = await Promise.all([
    all<Row>(
      `SELECT ${COLUMNS} FROM recordings r LEFT JOIN projects p ON p.id = r.project_id
       WHERE r.account_id = :account AND r.id ${inIds}`,
    ),
    named('tags', 'recording_tags', 'tag_id'),
    named('people', 'recording_people', 'person_id'),
    all<{ id: string; written: string }>(
      `SELECT recording_id AS id, written FROM passages WHERE position < 2 AND recording_id ${inIds} ORDER BY position`,
    ),
    TodoRow.findAll({ where: { recordingId: [...ids], binnedAt: null, state: 'pencil' } }),
  ]);
  const namesOf = (from: readonly { id: string; name: string }[], id: string) =>
    from
      .filter((n) => n.id === id)
      .map((n) => n.name)
      .sort((a, b) => a.localeCompare(b));
  const strips = await stripsOf(rows, all);
  const byId = new Map(rows.map((r) => [r.id, r]));
  return ids.flatMap((id) => {
    const r = byId.get(id);
    if (!r) return [];
    const suggestion = JSON.parse(r.suggestion) as Suggestion;
    const of = { id, title: r.title, fileName: r.fileName, suggestion };
    return {
      ...{ id, title: r.title, fileName: r.fileName, source: r.source, state: r.state, problem: r.problem },
      ...{ startedAt: r.startedAt, durationMs: r.durationMs, folderId: r.folderId, suggestion, project: r.project },
      firstWords: firstWords(passages.filter((p) => p.id === id)),
      strip: strips.get(id) ?? [],
      ...{ tags: namesOf(tags, id), people: namesOf(people, id) },
      ...{ isFiled: r.filedAt !== null, isBinned: r.binnedAt !== null, isArchived: r.archivedAt !== null },
      ...{ isFavourite: Boolean(r.isFavourite), isRecovered: Boolean(r.isRecovered) },
      appointment: r.appointment ? (JSON.parse(r.appointment) as RecordingCard['appointment']) : null,
      pencilTodos: inOrder(todos.filter((t) => t.recordingId === id)).map((t) => todoView(t, of)),
    };
  });
}
