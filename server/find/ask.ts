import type { AnswerQuote, FoundAnswer } from '@immeld/core/contract/find';
import { type Answer, type Candidate, type Quote, answerFrom } from '@immeld/core/find/answer';
import { candidatesOf } from '@immeld/core/find/candidates';
import { type Archive, expand } from '@immeld/core/find/expansion';
import { type KnownPerson, type Question, isQuestion, readQuestion } from '@immeld/core/find/question';
import { sentencesOfText } from '@immeld/core/language/sentences';
import { spokenDate } from '@immeld/core/language/spokenDates';
import { fullName } from '@immeld/core/filing/people';
import type { NumeralKind } from '@immeld/core/contract/numeralKinds';
import { withNumerals } from '@immeld/core/transcript/inverseTextNormalisation';
import { Op, QueryTypes } from 'sequelize';
import { NoteRow } from '../models/note';
import { PassageRow } from '../models/passage';
import { newestWith } from '../filing/shelving';
import { Person } from '../models/person';
import { Recording, titleOf } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { SlipRow } from '../models/slip';
import { digestOf } from './digest';
import { matchOwn } from './matchOwn';
import { indexWords } from './vocabulary';
import { wordVectors } from './wordVectors';
import type { FindDatabase } from './reader';

/** What is longer is pasted text: reading it as a question would keep others waiting. */
const MAX_QUESTION = 500;
const BEST_PASSAGES = 160;
const MAX_PROMISES_FROM = 60;
/** Passages on both sides of a hit that are read with it. */
const AROUND = 1;

type Ref = { kind: 'recording' | 'note'; id: string; startMs: number | null; endMs: number | null };

const nothing = (question: string): FoundAnswer => ({
  ...{ question, kind: null, people: [], period: null, quotes: [], nearest: [], digest: [] },
});

/** Answers a question with sentences of one's own recordings and notes; what is no question is not answered. */
export async function ask(database: FindDatabase, typed: string, today: string, zone?: string): Promise<FoundAnswer> {
  if (typed.length > MAX_QUESTION || !isQuestion(typed)) return nothing(typed);
  const people = (await Person.findAll()).map(({ name, otherNames }): KnownPerson => ({ name, otherNames }));
  const question = readQuestion(typed, people, today);
  const { kind, period } = question;
  const answer = { ...nothing(typed), kind, period, people: question.people };
  if (kind === 'digest') return { ...answer, digest: await digestOf(question, zone) };
  const vocabulary = await indexWords(database);
  const [{ documents }] = (await database.query<{ documents: number }>('SELECT max(id) AS documents FROM places', {
    type: QueryTypes.SELECT,
  })) as [{ documents: number | null }];
  const archive: Archive = {
    documentsWith: (stem) => vocabulary.placesWith(stem),
    documents: documents ?? 1,
    vectors: wordVectors(),
  };
  const candidates = await candidatesFor(database, question, archive, people);
  let found: Answer<Ref> = answerFrom(question, candidates, archive);
  // A day in the question may be one that was spoken of and not the one of the recording.
  if (period && found.quotes.length === 0) {
    const anyTime = { ...question, period: null };
    found = answerFrom(anyTime, await candidatesFor(database, anyTime, archive, people), archive);
  }
  const figures = new Set((await sharedSettings()).figures);
  const view = (quote: Quote<Ref>) => quoteView(quote, figures);
  return { ...answer, quotes: found.quotes.map(view), nearest: found.nearest.map(view) };
}

/** What was said stands here as in its recording, with numbers as the person wants them written; notes as they are. */
function quoteView(
  { ref, title, speaker, saidAt, text, lifted }: Quote<Ref>,
  figures: ReadonlySet<NumeralKind>,
): AnswerQuote {
  const due = lifted ? (spokenDate(lifted, saidAt)?.due ?? null) : null;
  const written = (words: string) => (ref.kind === 'note' ? words : withNumerals(words, figures));
  return { ...ref, title, speaker, saidAt, text: written(text), lifted: lifted && written(lifted), due };
}

/** Sentences that have something of the question in them, with their neighbours. */
async function candidatesFor(
  database: FindDatabase,
  question: Question,
  archive: Archive,
  people: readonly KnownPerson[],
): Promise<Candidate<Ref>[]> {
  const stems = expand(question.terms, archive).flatMap((t) => [t.word, ...t.metBy.keys()]);
  const places = stems.length ? await bestPlaces(database, stems) : await promisePlaces(question);
  const noteIds = new Set(places.flatMap((p) => p.noteId ?? []));
  const recordingIds = [...new Set(places.flatMap((p) => p.recordingId ?? []))];
  const { period } = question;
  const recordings = await Recording.findAll({
    where: {
      ...{ id: recordingIds, binnedAt: null },
      ...(period ? { startedAt: { [Op.between]: [period.from, `${period.to}T99`] } } : {}),
    },
    include: { model: Person, as: 'people' },
  });
  const found: Candidate<Ref>[] = [];
  const names = ownNames((await sharedSettings()).ownName);
  const ids = recordings.map((r) => r.id);
  const passages = await passagesAround(database, ids, places);
  const marks = await SlipRow.findAll({
    where: { recordingId: ids, binnedAt: null, kind: ['mark', 'note'] },
    attributes: ['recordingId', 'startMs'],
  });
  for (const recording of recordings) {
    const own = passages.get(recording.id) ?? [];
    const marked = marks.filter((m) => m.recordingId === recording.id).map((m) => m.startMs);
    found.push(...sentencesIn(recording, own, marked, names, people));
  }
  for (const note of period ? [] : await NoteRow.findAll({ where: { id: [...noteIds], binnedAt: null } })) {
    found.push(...sentencesInNote(note));
  }
  return found;
}

const ownNames = (name: string): string[] => (name ? [...new Set([name, name.split(/\s+/)[0]!])] : []);

type Place = { recordingId: string | null; noteId: string | null; passageId: number | null };

function bestPlaces(database: FindDatabase, stems: readonly string[]): Promise<Place[]> {
  const match = [...new Set(stems)].map((s) => `"${s.replaceAll('"', '')}"`).join(' OR ');
  return database.query<Place>(
    `SELECT p.recording_id AS recordingId, p.note_id AS noteId, CASE p.kind WHEN 'passage' THEN p.item_id END AS passageId
     FROM (SELECT rowid AS id, rank AS score FROM found WHERE found MATCH ? AND rank MATCH 'bm25(0.0, 1.0)' ORDER BY rank LIMIT ?) best
     JOIN places p ON p.id = best.id`,
    { replacements: [matchOwn(match), BEST_PASSAGES], type: QueryTypes.SELECT },
  );
}

/** Asked for promises alone, the newest recordings are read, those with the people who are named. */
async function promisePlaces({ kind, people }: Question): Promise<Place[]> {
  if (kind !== 'promise') return [];
  const rows = await newestWith(people, MAX_PROMISES_FROM);
  const passages = await PassageRow.findAll({
    where: { recordingId: rows.map((r) => r.id) },
    attributes: ['id', 'recordingId'],
  });
  return passages.map((p) => ({ recordingId: p.recordingId, noteId: null, passageId: p.id }));
}

/** The passages that were hit with their neighbours, by recording and in order; of one found otherwise its beginning. */
async function passagesAround(
  database: FindDatabase,
  recordingIds: readonly string[],
  places: readonly Place[],
): Promise<Map<string, PassageRow[]>> {
  const hits = places.flatMap((p) => (p.recordingId && p.passageId !== null ? [p.passageId] : []));
  const withHits = new Set(places.flatMap((p) => (p.passageId !== null ? [p.recordingId] : [])));
  const others = recordingIds.filter((id) => !withHits.has(id));
  const near = await database.query<{ id: number }>(
    `SELECT DISTINCT n.id AS id FROM passages p JOIN passages n ON n.recording_id = p.recording_id
       AND n.position BETWEEN p.position - ${AROUND} AND p.position + ${AROUND}
     WHERE p.id IN (SELECT value FROM json_each(:hits)) AND p.recording_id IN (SELECT value FROM json_each(:ids))
     UNION SELECT id FROM passages WHERE position < 2 AND recording_id IN (SELECT value FROM json_each(:others))`,
    {
      replacements: { hits: JSON.stringify(hits), ids: JSON.stringify(recordingIds), others: JSON.stringify(others) },
      type: QueryTypes.SELECT,
    },
  );
  const rows = await PassageRow.findAll({ where: { id: near.map((n) => n.id) }, order: [['position', 'ASC']] });
  const byRecording = new Map<string, PassageRow[]>();
  for (const row of rows) byRecording.set(row.recordingId, [...(byRecording.get(row.recordingId) ?? []), row]);
  return byRecording;
}

function sentencesIn(
  recording: Recording,
  rows: readonly PassageRow[],
  markedMs: readonly number[],
  names: readonly string[],
  known: readonly KnownPerson[],
): Candidate<Ref>[] {
  const passages = rows.map((p) => ({
    ...{ startMs: p.startMs, endMs: p.endMs, startsParagraph: p.startsParagraph, words: p.words },
    speaker: p.speaker === null ? null : names.includes(p.speaker) ? p.speaker : fullName(p.speaker, [...known]),
  }));
  const { id } = recording;
  return candidatesOf(
    passages,
    {
      title: titleOf(recording),
      people: (recording.people ?? []).map((p) => p.name),
      saidAt: recording.startedAt.slice(0, 16),
      ownNames: names,
      isOwnMemo: recording.source === 'speak' || recording.source === 'demo',
      markedMs,
    },
    (place): Ref => ({ kind: 'recording', id, ...place }),
  );
}

function sentencesInNote(note: NoteRow): Candidate<Ref>[] {
  const sentences = sentencesOfText(note.text).map((s) => s.text);
  return sentences.map((text, i) => ({
    ...{ text, before: sentences[i - 1] ?? '', after: sentences[i + 1] ?? '', around: [] },
    ...{ title: note.title, speaker: 'me', people: [], isMarked: false },
    saidAt: note.updatedAt.toISOString().slice(0, 16),
    ref: { kind: 'note' as const, id: note.id, startMs: null, endMs: null },
  }));
}
