import type { Recording } from '@immeld/core/contract/recordings';
import { type ExportRules, type RecordingToExport, recordingDocument } from '@immeld/core/exports/recordingDocument';
import { type ExportDocument, picturesOf } from '@immeld/core/exports/exportDocument';
import { documentHtml } from '@immeld/core/exports/documentHtml';
import { documentMarkdown } from '@immeld/core/exports/documentMarkdown';
import { documentText } from '@immeld/core/exports/documentText';
import { transcriptText } from '@immeld/core/exports/transcriptText';
import type { Format } from '@immeld/core/formats/formats';
import { sharedPage } from '../sharing/sharedPage';

/** A recording of which a document is made. Its words are JSON until the document is made: a text is handed to a thread quickly. */
export type DocumentSource = Pick<RecordingToExport, 'sheets' | 'parts'> & {
  /** A `Recording` of the contract. */
  json: string;
  rules: ExportRules;
};

/** Pages that are text. */
export type TextFormat = 'txt' | 'md' | 'html';

export type DocumentTask =
  | { kind: 'sheet'; source: DocumentSource }
  /** `pictures`: addresses by the pictures' ids. */
  | { kind: 'text'; source: DocumentSource; format: TextFormat; pictures: ReadonlyMap<string, string> }
  | { kind: 'shared-page'; source: DocumentSource; page: SharedPlace }
  /** The words alone. */
  | { kind: 'transcript'; source: Pick<DocumentSource, 'json' | 'rules'>; format: Format };

/** Where a shared page lies. */
export type SharedPlace = { path: string; isListed: boolean; soundPath: string | null };

export type DocumentResults = { sheet: ExportDocument; text: string; 'shared-page': string; transcript: string };

export function makeDocument(task: DocumentTask): DocumentResults[DocumentTask['kind']] {
  const { json, rules } = task.source;
  const recording = JSON.parse(json) as Recording;
  if (task.kind === 'transcript') return transcriptText(recording, task.format, rules);
  const { sheets, parts } = task.source;
  const sheet = recordingDocument({ ...recording, sheets, parts }, rules);
  if (task.kind === 'sheet') return sheet;
  return task.kind === 'text'
    ? textOfDocument(sheet, task.format, task.pictures)
    : pageForOthers(sheet, task.page, rules.owner ?? '');
}

export function textOfDocument(
  sheet: ExportDocument,
  format: TextFormat,
  pictures: ReadonlyMap<string, string>,
): string {
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
