import fs from 'node:fs';
import path from 'node:path';
import type { ExportItem, NewExport } from '@immeld/core/contract/exportEndpoints';
import { type ExportChoices, type ExportFormat, type NamePart } from '@immeld/core/contract/exports';
import { Problem } from '@immeld/core/contract/problem';
import { PARTS_FROM_MS } from '@immeld/core/contract/recordings';
import type { Todo } from '@immeld/core/contract/todos';
import { fileNameBy } from '@immeld/core/exports/fileNames';
import { mayHaveSums } from '@immeld/core/compute/noteLines';
import { noteAsDocument } from '@immeld/core/exports/noteAsDocument';
import { type ExportRules, type RecordingToExport, marksOf, titleOf } from '@immeld/core/exports/recordingDocument';
import { type ExportDocument, picturesOf } from '@immeld/core/exports/exportDocument';
import { dayInWords } from '@immeld/core/formats/times';
import { Folder } from '../models/folder';
import { NoteRow } from '../models/note';
import { Recording } from '../models/recording';
import { sharedSettings } from '../models/settings';
import { SheetRow } from '../models/sheet';
import type { SoundStore } from '../storage/soundStore';
import { recordingJson } from '../views/recordingView';
import { longTasks } from '../tasks/taskPool';
import { type DocumentSource, type SharedPlace, type TextFormat, pageForOthers, textOfDocument } from './makeDocument';
import { document } from './document';
import { pageFile } from './pageFile';
import { pagePictures } from './pagePictures';
import { soundEnding, writeSound } from './soundFile';

const PAGES: ReadonlySet<ExportFormat> = new Set(['txt', 'docx', 'pdf', 'md', 'html']);
const isText = (format: ExportFormat): format is TextFormat => format === 'txt' || format === 'md' || format === 'html';

/** A file that was made, in memory or on the disk. */
export type ExportedFile = { name: string } & ({ bytes: Buffer } | { path: string });

export type ExportContext = {
  sounds: SoundStore;
  /** Where sounds are written until they are in the zip. */
  workFolder: string;
  signal: AbortSignal;
  /** Tells what could not be taken along. */
  miss: (sentence: string) => void;
};

/** What one recording or note is called in names of files. */
type Named = Record<NamePart, string>;

/** Whether titles of parts stand in a file; finding them takes seconds in hours of talk. */
const showsParts = ({ format, choices }: { format: ExportFormat; choices: ExportChoices }): boolean =>
  PAGES.has(format) && (choices.header || choices.titlePage);

/** What an item is, as far as files are made of it. */
async function sourceOf(item: ExportItem, sounds: SoundStore, withParts: boolean) {
  if (item.kind === 'note') {
    const note = await NoteRow.findByPk(item.id);
    if (!note) throw new Problem('not-found', 'This note no longer exists.');
    return { kind: 'note' as const, note };
  }
  const read = await recordingJson(item.id, sounds);
  const row = await Recording.findByPk(item.id);
  if (!read || !row) throw new Problem('not-found', 'This recording no longer exists.');
  const sheets = await SheetRow.findAll({ where: { recordingId: item.id } });
  const hasParts = withParts && (row.durationMs ?? 0) >= PARTS_FROM_MS;
  const parts = hasParts ? await longTasks.run({ kind: 'parts', passages: read.passages }) : [];
  const source = {
    json: read.json,
    sheets: sheets.map(({ template, sections }) => ({ name: template.name, sections })),
    parts: parts.map(({ title, startMs }) => ({ title, startMs })),
  };
  return { kind: 'recording' as const, recording: read.view, hasWords: read.passages !== '[]', source, row };
}
type ItemSource = Awaited<ReturnType<typeof sourceOf>>;

const titleOfSource = (source: ItemSource): string =>
  source.kind === 'note' ? source.note.title || 'Note' : titleOf(source.recording);

async function namedAs(source: ItemSource, number: number): Promise<Named> {
  const { folderId, at, project, file } =
    source.kind === 'note'
      ? {
          folderId: source.note.folderId,
          at: source.note.updatedAt.toISOString(),
          project: '',
          file: source.note.title,
        }
      : {
          ...{ folderId: source.recording.folderId, at: source.recording.startedAt },
          ...{ project: source.recording.project ?? '', file: path.parse(source.recording.fileName).name },
        };
  return {
    title: titleOfSource(source),
    ...{ date: at.slice(0, 10), time: at.slice(11, 16).replace(':', '.'), project, file, number: String(number) },
    folder: folderId ? ((await Folder.findByPk(folderId))?.name ?? '') : '',
  };
}

type RecordingSource = Extract<ItemSource, { kind: 'recording' }>;
type Ruling = Pick<ExportRules, 'choices' | 'soundName'> & Partial<ExportRules>;

async function documentSource({ source }: RecordingSource, ruling: Ruling): Promise<DocumentSource> {
  const { figures, markKinds: kinds } = await sharedSettings();
  const reading = { figures, hidesFillers: !ruling.choices.fillers };
  return { ...source, rules: { reading, kinds, ...ruling } };
}

async function documentOfNote({ title, body, updatedAt }: NoteRow, choices: ExportChoices): Promise<ExportDocument> {
  const { markKinds: kinds, currencies } = await sharedSettings();
  const day = new Date().toISOString().slice(0, 10);
  // What a note works out goes along with it.
  const workedOut = body && mayHaveSums(body) ? await longTasks.run({ kind: 'sums', body, day, currencies }) : body;
  return noteAsDocument(
    { title: title || 'Note', body: workedOut, facts: [dayInWords(updatedAt.toISOString().slice(0, 10))] },
    { hasHeader: choices.header, kinds },
  );
}

const exportDocumentOf = async (source: ItemSource, ruling: Ruling): Promise<ExportDocument> =>
  source.kind === 'note'
    ? documentOfNote(source.note, ruling.choices)
    : document({ kind: 'sheet', source: await documentSource(source, ruling) });

/** The text of a format that is one; null where a note has no such form. */
async function textOf(
  source: ItemSource,
  format: Exclude<ExportFormat, 'docx' | 'pdf' | 'csv'>,
  ruling: Ruling,
  pictures: ReadonlyMap<string, string> = new Map(),
): Promise<string | null> {
  if (source.kind === 'note') {
    return isText(format) ? textOfDocument(await documentOfNote(source.note, ruling.choices), format, pictures) : null;
  }
  const from = await documentSource(source, ruling);
  return isText(format)
    ? document({ kind: 'text', source: from, format, pictures })
    : document({ kind: 'transcript', source: from, format });
}

/** How a file will read: its text, or HTML for what has pages. Pictures are named, not shown. */
export async function exportPreview(
  item: ExportItem,
  format: ExportFormat,
  choices: ExportChoices,
  sounds: SoundStore,
): Promise<{ isHtml: boolean; text: string; plain: string }> {
  const source = await sourceOf(item, sounds, showsParts({ format, choices }));
  if (format === 'csv') {
    const { todosCsv } = await import('@immeld/core/exports/todosCsv');
    const text = source.kind === 'recording' ? todosCsv(todosToTake(source.recording, choices)) : '';
    return { isHtml: false, text, plain: text };
  }
  const isHtml = format === 'docx' || format === 'pdf' || format === 'html';
  const text = await textOf(source, isHtml ? 'html' : format, { choices, soundName: 'sound.m4a' });
  if (text === null)
    throw new Problem('invalid-request', 'A note has no times, so it cannot be exported in this format.');
  const plain = isHtml ? ((await textOf(source, 'txt', { choices, soundName: null })) ?? '') : text;
  return { isHtml, text, plain };
}

/** A recording or note as a page for others. Throws Problem where it is gone or lies in the bin. */
export async function sharedPageOf(
  item: ExportItem,
  choices: ExportChoices,
  sounds: SoundStore,
  page: SharedPlace,
): Promise<string> {
  const source = await sourceOf(item, sounds, true);
  const isBinned = source.kind === 'note' ? source.note.binnedAt !== null : source.row.binnedAt !== null;
  if (isBinned) throw new Problem('not-found', 'This item is in the bin. Restore it to export it.');
  const { ownName } = await sharedSettings();
  const owner = ownName || 'whoever shares this';
  if (source.kind === 'note') return pageForOthers(await documentOfNote(source.note, choices), page, owner);
  const ruling = { choices, soundName: null, hasWordTimes: page.soundPath !== null, owner };
  return document({ kind: 'shared-page', source: await documentSource(source, ruling), page });
}

const todosToTake = ({ todos }: Pick<RecordingToExport, 'todos'>, { proposals }: ExportChoices): Todo[] =>
  todos.filter((t) => t.state === 'ink' || (t.state === 'pencil' && proposals));

/**
 * All files of one recording or note, one after the other. Pictures of Markdown lie in a folder beside it; to-dos go into
 * `todos`, as they make one table for all.
 */
export async function* filesOf(
  item: ExportItem,
  number: number,
  { files, sound, pattern }: NewExport,
  todos: Todo[],
  nameFree: (name: string) => string,
  { sounds, workFolder, signal, miss }: ExportContext,
): AsyncGenerator<ExportedFile> {
  const source = await sourceOf(item, sounds, files.some(showsParts));
  const title = titleOfSource(source);
  const name = nameFree(fileNameBy(pattern, await namedAs(source, number)));
  const soundName =
    sound && source.kind === 'recording' ? name + soundEnding(sound, path.extname(source.row.soundFile)) : null;
  for (const { format, choices } of files) {
    signal.throwIfAborted();
    if (format === 'csv') {
      if (source.kind === 'recording') todos.push(...todosToTake(source.recording, choices));
      continue;
    }
    if (source.kind === 'note' && !PAGES.has(format)) {
      miss(`“${title}” is a note without times, so it was not exported as ${format.toUpperCase()}.`);
      continue;
    }
    if (source.kind === 'recording' && !source.hasWords) {
      miss(`“${title}” has no text yet, so it was not exported as text.`);
      break;
    }
    if (source.kind === 'recording' && choices.marksOnly && marksOf(source.recording).length === 0) {
      miss(`In “${title}” no words are marked, so there is nothing to export.`);
      continue;
    }
    if (format === 'docx' || format === 'pdf') {
      const sheet = await exportDocumentOf(source, { choices, soundName });
      const { pictures, missing } = await pagePictures(sounds, picturesOf(sheet));
      missing.forEach((m) => miss(`${m} (“${title}”)`));
      yield { name: `${name}.${format}`, bytes: await pageFile({ form: format, sheet, pictures }, signal) };
      continue;
    }
    const shown = new Map<string, string>();
    if (format === 'md' || format === 'html') {
      const { pictures, missing } = await pagePictures(
        sounds,
        picturesOf(await exportDocumentOf(source, { choices, soundName })),
      );
      missing.forEach((m) => miss(`${m} (“${title}”)`));
      for (const [id, { type, bytes }] of pictures) {
        if (format === 'html')
          shown.set(id, `data:image/${type === 'jpg' ? 'jpeg' : type};base64,${bytes.toString('base64')}`);
        else {
          const file = `${name} pictures/${shown.size + 1}.${type}`;
          shown.set(id, encodeURI(file));
          yield { name: file, bytes };
        }
      }
    }
    const text = await textOf(source, format, { choices, soundName }, shown);
    if (text !== null) yield { name: `${name}.${format}`, bytes: Buffer.from(text) };
  }
  if (sound && soundName && source.kind === 'recording') {
    const made = await soundOf(source, sound, path.join(workFolder, `${item.id}${path.extname(soundName)}`), {
      sounds,
      signal,
      miss,
    });
    if (made) yield { name: soundName, path: made };
  }
}

async function soundOf(
  { recording, row }: Extract<ItemSource, { kind: 'recording' }>,
  wish: NonNullable<NewExport['sound']>,
  target: string,
  { sounds, signal, miss }: Pick<ExportContext, 'sounds' | 'signal' | 'miss'>,
): Promise<string | null> {
  const title = recording.title ?? recording.fileName;
  const original = sounds.pathOf(row.soundFile);
  const joined = row.playbackFile ? sounds.pathOf(row.playbackFile) : original;
  const isWhole = wish.format === 'original' && !wish.marksOnly && row.moreSounds.length === 0;
  const file = !isWhole && fs.existsSync(joined) ? joined : original;
  if (!fs.existsSync(file)) {
    miss(`The audio of “${title}” is missing from the disk, so it was not exported.`);
    return null;
  }
  const marks = wish.marksOnly ? marksOf(recording) : null;
  if (marks?.length === 0) {
    miss(`“${title}” has no marked text, so no marked audio was exported.`);
    return null;
  }
  await writeSound(file, target, wish, marks, signal);
  return target;
}
