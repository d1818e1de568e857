import * as yup from './yup';
import { dateText } from './endpoint';
import { USUAL_EXPORTS, exportSettingsSchema } from './exports';
import { DICTATION_COMMANDS } from './dictationCommands';
import { QUALITIES } from './cleaning';
import { NUMERAL_KINDS } from './numeralKinds';
import { USUAL_MARK_KINDS, markKindsSchema } from './markKinds';
import { glossarySchema } from './meanings';
import { paragraphKind, paragraphPause } from './paragraphs';

const figures = () => yup.array().of(yup.string().oneOf(NUMERAL_KINDS).required());

const commands = () => yup.array().of(yup.string().oneOf(DICTATION_COMMANDS).required());

const quality = () => yup.string().oneOf(QUALITIES, 'The quality must be quick or usual.');

const names = () =>
  yup
    .array()
    .of(
      yup.object({
        text: yup
          .string()
          .trim()
          .required('Enter a name or term.')
          .max(60, 'A name or term may have at most 60 characters.')
          .matches(/^(?=[^=#\n]*$)[^=#\n\p{L}]*\p{L}/u, 'A name or term needs letters and cannot contain = or #.'),
        soundsLike: yup
          .array()
          .of(yup.string().trim().max(60, '“Sounds like” may have at most 60 characters.').required())
          .max(5, 'A name or term may have at most five spoken forms.')
          .required(),
        /** The project in whose recordings it is expected; in all where there is none. */
        project: yup.string().trim().max(60).nullable().optional(),
      }),
    )
    .max(500, 'The list may have at most 500 names and terms.');

const ownName = () => yup.string().trim().max(60, 'A name may have at most 60 characters.');

/** Kinds of recordings, as they can be told without asking. */
export const RECORDING_KINDS = ['appointment', 'conversation', 'long talk', 'memo'] as const;
export type RecordingKind = (typeof RECORDING_KINDS)[number];

/** By which template a write-up is made of every recording in a folder, or of a kind; the folder comes first. */
const usualWriteUps = () =>
  yup
    .array()
    .of(
      yup
        .object({
          templateId: yup.string().max(60).required(),
          folderId: yup.string().uuid().nullable().default(null),
          kind: yup.string().oneOf(RECORDING_KINDS).nullable().default(null),
        })
        .required(),
    )
    .max(200);

const phrase = () =>
  yup
    .string()
    .trim()
    .max(60, 'A phrase may have at most 60 characters.')
    .test(
      'some-letters',
      'The phrase needs at least four letters, so that Immeld does not hear it by accident.',
      (value) => (value === undefined ? true : (value.match(/\p{L}/gu) ?? []).length >= 4),
    );

const currencyCode = () =>
  yup
    .string()
    .matches(/^[A-Z]{3}$/, 'A currency has three letters, such as EUR or USD.')
    .max(3, 'A currency has three letters, such as EUR or USD.');

/** Rates of exchange for sums in notes. */
const currencies = () =>
  yup.object({
    day: dateText('The day of the rates needs a date.').required(),
    base: currencyCode().required(),
    rates: yup
      .array()
      .of(
        yup.object({
          code: currencyCode().required(),
          rate: yup
            .number()
            .typeError('The rate needs a number.')
            .min(1e-9, 'The rate must be more than 0.')
            .max(1e9, 'The rate must be less than a billion.')
            .required('The rate needs a number.'),
        }),
      )
      .max(100, 'The table may have at most 100 currencies.')
      .required(),
  });

/** What holds for all of a person's devices. */
export const settingsSchema = yup.object({
  listensForAsides: yup.boolean().required(),
  asideOpening: phrase().required(),
  asideClosing: phrase().required(),
  /** Whether the place that a file states is kept with its recording. */
  takesPlace: yup.boolean().required(),
  /** Names and terms that the recogniser is to know, with how they sound. */
  names: names().required(),
  /** With how much care is transcribed from now on. */
  quality: quality().required(),
  /** Whether recordings that the quick model transcribed are transcribed again while nothing else waits. */
  improvesOlder: yup.boolean().required(),
  /** What is written in figures; the words that were said are kept underneath. */
  figures: figures().required(),
  /** Whether hesitations and what was begun twice are left out of what one reads. */
  hidesFillers: yup.boolean().required(),
  /** Where paragraphs begin in what is recognised from now on. */
  paragraphKind: paragraphKind().required(),
  paragraphPauseMs: paragraphPause().required(),
  /** The kinds of marks with their names, in the order in which they are offered. */
  markKinds: markKindsSchema().required(),
  /** Spoken commands that are not obeyed in a dictation. */
  dictationOff: commands().required(),
  /** What the person is called, so that "me" is known among the speakers; empty as long as it is not said. */
  ownName: ownName().defined(),
  /** Where recordings go for which no folder is suggested. */
  defaultFolderId: yup.string().uuid().defined().nullable(),
  /** Write-ups that are made by themselves. */
  usualWriteUps: usualWriteUps().required(),
  /** The person's own glossary. */
  glossary: glossarySchema().required(),
  /** The rates that notes count with; null as long as none was entered. */
  currencies: currencies().defined().nullable(),
  /** How recordings and notes were taken along last. */
  exports: exportSettingsSchema.required(),
});
export type SharedSettings = yup.InferType<typeof settingsSchema>;

export const settingsChangeSchema = yup
  .object({
    listensForAsides: yup.boolean(),
    asideOpening: phrase(),
    asideClosing: phrase(),
    takesPlace: yup.boolean(),
    names: names(),
    quality: quality(),
    improvesOlder: yup.boolean(),
    figures: figures(),
    hidesFillers: yup.boolean(),
    paragraphKind: paragraphKind(),
    paragraphPauseMs: paragraphPause(),
    markKinds: markKindsSchema(),
    dictationOff: commands(),
    ownName: ownName(),
    defaultFolderId: yup.string().uuid().nullable(),
    usualWriteUps: usualWriteUps(),
    glossary: glossarySchema(),
    currencies: currencies().nullable().optional().default(undefined),
    exports: exportSettingsSchema.optional().default(undefined),
  })
  .noUnknown();
export type SettingsChange = yup.InferType<typeof settingsChangeSchema>;

export const USUAL_SETTINGS: SharedSettings = {
  listensForAsides: true,
  asideOpening: 'side note',
  asideClosing: 'back to it',
  takesPlace: false,
  names: [],
  quality: 'usual',
  improvesOlder: false,
  figures: [...NUMERAL_KINDS],
  hidesFillers: false,
  paragraphKind: 'usual',
  paragraphPauseMs: 2000,
  markKinds: USUAL_MARK_KINDS,
  dictationOff: [],
  ownName: '',
  defaultFolderId: null,
  usualWriteUps: [],
  glossary: [],
  currencies: null,
  exports: USUAL_EXPORTS,
};
