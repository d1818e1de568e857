import { barsOf } from '@immeld/core/audio/peaks';
import { PENCIL_STATES } from '@immeld/core/contract/pencil';
import type { Recording as RecordingAnswer, RecordingCard, WriteUp } from '@immeld/core/contract/recordings';
import type { Todo } from '@immeld/core/contract/todos';
import type { Slip } from '@immeld/core/contract/slips';
import type { Word } from '@immeld/core/transcript/manuscript';
import fs from 'node:fs';
import { QueryTypes } from 'sequelize';
import { type PassageRow } from '../models/passage';
import { Recording, titleOf } from '../models/recording';
import { SlipRow } from '../models/slip';
import type { TodoRow } from '../models/todo';
import { WriteUpRow } from '../models/writeUp';
import { type UnparsedPassage, passagesAsJson, readUnparsedPassages } from '../transcript/readPassages';
import { speakersIn } from '../transcript/speakers';
import { type ShownTodo, readTodos } from '../todos/readTodos';
import { isUnsure } from '../todos/sureness';
import type { SoundStore } from '../storage/soundStore';

/** Peak values of a strip in a list. */
export const STRIP_BARS = 96;
const FIRST_WORDS_LENGTH = 180;

export const todoView = (row: ShownTodo, recording: ShownTodo['recording'] = row.recording): Todo => ({
  id: row.id,
  recordingId: row.recordingId,
  recordingTitle: recording ? titleOf(recording) : null,
  noteId: row.noteId ?? null,
  text: row.text,
  who: row.who,
  due: row.due,
  project: row.project,
  quote: row.quote,
  startMs: row.startMs,
  state: row.state,
  isDone: row.doneAt !== null,
  doneAt: row.doneAt?.toISOString() ?? null,
  priority: row.priority,
  repeat: row.repeat,
  notes: row.notes,
  snoozedUntil: row.snoozedUntil,
  position: row.position ?? +row.createdAt / 1000,
  ...(row.state === 'pencil' && isUnsure(row) ? { isUnsure: true } : {}),
});

export const writeUpView = (row: WriteUpRow): WriteUp => ({
  id: row.id,
  template: row.template,
  sentencesAsked: row.sentencesAsked,
  state: row.state,
  sentences: row.sentences,
  editedText: row.editedText,
});

export const slipView = (slip: SlipRow): Slip => {
  const { id, kind, mark, startMs, endMs, isWhole, text, pictureFile, address, file, slide, assignee, comments } = slip;
  return {
    ...{ id, kind, mark, startMs, endMs, isWhole, text, file, slide: slide ?? null, comments },
    words: kind === 'picture' ? (slip.fileText ?? null) : null,
    ...{ hasPicture: pictureFile !== null, address: address ?? null, assignee: assignee ?? null },
  };
};

export const passageView = ({ id, revision, startMs, endMs, speaker, startsParagraph, words }: PassageRow) => ({
  ...{ id, revision, startMs, endMs, speaker, startsParagraph, words },
});

type Beside = Pick<RecordingCard, 'tags' | 'people' | 'project'> & { hasWriteUps: boolean; hasSlips: boolean };

/**
 * What stands with a recording, by names. As models, each tag would come with a copy of the whole recording for each
 * person, which takes three times as long.
 */
async function besideOf({ id, sequelize, projectId }: Recording): Promise<Beside> {
  const [row] = await sequelize.query<Record<'tags' | 'people', string> & { project: string | null } & Counts>(
    `SELECT (SELECT json_group_array(t.name) FROM recording_tags l JOIN tags t ON t.id = l.tag_id
         WHERE l.recording_id = :id) AS tags,
       (SELECT json_group_array(n.name) FROM recording_people l JOIN people n ON n.id = l.person_id
         WHERE l.recording_id = :id) AS people,
       (SELECT name FROM projects WHERE id = :projectId) AS project,
       EXISTS (SELECT 1 FROM write_ups WHERE recording_id = :id) AS writeUps,
       EXISTS (SELECT 1 FROM slips WHERE recording_id = :id) AS slips`,
    { replacements: { id, projectId }, type: QueryTypes.SELECT },
  );
  const { tags, people, project, writeUps, slips } = row!;
  return {
    ...{ tags: byName(tags), people: byName(people), project },
    ...{ hasWriteUps: Boolean(writeUps), hasSlips: Boolean(slips) },
  };
}
type Counts = Record<'writeUps' | 'slips', number>;

const byName = (json: string): string[] => (JSON.parse(json) as string[]).sort((a, b) => a.localeCompare(b));

/** The beginning of what was said, as lists show it. @param text the first passages, or more than the beginning of them */
export function firstWords(text: string): string {
  if (text.length <= FIRST_WORDS_LENGTH) return text;
  return `${text.slice(0, text.lastIndexOf(' ', FIRST_WORDS_LENGTH))} …`;
}

function cardView(
  r: Recording,
  { tags, people, project }: Beside,
  passages: readonly { written: string }[],
  todos: readonly ShownTodo[],
): RecordingCard {
  return {
    id: r.id,
    title: r.title,
    fileName: r.fileName,
    source: r.source,
    state: r.state,
    problem: r.problem,
    draft: r.draft ?? null,
    startedAt: r.startedAt,
    durationMs: r.durationMs,
    firstWords: firstWords(
      passages
        .slice(0, 2)
        .map((p) => p.written)
        .join(' '),
    ),
    strip: r.peaks.length ? barsOf(r.peaks, STRIP_BARS) : [],
    folderId: r.folderId,
    tags,
    isFiled: r.filedAt !== null,
    isBinned: r.binnedAt !== null,
    isArchived: Boolean(r.archivedAt),
    isFavourite: r.isFavourite,
    project,
    people,
    isRecovered: r.isRecovered,
    appointment: r.appointment ?? null,
    suggestion: r.suggestion,
    pencilTodos: todos.filter((t) => t.state === 'pencil').map((t) => todoView(t, r)),
  };
}

/** To-dos as they were said. */
export const inSpokenOrder = <T extends Pick<TodoRow, 'startMs' | 'createdAt'>>(todos: readonly T[]): T[] =>
  [...todos].sort((a, b) => (a.startMs ?? Infinity) - (b.startMs ?? Infinity) || +a.createdAt - +b.createdAt);

type WithoutPassages = Omit<RecordingAnswer, 'passages'>;

async function readRecording(
  id: string,
  sounds: SoundStore,
): Promise<{ view: WithoutPassages; passages: UnparsedPassage[] } | null> {
  const recording = await Recording.findByPk(id);
  if (!recording) return null;
  const beside = await besideOf(recording);
  const [passages, read, writeUps, slips] = await Promise.all([
    readUnparsedPassages(id),
    readTodos(recording.sequelize, { states: PENCIL_STATES, recordingIds: [id] }),
    beside.hasWriteUps ? WriteUpRow.findAll({ where: { recordingId: id } }) : [],
    beside.hasSlips ? SlipRow.findAll({ where: { recordingId: id, binnedAt: null }, order: [['startMs', 'ASC']] }) : [],
  ]);
  const todos = inSpokenOrder(read);
  const spoken = passages
    .filter((p) => p.speaker !== null)
    .map(({ speaker, wordsJson }) => ({ speaker, words: JSON.parse(wordsJson) as Word[] }));
  const view = {
    ...cardView(recording, beside, passages, todos),
    mediaType: recording.mediaType,
    sizeBytes: recording.sizeBytes,
    hasSound: fs.existsSync(sounds.pathOf(recording.soundFile)),
    hasVideo: recording.video !== null && fs.existsSync(sounds.pathOf(recording.video.file)),
    place: recording.place ?? null,
    isDictation: recording.isDictation,
    kind: recording.chosenKind ?? recording.foundKind,
    voice: recording.voice,
    model: recording.model,
    language: recording.language,
    peaks: recording.peaks,
    speakers: await speakersIn(recording, spoken),
    todos: todos.map((t) => todoView(t, recording)),
    writeUps: writeUps.map(writeUpView),
    slips: slips.map(slipView),
  };
  return { view, passages };
}

/** A recording as a whole, or null when there is none with this id. */
export async function recordingView(id: string, sounds: SoundStore): Promise<RecordingAnswer | null> {
  const read = await readRecording(id, sounds);
  if (!read) return null;
  const passages = read.passages.map(({ written: _, wordsJson, ...shown }) => ({
    ...shown,
    words: JSON.parse(wordsJson) as Word[],
  }));
  return { ...read.view, passages };
}

/** The JSON of `recordingView`, with what it says but for the words. These are neither parsed nor written anew. */
export async function recordingJson(
  id: string,
  sounds: SoundStore,
): Promise<{ view: WithoutPassages; passages: string; json: string } | null> {
  const read = await readRecording(id, sounds);
  if (!read) return null;
  const passages = passagesAsJson(read.passages);
  return { view: read.view, passages, json: `${JSON.stringify(read.view).slice(0, -1)},"passages":${passages}}` };
}
