import type { Related } from '@immeld/core/contract/find';
import { type RelatedCandidate, relatedTo } from '@immeld/core/filing/related';
import { isStopword, stem, wordsOf } from '@immeld/core/language/words';
import { Op, QueryTypes } from 'sequelize';
import { newestWith } from '../filing/shelving';
import { NoteRow, LinkRow } from '../models/note';
import { PassageRow } from '../models/passage';
import { Person } from '../models/person';
import { Project } from '../models/project';
import { Recording, titleOf } from '../models/recording';
import { Tag } from '../models/tag';
import { matchOwn } from './matchOwn';
import { indexWords } from './vocabulary';
import type { FindDatabase } from './reader';

const TELLING_WORDS = 14;
const MAX_CANDIDATES = 40;
const READ_PASSAGES = 40;

type Ref = Omit<Related, 'reason'>;

const INCLUDES = [
  { model: Person, as: 'people' },
  { model: Tag, as: 'tags' },
  { model: Project, as: 'project' },
];

async function recordingRelatives(ids: readonly string[]): Promise<RelatedCandidate<Ref>[]> {
  const rows = await Recording.findAll({ where: { id: [...ids], binnedAt: null }, include: INCLUDES });
  const passages = await PassageRow.findAll({
    where: { recordingId: rows.map((r) => r.id), position: { [Op.lt]: READ_PASSAGES } },
    attributes: ['recordingId', 'text'],
  });
  const texts = new Map<string, string>();
  for (const p of passages) texts.set(p.recordingId, `${texts.get(p.recordingId) ?? ''} ${p.text}`);
  return rows.map((r) => ({
    text: `${titleOf(r)} ${texts.get(r.id) ?? ''}`,
    people: (r.people ?? []).map((p) => p.name),
    tags: (r.tags ?? []).map((t) => t.name),
    project: r.project?.name ?? null,
    appointment: r.appointment?.title ?? null,
    ref: { kind: 'recording', id: r.id, title: titleOf(r), at: r.startedAt },
  }));
}

const noteRef = (n: NoteRow): Ref => ({ kind: 'note', id: n.id, title: n.title, at: n.updatedAt.toISOString() });

async function noteRelatives(ids: readonly string[]): Promise<RelatedCandidate<Ref>[]> {
  const rows = await NoteRow.findAll({ where: { id: [...ids], binnedAt: null }, include: { model: Tag, as: 'tags' } });
  return rows.map((n) => ({
    ...{ text: `${n.title} ${n.text}`, people: [], tags: (n.tags ?? []).map((t) => t.name) },
    ...{ project: null, appointment: null, ref: noteRef(n) },
  }));
}

/** Recordings and notes that share the words that tell most of a text: frequent in it and rare elsewhere. */
async function sharingWords(database: FindDatabase, text: string): Promise<{ recordings: string[]; notes: string[] }> {
  const vocabulary = await indexWords(database);
  const counts = new Map<string, number>();
  for (const word of wordsOf(text))
    if (!isStopword(word) && word.length > 2) counts.set(stem(word), (counts.get(stem(word)) ?? 0) + 1);
  const telling = [...counts]
    .map(([word, count]) => ({ word, weight: count / (1 + vocabulary.placesWith(word)) ** 0.7 }))
    .sort((a, b) => b.weight - a.weight)
    .slice(0, TELLING_WORDS);
  if (telling.length === 0) return { recordings: [], notes: [] };
  const match = telling.map(({ word }) => `"${word}"`).join(' OR ');
  const rows = await database.query<{ recordingId: string | null; noteId: string | null }>(
    `SELECT p.recording_id AS recordingId, p.note_id AS noteId
     FROM (SELECT rowid AS id FROM found WHERE found MATCH ? AND rank MATCH 'bm25(0.0, 1.0)' ORDER BY rank LIMIT 300) best
     JOIN places p ON p.id = best.id`,
    { replacements: [matchOwn(match)], type: QueryTypes.SELECT },
  );
  return {
    recordings: [...new Set(rows.flatMap((r) => r.recordingId ?? []))].slice(0, MAX_CANDIDATES),
    notes: [...new Set(rows.flatMap((r) => r.noteId ?? []))].slice(0, MAX_CANDIDATES),
  };
}

async function sharingPeople(people: readonly string[]): Promise<string[]> {
  if (people.length === 0) return [];
  const rows = await newestWith(people, MAX_CANDIDATES);
  return rows.map((r) => r.id);
}

/** Up to five that belong beside a recording or note, with the reason. */
async function besides(database: FindDatabase, own: RelatedCandidate<Ref>): Promise<Related[]> {
  const words = await sharingWords(database, own.text);
  const withPeople = await sharingPeople(own.people);
  const isOther = (id: string) => id !== own.ref.id;
  const others = [
    ...(await recordingRelatives([...new Set([...words.recordings, ...withPeople])].filter(isOther))),
    ...(await noteRelatives(words.notes.filter(isOther))),
  ];
  return relatedTo(own, others).map(({ ref, reason }) => ({ ...ref, reason }));
}

export async function relatedToRecording(database: FindDatabase, id: string): Promise<Related[] | null> {
  const [own] = await recordingRelatives([id]);
  return own ? besides(database, own) : null;
}

export async function relatedToNote(database: FindDatabase, id: string): Promise<Related[] | null> {
  const [own] = await noteRelatives([id]);
  return own ? besides(database, own) : null;
}

/** Notes in which a link to this stands. */
export async function linkedFrom(to: { toRecordingId: string } | { toNoteId: string }): Promise<Related[]> {
  const links = await LinkRow.findAll({
    where: to,
    include: { model: NoteRow, as: 'from', where: { binnedAt: null }, required: true },
  });
  const notes = new Map(links.map((l) => [l.fromNoteId, l.from!]));
  return [...notes.values()].map((n) => ({ ...noteRef(n), reason: 'contains a link' }));
}
