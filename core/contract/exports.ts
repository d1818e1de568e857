import * as yup from './yup';

/** Files that a recording is taken along as. */
export const EXPORT_FORMATS = ['txt', 'docx', 'pdf', 'md', 'html', 'srt', 'vtt', 'tsv', 'json', 'csv'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

/** How the sound goes along; `original` is the file as it came. */
export const SOUND_FORMATS = ['original', 'm4a', 'mp3', 'wav'] as const;

/** Where what stands in the margin goes: nowhere, below its words, or at the foot. */
export const SLIP_PLACES = ['none', 'margin', 'footnotes'] as const;
export const SHAPES = ['paragraphs', 'passages'] as const;

/** What goes into a file, and how. Not each format has a use for each of them. */
export const exportChoicesSchema = yup
  .object({
    /** The words themselves; without them there are only what was made of them and the margin. */
    words: yup.boolean().required(),
    times: yup.boolean().required(),
    speakers: yup.boolean().required(),
    shape: yup.string().oneOf(SHAPES).required(),
    /** Hesitations and what was begun twice. */
    fillers: yup.boolean().required(),
    /** Only the words that were marked. */
    marksOnly: yup.boolean().required(),
    /** Marked words in the colour of their mark. */
    colours: yup.boolean().required(),
    slips: yup.string().oneOf(SLIP_PLACES).required(),
    comments: yup.boolean().required(),
    pictures: yup.boolean().required(),
    writeUps: yup.boolean().required(),
    todos: yup.boolean().required(),
    /** Also what nobody has accepted, marked as proposed. */
    proposals: yup.boolean().default(false),
    /** Title, date and length on top. */
    header: yup.boolean().required(),
    /** The same on a page of its own. */
    titlePage: yup.boolean().required(),
    /** Where the sound lies: the name of the file that goes along. */
    soundLink: yup.boolean().required(),
    consent: yup.boolean().required(),
  })
  .noUnknown();
export type ExportChoices = yup.InferType<typeof exportChoicesSchema>;

/** Without a header, as most people want their words. */
export const PLAIN_CHOICES: ExportChoices = {
  ...{ words: true, times: false, speakers: true, shape: 'paragraphs', fillers: true },
  ...{ marksOnly: false, colours: false, slips: 'none', comments: false, pictures: false },
  ...{
    writeUps: false,
    todos: false,
    proposals: false,
    header: false,
    titlePage: false,
    soundLink: false,
    consent: false,
  },
};

const rich: ExportChoices = {
  ...PLAIN_CHOICES,
  ...{ colours: true, slips: 'margin', comments: true, pictures: true, writeUps: true, todos: true, header: true },
};

/** What is chosen for each format as long as the person has chosen nothing. */
export const USUAL_CHOICES: Record<ExportFormat, ExportChoices> = {
  ...{ txt: PLAIN_CHOICES, docx: rich, pdf: rich, md: rich, html: rich },
  ...{ srt: PLAIN_CHOICES, vtt: PLAIN_CHOICES, tsv: PLAIN_CHOICES, json: PLAIN_CHOICES, csv: PLAIN_CHOICES },
};

type Choice = keyof ExportChoices;
const PAGE: Choice[] = [
  ...(['words', 'times', 'speakers', 'shape', 'fillers', 'marksOnly', 'colours', 'slips', 'comments'] as const),
  ...(['pictures', 'writeUps', 'todos', 'proposals', 'header', 'titlePage', 'soundLink', 'consent'] as const),
];

/** Which choices mean something in a format. */
export const CHOICES_OF: Record<ExportFormat, readonly Choice[]> = {
  txt: PAGE.filter((c) => !['colours', 'pictures', 'titlePage'].includes(c)),
  md: PAGE.filter((c) => !['colours', 'titlePage'].includes(c)),
  ...{ docx: PAGE, pdf: PAGE, html: PAGE.filter((c) => c !== 'titlePage') },
  srt: ['speakers', 'fillers', 'marksOnly'],
  vtt: ['speakers', 'fillers', 'marksOnly', 'slips', 'consent'],
  tsv: ['speakers', 'fillers', 'marksOnly'],
  json: ['fillers', 'marksOnly', 'consent'],
  csv: ['proposals'],
};

/** What stands for what in the pattern of file names. */
export const NAME_PARTS = ['title', 'date', 'time', 'folder', 'project', 'number', 'file'] as const;
export type NamePart = (typeof NAME_PARTS)[number];
export const USUAL_PATTERN = '{date} {title}';

export const namePattern = () =>
  yup
    .string()
    .trim()
    .min(1, 'Enter a pattern for the file names.')
    .max(120, 'A pattern may have at most 120 characters.')
    .test(
      'known-parts',
      `Inside { and } you can use ${NAME_PARTS.join(', ')}.`,
      (value) =>
        !value || [...value.matchAll(/\{([^{}]*)\}/g)].every(([, part]) => NAME_PARTS.includes(part as NamePart)),
    );

export const fileOptions = yup
  .object({ format: yup.string().oneOf(EXPORT_FORMATS).required(), choices: exportChoicesSchema.required() })
  .noUnknown();

/** What a person chose last, so that it need not be chosen again. */
export const exportSettingsSchema = yup
  .object({
    formats: yup.array().of(yup.string().oneOf(EXPORT_FORMATS).required()).max(EXPORT_FORMATS.length).required(),
    /** The choices of each format that was changed. */
    choices: yup.array().of(fileOptions.required()).max(EXPORT_FORMATS.length).required(),
    pattern: namePattern().required(),
  })
  .noUnknown();
export type ExportSettings = yup.InferType<typeof exportSettingsSchema>;

export const USUAL_EXPORTS: ExportSettings = { formats: ['txt'], choices: [], pattern: USUAL_PATTERN };
