import {
  type ExportChoices,
  type ExportFormat,
  type ExportSettings,
  USUAL_CHOICES,
} from '@immeld/core/contract/exports';
import type { ExportItem } from '@immeld/core/contract/exportEndpoints';

export const FORMAT_NAMES: Record<ExportFormat, { label: string; short: string; hint: string }> = {
  txt: { label: 'Plain text', short: 'Text', hint: 'opens everywhere' },
  docx: { label: 'Word document', short: 'Word', hint: 'for further editing' },
  pdf: { label: 'PDF', short: 'PDF', hint: 'for reading and printing' },
  md: { label: 'Markdown', short: 'Markdown', hint: 'for notes kept as text files' },
  html: { label: 'Web page', short: 'Web page', hint: 'one file, pictures included' },
  srt: { label: 'Subtitles for video (SRT)', short: 'SRT', hint: 'two short lines at a time' },
  vtt: { label: 'Subtitles for the web (WebVTT)', short: 'WebVTT', hint: 'with speaker names' },
  tsv: { label: 'Table with times (TSV)', short: 'TSV', hint: 'start, end and text' },
  json: { label: 'Data for programs (JSON)', short: 'JSON', hint: 'every word with its time' },
  csv: { label: 'To-dos as a table (CSV)', short: 'CSV', hint: 'one table for the whole export' },
};

/** What can be switched on and off, in the order in which it is offered. */
export const SWITCHES: { key: keyof ExportChoices; label: string; hint?: string }[] = [
  { key: 'words', label: 'The words' },
  { key: 'speakers', label: 'Speakers' },
  { key: 'times', label: 'Times' },
  { key: 'fillers', label: 'Hesitations', hint: '“um” and repeated beginnings' },
  { key: 'marksOnly', label: 'Only marked text' },
  { key: 'colours', label: 'Mark colours' },
  { key: 'comments', label: 'Comments', hint: 'together with their slips' },
  { key: 'pictures', label: 'Pictures' },
  { key: 'writeUps', label: 'Write-ups', hint: 'that you have accepted' },
  { key: 'todos', label: 'To-dos', hint: 'that you have accepted' },
  { key: 'proposals', label: 'Include suggestions', hint: 'marked as suggested' },
  { key: 'header', label: 'Title, date and length at the top' },
  { key: 'titlePage', label: 'Title page' },
  { key: 'consent', label: 'Consent note' },
  { key: 'soundLink', label: 'Link to the audio', hint: 'the audio file is exported with it' },
];

export const SHAPE_NAMES = { paragraphs: 'paragraphs', passages: 'each passage separately' } as const;
export const SLIP_PLACE_NAMES = { none: 'left out', margin: 'beside the text', footnotes: 'as footnotes' } as const;

/** What is chosen for a format: the person's own choices, else the usual ones. */
export const choicesFor = ({ choices }: ExportSettings, format: ExportFormat): ExportChoices =>
  choices.find((c) => c.format === format)?.choices ?? USUAL_CHOICES[format];

export const withChoices = (
  settings: ExportSettings,
  format: ExportFormat,
  change: Partial<ExportChoices>,
): ExportSettings => ({
  ...settings,
  choices: [
    ...settings.choices.filter((c) => c.format !== format),
    { format, choices: { ...choicesFor(settings, format), ...change } },
  ],
});

/** Recordings and notes as they stand in an address, and back; what is none is left out. */
export const itemsToText = (items: readonly ExportItem[]): string =>
  items.map(({ kind, id }) => `${kind === 'note' ? 'n' : 'r'}${id}`).join(',');

export const itemsFromText = (text: string): ExportItem[] =>
  text
    .split(',')
    .flatMap((part): ExportItem[] =>
      /^[nr][0-9a-f-]{36}$/.test(part) ? [{ kind: part[0] === 'n' ? 'note' : 'recording', id: part.slice(1) }] : [],
    );

const KEPT = 'immeld-taken-along';
const MAX_IN_ADDRESS = 60;

/** Where these are taken along; what is too much for an address is kept by this window. */
export function exportAddress(items: readonly ExportItem[]): { pathname: '/take'; params: { items: string } } {
  const text = itemsToText(items);
  if (items.length <= MAX_IN_ADDRESS) return { pathname: '/take', params: { items: text } };
  sessionStorage.setItem(KEPT, text);
  return { pathname: '/take', params: { items: 'kept' } };
}

/** What an address by `exportAddress` means. */
export const itemsOfAddress = (text: string): ExportItem[] =>
  itemsFromText(text === 'kept' ? (sessionStorage.getItem(KEPT) ?? '') : text);

/** The e-mail addresses in what was typed, with commas, semicolons or blanks between them. */
export const addressesIn = (text: string): string[] => [...new Set(text.split(/[\s,;]+/).filter(Boolean))];
