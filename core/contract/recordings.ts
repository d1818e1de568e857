import * as yup from './yup';
import { appointmentSchema } from './appointments';
import { PENCIL_STATES } from './pencil';
import { speakerSchema } from './speakers';
import { slipSchema } from './slips';
import { SPOKEN_KINDS, VOICES } from './spokenKinds';
import { todoSchema } from './todos';

/** Milliseconds of sound below which nobody looks for parts. */
export const PARTS_FROM_MS = 4 * 60_000;

export const DRAFT_SOURCES = ['device', 'server'] as const;
export type DraftSource = (typeof DRAFT_SOURCES)[number];

export const RECORDING_STATES = ['waiting', 'recognising', 'ready', 'failed', 'cancelled'] as const;
export type RecordingState = (typeof RECORDING_STATES)[number];

export const MAX_TITLE_LENGTH = 200;
const id = () => yup.string().uuid().required();
const milliseconds = () => yup.number().integer().min(0).required();
const title = () => yup.string().trim().max(MAX_TITLE_LENGTH, 'A title may have at most 200 characters.');
export const tagName = () =>
  yup.string().trim().min(1, 'Enter a tag.').max(60, 'A tag may have at most 60 characters.').required();

export const projectName = () => yup.string().trim().max(60, 'The project name may have at most 60 characters.');
export const personName = () =>
  yup.string().trim().min(1, 'Enter a name.').max(60, 'A name may have at most 60 characters.').required();

export const SUGGESTED = ['title', 'folder', 'tags', 'people', 'project'] as const;

export const citedSentenceSchema = yup.object({
  text: yup.string().required(),
  startMs: yup.number().integer().defined().nullable(),
  passage: yup.number().integer().defined().nullable(),
});

export const writeUpSchema = yup.object({
  id: id(),
  template: yup.string().oneOf(['short-summary']).required(),
  sentencesAsked: yup.number().integer().min(1).max(10).required(),
  state: yup.string().oneOf(PENCIL_STATES).required(),
  sentences: yup.array().of(citedSentenceSchema.required()).required(),
  /** The person's own wording, once they changed it. */
  editedText: yup.string().defined().nullable(),
});
export type WriteUp = yup.InferType<typeof writeUpSchema>;

export const suggestionSchema = yup.object({
  title: yup.string().defined().nullable(),
  folderId: yup.string().uuid().defined().nullable(),
  tags: yup.array().of(yup.string().required()).required(),
  /** Names; absent where recordings were suggested for before people and projects were. */
  people: yup.array().of(yup.string().required()).optional(),
  project: yup.string().nullable().optional(),
  /** Further titles, should the first not please. */
  otherTitles: yup.array().of(yup.string().required()).optional(),
});
export type Suggestion = yup.InferType<typeof suggestionSchema>;

/** A recording as it stands in lists. `strip` has up to 96 peak values from 0 to 100. */
export const recordingCardSchema = yup.object({
  id: id(),
  title: yup.string().defined().nullable(),
  fileName: yup.string().required(),
  source: yup.string().oneOf(['speak', 'import', 'demo']).required(),
  state: yup.string().oneOf(RECORDING_STATES).required(),
  problem: yup.string().defined().nullable(),
  /** Local time of the person: `2026-03-09T07:40:12`. */
  startedAt: yup.string().required(),
  durationMs: yup.number().integer().min(0).defined().nullable(),
  firstWords: yup.string().defined(),
  /** Whose words these are while it is not transcribed: the device's, or those of the pieces that are done. */
  draft: yup.string().oneOf(DRAFT_SOURCES).defined().nullable().default(null),
  strip: yup.array().of(yup.number().required()).required(),
  folderId: yup.string().uuid().defined().nullable(),
  tags: yup.array().of(yup.string().required()).required(),
  isFiled: yup.boolean().required(),
  isBinned: yup.boolean().required(),
  isArchived: yup.boolean().required(),
  isFavourite: yup.boolean().required(),
  /** Name of the project it belongs to. */
  project: yup.string().defined().nullable(),
  /** Names of the people who are in it or were there. */
  people: yup.array().of(yup.string().required()).required(),
  /** Cut off by a crash or an empty battery, and brought back by itself. */
  isRecovered: yup.boolean().required(),
  /** The appointment during which it was recorded, as it stood in the calendar then. */
  appointment: appointmentSchema.defined().nullable().default(null),
  suggestion: suggestionSchema.required(),
  pencilTodos: yup.array().of(todoSchema.required()).required(),
});
export type RecordingCard = yup.InferType<typeof recordingCardSchema>;

export const wordSchema = yup.object({
  startMs: milliseconds(),
  endMs: milliseconds(),
  text: yup.string().required(),
  confidence: yup.number().min(0).max(1).required(),
  /** Typed by a person: it is shown exactly so. */
  isTyped: yup.boolean().optional(),
  /** What else the recogniser thought of, likeliest first. */
  others: yup.array().of(yup.string().required()).max(10).optional(),
});

export const passageSchema = yup.object({
  id: yup.number().integer().required(),
  /** Counts the changes; a correction says which one it was made on. */
  revision: yup.number().integer().min(0).required(),
  startMs: milliseconds(),
  endMs: milliseconds(),
  speaker: yup.string().defined().nullable(),
  startsParagraph: yup.boolean().required(),
  words: yup.array().of(wordSchema.required()).required(),
});

export const recordingSchema = recordingCardSchema.shape({
  mediaType: yup.string().required(),
  sizeBytes: milliseconds(),
  hasSound: yup.boolean().required(),
  /** Whether the server has the moving picture of it. */
  hasVideo: yup.boolean().required(),
  /** Latitude and longitude in degrees, as the file states them. */
  place: yup.string().defined().nullable(),
  /** Whether spoken commands are done and not written. */
  isDictation: yup.boolean().required(),
  /** What it is: as the person says, else as it was found; null until it is transcribed. */
  kind: yup.string().oneOf(SPOKEN_KINDS).defined().nullable(),
  /** Whose its one voice is; null where the person was not asked. */
  voice: yup.string().oneOf(VOICES).defined().nullable(),
  model: yup.string().defined().nullable(),
  language: yup.string().defined().nullable(),
  peaks: yup.array().of(yup.number().required()).required(),
  passages: yup.array().of(passageSchema.required()).required(),
  /** Who speaks, in the order in which they begin; empty where one person speaks. */
  speakers: yup.array().of(speakerSchema.required()).required(),
  todos: yup.array().of(todoSchema.required()).required(),
  writeUps: yup.array().of(writeUpSchema.required()).required(),
  slips: yup.array().of(slipSchema.required()).required(),
});
export type Recording = yup.InferType<typeof recordingSchema>;

export const recordingChangeSchema = yup
  .object({
    title: title().nullable(),
    folderId: yup.string().uuid().nullable(),
    tags: yup.array().of(tagName()).max(50, 'A recording may have at most 50 tags.'),
    isFiled: yup.boolean(),
    isBinned: yup.boolean(),
    isArchived: yup.boolean(),
    isFavourite: yup.boolean(),
    project: projectName().nullable(),
    people: yup.array().of(personName()).max(50, 'A recording may have at most 50 people.'),
    isDictation: yup.boolean(),
    /** Null: as it is found. */
    kind: yup.string().oneOf(SPOKEN_KINDS, 'Immeld does not know this kind of recording.').nullable(),
    voice: yup.string().oneOf(VOICES, 'The voice must be own or other.').nullable(),
    /** Another appointment of the same day, or none. */
    appointmentId: yup.string().max(500).nullable(),
    zone: yup.string().max(60),
    /** What of the suggestion is turned down. */
    drop: yup.array().of(yup.string().oneOf(SUGGESTED).required()),
    /** Another one of the titles that are suggested. */
    suggestedTitle: title(),
  })
  .noUnknown('The request contains a field that recordings do not have.');
export type RecordingChange = yup.InferType<typeof recordingChangeSchema>;

/** Everything that is accepted with one tap; what is left out stays in pencil. */
export const filingSchema = yup
  .object({
    title: title().nullable(),
    folderId: yup.string().uuid().nullable(),
    tags: yup.array().of(tagName()).max(50),
    project: projectName().nullable(),
    people: yup.array().of(personName()).max(50),
    todoIds: yup.array().of(yup.string().uuid().required()),
  })
  .noUnknown();
export type Filing = yup.InferType<typeof filingSchema>;

export const writeUpChangeSchema = yup
  .object({
    state: yup.string().oneOf(PENCIL_STATES),
    editedText: yup.string().max(20_000, 'A write-up may have at most 20,000 characters.').nullable(),
    sentencesAsked: yup
      .number()
      .integer()
      .min(1, 'Choose at least one sentence.')
      .max(10, 'Choose at most ten sentences.'),
  })
  .noUnknown();
export type WriteUpChange = yup.InferType<typeof writeUpChangeSchema>;
