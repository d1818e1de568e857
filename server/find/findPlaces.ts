import type { Found, FindResult } from '@immeld/core/contract/find';
import type { FoundKind } from '@immeld/core/contract/foundKinds';
import { type FindQuery, hasFilters, parseQuery, toFts5 } from '@immeld/core/find/query';
import { rankOf } from '@immeld/core/find/ranking';
import { type SnippetTerms, snippetOf } from '@immeld/core/find/snippet';
import { nearOf, partsOf } from '@immeld/core/find/spelling';
import { stem } from '@immeld/core/language/words';
import { QueryTypes } from 'sequelize';
import { NoteRow } from '../models/note';
import { Recording, titleOf } from '../models/recording';
import { type Allowed, allowedBy } from './filters';
import { matchOwn } from './matchOwn';
import { asOwnVocabulary, ownOnly } from './ownWords';
import { indexWords } from './vocabulary';
import type { FindDatabase } from './reader';

const BEST_PLACES = 300;
const MAX_RESULTS = 40;
const MAX_HITS = 5;
const DAY_MS = 86_400_000;

type Place = {
  id: number;
  score: number;
  kind: FoundKind;
  recordingId: string | null;
  noteId: string | null;
  startMs: number | null;
  text: string;
  at: string;
  title: string;
  isMarked: number;
};

/** A single word that begins those in more places than this says too little to weigh them all while one types. */
const TOO_MANY_PLACES = 1500;
const NEWEST_PASSAGES = 80;
/** As many as fill the list while one types; more are weighed once the words say more. */
const BEST_EARLY = 120;
const NAMED_KINDS: FoundKind[] = ['title', 'tag', 'person', 'todo', 'note', 'slip', 'file'];

/** In so many places stand only beginnings of a letter or two: to weigh even the names by them takes long and says nothing. */
const FAR_TOO_MANY_PLACES = 15_000;

/**
 * For the beginning of a word that is in too many places: everything with a name, best first or, where the beginning says
 * nothing at all, newest first; and of what was said the newest.
 */
const early = (namesBy: 'weight' | 'age') => `SELECT * FROM (${
  namesBy === 'weight'
    ? `SELECT rowid AS id, rank AS score FROM found WHERE found MATCH :named AND rank MATCH 'bm25(0.0, 1.0)' ORDER BY rank`
    : `SELECT rowid AS id, 0.0 AS score FROM found WHERE found MATCH :named ORDER BY rowid DESC`
} LIMIT :most)
  UNION ALL SELECT * FROM (SELECT rowid AS id, 0.0 AS score FROM found WHERE found MATCH :said ORDER BY rowid DESC LIMIT ${NEWEST_PASSAGES})`;

const ofKinds = (kinds: readonly FoundKind[], match: string): string =>
  `owner : (${kinds.map((k) => `"k${k}"`).join(' OR ')}) AND ${matchOwn(match)}`;

/**
 * The best places for a query, best first by BM25 of the words alone.
 * @param beginsIn of a single word, that may still be typed on: in how many places words begin so
 */
async function bestPlaces(
  database: FindDatabase,
  match: string,
  allowed: Allowed | null,
  beginsIn: number | null,
): Promise<Place[]> {
  const isEarly = beginsIn !== null && beginsIn > TOO_MANY_PLACES;
  const best = isEarly
    ? early(beginsIn > FAR_TOO_MANY_PLACES ? 'age' : 'weight')
    : allowed
      ? `SELECT f.rowid AS id, bm25(found, 0.0, 1.0) AS score FROM found f JOIN places p ON p.id = f.rowid
       WHERE found MATCH :match AND coalesce(p.recording_id, p.note_id) IN (SELECT value FROM json_each(:ids))
       ORDER BY score LIMIT :most`
      : `SELECT rowid AS id, rank AS score FROM found WHERE found MATCH :match AND rank MATCH 'bm25(0.0, 1.0)'
       ORDER BY rank LIMIT :most`;
  const ids = allowed ? JSON.stringify([...allowed.recordings, ...allowed.notes]) : null;
  return database.query<Place>(
    `SELECT best.id, best.score, p.kind, p.recording_id AS recordingId, p.note_id AS noteId, p.start_ms AS startMs, p.text,
       coalesce(r.started_at, n.updated_at) AS at,
       coalesce(r.title, json_extract(r.suggestion, '$.title'), r.file_name, n.title) AS title,
       p.kind = 'passage' AND EXISTS (SELECT 1 FROM slips s WHERE s.recording_id = p.recording_id AND s.binned_at IS NULL
         AND s.kind IN ('mark', 'note') AND s.start_ms BETWEEN p.start_ms AND
         (SELECT end_ms FROM passages WHERE passages.id = p.item_id)) AS isMarked
     FROM (${best}) best JOIN places p ON p.id = best.id
     LEFT JOIN recordings r ON r.id = p.recording_id LEFT JOIN notes n ON n.id = p.note_id
     WHERE coalesce(r.id, n.id) IS NOT NULL AND r.binned_at IS NULL AND n.binned_at IS NULL
     ORDER BY best.score`,
    {
      replacements: {
        ...{ match: matchOwn(match), ids, most: isEarly ? BEST_EARLY : BEST_PLACES },
        ...{ named: ofKinds(NAMED_KINDS, match), said: ofKinds(['passage'], match) },
      },
      type: QueryTypes.SELECT,
    },
  );
}

function soughtBy({ required }: FindQuery, variants: ReadonlyMap<string, string[][]>): SnippetTerms {
  const words = required.flat();
  const others = [...variants.values()].flat(2);
  const joined = required
    .slice(1)
    .flatMap((w, i) => (w.length === 1 && required[i]!.length === 1 ? required[i]![0]! + w[0]! : []));
  const last = required.at(-1);
  return {
    stems: new Set([...words, ...others, ...joined].map(stem)),
    beginning: last?.length === 1 ? last[0]! : null,
  };
}

/** Recordings and notes in which the words stand, best first, with the words in context. */
export async function findPlaces(database: FindDatabase, typed: string): Promise<FindResult> {
  const query = parseQuery(typed);
  const isFiltered = hasFilters(query.filters);
  const allowed = isFiltered ? await allowedBy(query.filters) : null;
  const vocabulary = await indexWords(database);
  const typedWords = query.required.flatMap((w) => (w.length === 1 ? w : []));
  const own = await asOwnVocabulary(database, vocabulary, typedWords.map(stem));
  const variantsBy = async (of: typeof partsOf): Promise<Map<string, string[][]>> => {
    const variants = new Map<string, string[][]>();
    for (const word of typedWords) {
      const found = await ownOnly(database, of(word, own, stem));
      if (found.length) variants.set(word, found);
    }
    return variants;
  };
  let variants = await variantsBy(partsOf);
  const matchWith = () => toFts5(query, (word) => variants.get(word) ?? []);
  const match = matchWith();
  if (!match) {
    return { query: typed, results: isFiltered ? await newestOf(allowed!) : [], instead: [] };
  }
  const { required } = query;
  const beginsIn =
    !allowed && required.length === 1 && required[0]!.length === 1
      ? vocabulary.placesBeginning(required[0]![0]!)
      : null;
  let places = await bestPlaces(database, match, allowed, beginsIn);
  if (places.length === 0) {
    const near = await variantsBy(nearOf);
    if (near.size > 0) {
      variants = new Map([...variants, ...near]);
      places = await bestPlaces(database, matchWith()!, allowed, null);
    }
  }
  const sought = soughtBy(query, variants);
  const now = Date.now();
  const scored = places
    .map((p) => ({
      ...p,
      rank: rankOf({
        ...{ bm25: -p.score, kind: p.kind, isMarked: p.isMarked === 1 },
        ageDays: (now - Date.parse(p.at)) / DAY_MS || 0,
      }),
    }))
    .sort((a, b) => b.rank - a.rank);
  const results = new Map<string, Found>();
  for (const p of scored) {
    const kind = p.noteId ? 'note' : 'recording';
    const id = (p.noteId ?? p.recordingId)!;
    if (!results.has(id) && results.size >= MAX_RESULTS) continue;
    const entry = results.get(id) ?? { kind, id, title: p.title, at: p.at, hits: [] };
    results.set(id, entry);
    // What was said and what is written of it are one hit.
    const isNew = !entry.hits.some((h) => h.kind === p.kind && h.startMs === p.startMs && h.startMs !== null);
    if (!isNew || entry.hits.length >= MAX_HITS) continue;
    entry.hits.push({ kind: p.kind, startMs: p.startMs, snippet: snippetOf(p.text, sought) });
  }
  for (const { hits } of results.values()) hits.sort((a, b) => (a.startMs ?? -1) - (b.startMs ?? -1));
  return { query: typed, results: [...results.values()], instead: insteadOf(variants, scored) };
}

/** Which other words were found for one that nobody said; only such as stand in what is shown. */
function insteadOf(variants: ReadonlyMap<string, string[][]>, places: readonly Place[]): FindResult['instead'] {
  if (variants.size === 0) return [];
  const text = places.map((p) => p.text.toLowerCase()).join(' ');
  const words = [...new Set(text.match(/[\p{L}\p{N}]+/gu) ?? [])];
  const isThere = new Set(words);
  return [...variants].flatMap(([word, found]) => {
    if (words.some((w) => stem(w) === stem(word))) return [];
    const others = found.flatMap((v) => {
      if (v.length > 1) return text.includes(v.join(' ')) ? [v.join(' ')] : [];
      return isThere.has(v[0]!) ? v : words.filter((w) => stem(w) === v[0]).slice(0, 1);
    });
    return others.length ? [{ word, others: [...new Set(others)] }] : [];
  });
}

async function newestOf(allowed: Allowed): Promise<Found[]> {
  const recordings = await Recording.findAll({
    where: { id: [...allowed.recordings].slice(0, 20_000) },
    order: [['startedAt', 'DESC']],
    limit: MAX_RESULTS,
  });
  const notes = await NoteRow.findAll({
    where: { id: [...allowed.notes] },
    order: [['updatedAt', 'DESC']],
    limit: MAX_RESULTS,
  });
  return [
    ...recordings.map((r): Found => ({ kind: 'recording', id: r.id, title: titleOf(r), at: r.startedAt, hits: [] })),
    ...notes.map((n): Found => ({ kind: 'note', id: n.id, title: n.title, at: n.updatedAt.toISOString(), hits: [] })),
  ]
    .sort((a, b) => b.at.localeCompare(a.at))
    .slice(0, MAX_RESULTS);
}
