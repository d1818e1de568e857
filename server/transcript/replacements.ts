import { Problem } from '@immeld/core/contract/problem';
import type { Replaced, Replacement, ReplacementPreview, ReplacementSearch } from '@immeld/core/contract/replacements';
import { parseQuery, toFts5 } from '@immeld/core/find/query';
import { occurrencesIn, replacedIn } from '@immeld/core/transcript/replace';
import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { accountId } from '../accounts/currentAccount';
import { PassageRow } from '../models/passage';
import { Recording } from '../models/recording';
import { type ReplacedPassage, ReplacementRow } from '../models/replacement';
import { sharedSettings } from '../models/settings';
import { rewrite } from './corrections';

const MAX_HITS = 500;

/** Passages in which the words may stand, by the index of words: it knows them as said and as written. */
async function candidates(database: Sequelize, { find, recordingId, folderId }: ReplacementSearch) {
  // Quoted, the words stand one after the other; the index reads "11,400" as two words, and so does the query.
  const match = toFts5(parseQuery(`"${find.replaceAll('"', ' ')}"`));
  if (!match) return [];
  return database.query<{ id: number }>(
    `SELECT DISTINCT p.id AS id FROM found
     JOIN places s ON s.id = found.rowid
     JOIN passages p ON p.id = s.item_id
     JOIN recordings r ON r.id = p.recording_id
     WHERE found MATCH 'text : ' || :match AND s.kind = 'passage' AND r.binned_at IS NULL AND r.account_id = :account
       AND (:recordingId IS NULL OR r.id = :recordingId) AND (:folderId IS NULL OR r.folder_id = :folderId)
     ORDER BY r.started_at DESC, r.id, p.position`,
    {
      replacements: {
        ...{ match, account: accountId() },
        ...{ recordingId: recordingId ?? null, folderId: folderId ?? null },
      },
      type: QueryTypes.SELECT,
    },
  );
}

/** Where the words stand, with what would be read there instead. */
export async function previewReplacement(database: Sequelize, search: ReplacementSearch): Promise<ReplacementPreview> {
  const ids = (await candidates(database, search)).map((c) => c.id);
  const rules = await sharedSettings();
  const recordings = new Map<string, ReplacementPreview['recordings'][number]>();
  let hits = 0;
  for (let at = 0; at < ids.length; at += MAX_HITS) {
    const part = ids.slice(at, at + MAX_HITS);
    const rows = new Map((await PassageRow.findAll({ where: { id: part } })).map((row) => [row.id, row]));
    for (const row of part.map((id) => rows.get(id)!)) {
      for (const [index, occurrence] of occurrencesIn(row, search, rules).entries()) {
        if (hits === MAX_HITS) return { recordings: await withTitles(recordings), isCut: true };
        hits++;
        const entry = recordings.get(row.recordingId) ?? {
          ...{ recordingId: row.recordingId, title: '', startedAt: '', hits: [] },
        };
        entry.hits.push({ passageId: row.id, revision: row.revision, index, ...occurrence });
        recordings.set(row.recordingId, entry);
      }
    }
  }
  return { recordings: await withTitles(recordings), isCut: false };
}

async function withTitles(found: Map<string, ReplacementPreview['recordings'][number]>) {
  const rows = await Recording.findAll({ where: { id: [...found.keys()] } });
  for (const { id, title, suggestion, fileName, startedAt } of rows) {
    Object.assign(found.get(id)!, { title: title ?? suggestion.title ?? fileName, startedAt });
  }
  return [...found.values()];
}

type Change = { row: PassageRow; words: PassageRow['words'] };

/** Writes passages of several recordings anew, all or none of them. */
async function write(changes: readonly Change[], transaction: Transaction): Promise<ReplacedPassage[]> {
  const ids = [...new Set(changes.map((c) => c.row.recordingId))];
  const recordings = new Map((await Recording.findAll({ where: { id: ids }, transaction })).map((r) => [r.id, r]));
  const done: ReplacedPassage[] = [];
  for (const { row, words } of changes) {
    const recording = recordings.get(row.recordingId);
    // Somebody else's.
    if (!recording) continue;
    const { id, revision, startMs, endMs, speaker, startsParagraph, words: before, recordingId } = row;
    const passages = [{ startMs, endMs, speaker, startsParagraph, words }];
    const written = await rewrite(recording, { replaced: [{ id, revision }], passages }, transaction);
    done.push({ recordingId, passageId: id, revision: written.passages[0]!.revision, words: before });
  }
  return done;
}

/** Replaces the chosen places; passages that were changed since they were looked at stay as they are. */
export async function applyReplacement(database: Sequelize, replacement: Replacement): Promise<Replaced> {
  const rules = await sharedSettings();
  const { passages: chosen, find, by } = replacement;
  return database.transaction(async (transaction) => {
    const rows = await PassageRow.findAll({ where: { id: chosen.map((c) => c.passageId) }, transaction });
    const changes: Change[] = [];
    const places = new Map<number, number>();
    for (const row of rows) {
      const asked = chosen.find((c) => c.passageId === row.id && c.revision === row.revision);
      if (!asked) continue;
      const which = new Set(asked.indexes);
      const { words } = replacedIn({ ...row.get({ plain: true }) }, replacement, rules, which);
      places.set(row.id, occurrencesIn(row, replacement, rules).filter((_, i) => which.has(i)).length);
      if (places.get(row.id)) changes.push({ row, words });
    }
    const done = await write(changes, transaction);
    const { id } = await ReplacementRow.create({ find, by, passages: done }, { transaction });
    const replaced = done.reduce((sum, d) => sum + places.get(d.passageId)!, 0);
    return { id, replaced, skipped: chosen.length - done.length };
  });
}

/** Takes a replacement back where nothing has been changed since. */
export async function undoReplacement(database: Sequelize, id: string): Promise<Replaced> {
  const row = await ReplacementRow.findByPk(id);
  if (!row) throw new Problem('not-found', 'This replacement has already been undone, or it never existed.');
  return database.transaction(async (transaction) => {
    const rows = await PassageRow.findAll({ where: { id: row.passages.map((p) => p.passageId) }, transaction });
    const changes = row.passages.flatMap(({ passageId, revision, words }) => {
      const stands = rows.find((r) => r.id === passageId && r.revision === revision);
      return stands ? [{ row: stands, words }] : [];
    });
    const done = await write(changes, transaction);
    await row.destroy({ transaction });
    return { id, replaced: done.length, skipped: row.passages.length - done.length };
  });
}
