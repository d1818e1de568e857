import type { ExportFormat } from '@immeld/core/contract/exports';
import type { Recording } from '@immeld/core/contract/recordings';
import { type ExportRules, type RecordingToExport, recordingDocument } from '@immeld/core/exports/recordingDocument';
import { type ExportDocument, picturesOf } from '@immeld/core/exports/exportDocument';
import { documentHtml } from '@immeld/core/exports/documentHtml';
import { documentMarkdown } from '@immeld/core/exports/documentMarkdown';
import { documentText } from '@immeld/core/exports/documentText';
import { transcriptText } from '@immeld/core/exports/transcriptText';
import { FORMAT_TYPES, type Format } from '@immeld/core/formats/formats';
import { clockTime } from '@immeld/core/formats/times';
import { type ReadingRules, passagesToRead } from '@immeld/core/transcript/reading';
import { sharedPage } from '../sharing/sharedPage';

/** A recording of which a document is made. Its words are JSON until the document is made: a text is handed to a thread quickly. */
export type DocumentSource = Pick<RecordingToExport, 'sheets' | 'parts'> & {
  /** A `Recording` of the contract. */
  json: string;
  rules: ExportRules;
};

export type TextFormat = Exclude<ExportFormat, 'docx' | 'pdf' | 'csv'>;
const PAGES: ReadonlySet<ExportFormat> = new Set(['txt', 'md', 'html']);

export type DocumentTask =
  | { kind: 'sheet'; source: DocumentSource }
  /** `pictures`: addresses by the pictures' ids. */
  | { kind: 'text'; source: DocumentSource; format: TextFormat; pictures: ReadonlyMap<string, string> }
  | { kind: 'shared-page'; source: DocumentSource; page: SharedPlace }
  /** The words alone, with the consent where it is wanted. */
  | { kind: 'words'; source: Pick<DocumentSource, 'json'>; format: Format; reading: ReadingRules; consent: boolean };

/** Where a shared page lies. */
export type SharedPlace = { path: string; isListed: boolean; soundPath: string | null };

export type DocumentResults = { sheet: ExportDocument; text: string; 'shared-page': string; words: string };

export function makeDocument(task: DocumentTask): DocumentResults[DocumentTask['kind']] {
  if (task.kind === 'words') return wordsAlone(task);
  const { json, sheets, parts, rules } = task.source;
  const recording = { ...(JSON.parse(json) as Recording), sheets, parts };
  if (task.kind === 'text' && !PAGES.has(task.format)) {
    return transcriptText(recording, task.format as 'srt' | 'vtt' | 'tsv' | 'json', rules);
  }
  const sheet = recordingDocument(recording, rules);
  if (task.kind === 'sheet') return sheet;
  return task.kind === 'text'
    ? textOfSheet(sheet, task.format, task.pictures)
    : pageForOthers(sheet, task.page, rules.owner ?? '');
}

function wordsAlone({ source, format, reading, consent }: Extract<DocumentTask, { kind: 'words' }>): string {
  const recording = JSON.parse(source.json) as Recording;
  return FORMAT_TYPES[format].write({
    ...{ file: recording.fileName, title: titleOf(recording), durationMs: recording.durationMs ?? 0 },
    passages: passagesToRead(recording.passages, reading),
    consent: consent
      ? recording.slips.filter((s) => s.kind === 'consent').map((s) => `${s.text}, at ${clockTime(s.startMs)}`)
      : [],
    ...{ language: recording.language ?? 'en', model: recording.model ?? '' },
  });
}

const titleOf = ({ title, suggestion, fileName }: Recording): string => title ?? suggestion.title ?? fileName;

export function textOfSheet(sheet: ExportDocument, format: TextFormat, pictures: ReadonlyMap<string, string>): string {
  if (format === 'txt') return documentText(sheet);
  return format === 'md' ? documentMarkdown(sheet, pictures) : documentHtml(sheet, pictures);
}

/** What a link shows. @param owner the name of whoever shares it */
export function pageForOthers(sheet: ExportDocument, place: SharedPlace, owner: string): string {
  const pictures = new Map(picturesOf(sheet).map((id) => [id, `${place.path}/pictures/${id}`]));
  return sharedPage(namingOwner(sheet, owner), place, pictures);
}

/** Headings of the shipped templates; write-ups made before they were reworded keep the older one. */
const OWN_TODOS: ReadonlySet<string> = new Set(['My to-dos', 'Mine to do']);

/** “My” means somebody else to the reader, so headings of the shipped templates name the person. */
const namingOwner = (sheet: ExportDocument, owner: string): ExportDocument => ({
  ...sheet,
  blocks: sheet.blocks.map((block) => {
    if (block.kind !== 'heading') return block;
    if (OWN_TODOS.has(block.text)) return { ...block, text: `To do for ${owner}` };
    return block.text === 'My asides' ? { ...block, text: 'Asides' } : block;
  }),
});
