import { barsOf } from '@immeld/core/audio/peaks';
import type { Recording as RecordingAnswer, RecordingCard, WriteUp } from '@immeld/core/contract/recordings';
import type { Todo } from '@immeld/core/contract/todos';
import type { Slip } from '@immeld/core/contract/slips';
import type { Word } from '@immeld/core/transcript/manuscript';
import fs from 'node:fs';
import { type PassageRow } from '../models/passage';
import { Person } from '../models/person';
import { Project } from '../models/project';
import { Recording, titleOf } from '../models/recording';
import { SlipRow } from '../models/slip';
import { Tag } from '../models/tag';
import { TodoRow } from '../models/todo';
import { WriteUpRow } from '../models/writeUp';
import { type UnparsedPassage, passagesAsJson, readUnparsedPassages } from '../transcript/readPassages';
import { speakersIn } from '../transcript/speakers';
import type { SoundStore } from '../storage/soundStore';

/** Peak values of a strip in a list. */
export const STRIP_BARS = 96;
const FIRST_WORDS_LENGTH = 180;

type Titled = Pick<Recording, 'title' | 'suggestion' | 'fileName'>;

/** What a to-do is shown by; a row as it lies in the database is enough. */
export type ShownTodo = Pick<TodoRow, keyof Omit<Todo, 'recordingTitle' | 'isDone' | 'doneAt' | 'position'>> &
  Pick<TodoRow, 'doneAt' | 'createdAt'> & { position?: number | null; recording?: Titled };

export const todoView = (row: ShownTodo, recording: Titled | undefined = row.recording): Todo => ({
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
  const { id, kind, mark, startMs, endMs, text, pictureFile, address, file, assignee, comments } = slip;
  return {
    ...{ id, kind, mark, startMs, endMs, text, file, comments },
    ...{ hasPicture: pictureFile !== null, address: address ?? null, assignee: assignee ?? null },
  };
};

export const passageView = ({ id, revision, startMs, endMs, speaker, startsParagraph, words }: PassageRow) => ({
  ...{ id, revision, startMs, endMs, speaker, startsParagraph, words },
});

/** What a recording is shown with. */
const SHOWN_WITH = [
  { model: Tag, as: 'tags' },
  { model: Person, as: 'people' },
  { model: Project, as: 'project' },
];

/** The beginning of what was said, as lists show it. @param text the first passages, or more than the beginning of them */
export function firstWords(text: string): string {
  if (text.length <= FIRST_WORDS_LENGTH) return text;
  return `${text.slice(0, text.lastIndexOf(' ', FIRST_WORDS_LENGTH))} …`;
}

function cardView(r: Recording, passages: readonly { written: string }[]): RecordingCard {
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
    tags: (r.tags ?? []).map((t) => t.name).sort((a, b) => a.localeCompare(b)),
    isFiled: r.filedAt !== null,
    isBinned: r.binnedAt !== null,
    isArchived: Boolean(r.archivedAt),
    isFavourite: r.isFavourite,
    project: r.project?.name ?? null,
    people: (r.people ?? []).map((p) => p.name).sort((a, b) => a.localeCompare(b)),
    isRecovered: r.isRecovered,
    appointment: r.appointment ?? null,
    suggestion: r.suggestion,
    pencilTodos: inSpokenOrder(r.todos ?? [])
      .filter((t) => t.state === 'pencil')
      .map((t) => todoView(t, r)),
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
  const recording = await Recording.findByPk(id, { include: SHOWN_WITH });
  if (!recording) return null;
  const [passages, todos, writeUps, slips] = await Promise.all([
    readUnparsedPassages(id),
    TodoRow.findAll({ where: { recordingId: id, binnedAt: null } }),
    WriteUpRow.findAll({ where: { recordingId: id } }),
    SlipRow.findAll({ where: { recordingId: id, binnedAt: null }, order: [['startMs', 'ASC']] }),
  ]);
  Object.assign(recording, { todos });
  const spoken = passages
    .filter((p) => p.speaker !== null)
    .map(({ speaker, wordsJson }) => ({ speaker, words: JSON.parse(wordsJson) as Word[] }));
  const view = {
    ...cardView(recording, passages),
    mediaType: recording.mediaType,
    sizeBytes: recording.sizeBytes,
    hasSound: fs.existsSync(sounds.pathOf(recording.soundFile)),
    hasVideo: recording.video !== null && fs.existsSync(sounds.pathOf(recording.video.file)),
    place: recording.place ?? null,
    isDictation: recording.isDictation,
    model: recording.model,
    language: recording.language,
    peaks: recording.peaks,
    speakers: await speakersIn(recording, spoken),
    todos: inSpokenOrder(todos).map((t) => todoView(t, recording)),
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
