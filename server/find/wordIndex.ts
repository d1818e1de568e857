import { HIT_END, HIT_START, type FindResult } from '@immeld/core/contract/find';
import { parseQuery, toFts5 } from '@immeld/core/find/query';
import { inFigures } from '@immeld/core/transcript/figures';
import { type Passage, passageText } from '@immeld/core/transcript/manuscript';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { accountId } from '../accounts/currentAccount';
import type { Recording } from '../models/recording';

const MOST_HITS = 200;
const MOST_RECORDINGS = 40;

/** Puts title and passages of a recording into the index of words, in place of what was there. */
export async function indexRecording(
  recording: Recording,
  passages: readonly Pick<Passage, 'startMs' | 'words'>[] | null,
  transaction?: Transaction,
): Promise<void> {
  const database = recording.sequelize;
  const run = (sql: string, replacements: unknown[]) =>
    database.query(sql, { replacements, ...(transaction ? { transaction } : {}) });
  const kinds = passages ? '' : " AND kind = 'title'";
  await run(`DELETE FROM spoken WHERE recording_id = ?${kinds}`, [recording.id]);
  const insert = 'INSERT INTO spoken (text, recording_id, start_ms, kind) VALUES (?, ?, ?, ?)';
  await run(insert, [recording.title ?? recording.fileName, recording.id, null, 'title']);
  for (const p of passages ?? []) {
    for (const text of wordings(p)) await run(insert, [text, recording.id, p.startMs, 'passage']);
  }
}

/** As it was said and as it is written: "half past two" is found by both. */
function wordings(passage: Pick<Passage, 'words'>): string[] {
  const said = passageText(passage);
  return [...new Set([said, inFigures(said)])];
}

/** Puts a passage into the index in place of the one that began at `fromMs`; null for none before or none now. */
export async function indexPassage(
  { id, sequelize }: Recording,
  fromMs: number | null,
  passage: Pick<Passage, 'startMs' | 'words'> | null,
  transaction: Transaction,
): Promise<void> {
  const run = (sql: string, replacements: unknown[]) => sequelize.query(sql, { replacements, transaction });
  if (fromMs !== null) await run('DELETE FROM spoken WHERE recording_id = ? AND start_ms = ?', [id, fromMs]);
  if (passage) {
    const insert = "INSERT INTO spoken (text, recording_id, start_ms, kind) VALUES (?, ?, ?, 'passage')";
    for (const text of wordings(passage)) await run(insert, [text, id, passage.startMs]);
  }
}

type Row = { recordingId: string; startMs: number | null; snippet: string; title: string; startedAt: string };

/** Recordings in which the words stand, best first (BM25, titles count more), with the words in context. */
export async function findWords(database: Sequelize, typed: string): Promise<FindResult> {
  const match = toFts5(parseQuery(typed));
  if (!match) return { query: typed, results: [] };
  const rows = await database.query<Row>(
    `SELECT s.recording_id AS recordingId, s.start_ms AS startMs,
       snippet(spoken, 0, ?, ?, '…', 18) AS snippet,
       COALESCE(r.title, json_extract(r.suggestion, '$.title'), r.file_name) AS title, r.started_at AS startedAt
     FROM spoken s JOIN recordings r ON r.id = s.recording_id
     WHERE spoken MATCH ? AND r.binned_at IS NULL AND r.account_id = ?
     ORDER BY bm25(spoken) * (CASE s.kind WHEN 'title' THEN 2.0 ELSE 1.0 END) LIMIT ?`,
    { replacements: [HIT_START, HIT_END, match, accountId(), MOST_HITS], type: QueryTypes.SELECT },
  );
  const byRecording = new Map<string, FindResult['results'][number]>();
  for (const { recordingId, title, startedAt, startMs, snippet } of rows) {
    const entry = byRecording.get(recordingId) ?? { recordingId, title, startedAt, hits: [] };
    const hit = { startMs: startMs === null ? null : Number(startMs), snippet };
    if (entry.hits.length < 5 && !entry.hits.some((h) => h.startMs === hit.startMs)) entry.hits.push(hit);
    byRecording.set(recordingId, entry);
  }
  const results = [...byRecording.values()].slice(0, MOST_RECORDINGS);
  for (const { hits } of results) hits.sort((a, b) => (a.startMs ?? -1) - (b.startMs ?? -1));
  return { query: typed, results };
}
