import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { ExportItem } from '@immeld/core/contract/exportEndpoints';
import {
  EXPORT_FORMATS,
  type ExportFormat,
  SOUND_FORMATS,
  USUAL_CHOICES,
  USUAL_PATTERN,
  namePattern,
} from '@immeld/core/contract/exports';
import { Problem } from '@immeld/core/contract/problem';
import type { Todo } from '@immeld/core/contract/todos';
import { uniqueNames } from '@immeld/core/exports/fileNames';
import { todosCsv } from '@immeld/core/exports/todosCsv';
import { asAccount } from '@immeld/server/accounts/currentAccount';
import { FIRST_ACCOUNT } from '@immeld/server/accounts/firstAccount';
import { dataFolder } from '@immeld/server/dataFolder';
import { openDatabase } from '@immeld/server/database';
import { type ExportedFile, filesOf } from '@immeld/server/exports/exportFiles';
import { AccountRow } from '@immeld/server/models/account';
import { Folder } from '@immeld/server/models/folder';
import { NoteRow } from '@immeld/server/models/note';
import { Recording } from '@immeld/server/models/recording';
import { Tag } from '@immeld/server/models/tag';
import { SoundStore } from '@immeld/server/storage/soundStore';
import { type Command, InvalidArgumentError } from 'commander';
import { Op } from 'sequelize';

type SoundFormat = (typeof SOUND_FORMATS)[number];
type Options = {
  formats: ExportFormat[];
  sound?: SoundFormat;
  folder?: string;
  tag?: string;
  from?: string;
  to?: string;
  notes?: boolean;
  pattern: string;
  data?: string;
  account?: string;
  force?: boolean;
};

const one =
  <T extends string>(known: readonly T[]) =>
  (value: string): T => {
    if (!known.includes(value as T))
      throw new InvalidArgumentError(`Immeld cannot write ${value}. It writes ${known.join(', ')}.`);
    return value as T;
  };
const several = (value: string): ExportFormat[] => [
  ...new Set(value.split(',').map((name) => one(EXPORT_FORMATS)(name.trim().toLowerCase()))),
];
function day(value: string): string {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(value) || Number.isNaN(Date.parse(value))) {
    throw new InvalidArgumentError('Write the day like this: 2026-05-12.');
  }
  return value;
}
function pattern(value: string): string {
  try {
    return namePattern().required().validateSync(value);
  } catch (error) {
    throw new InvalidArgumentError(error instanceof Error ? error.message : String(error));
  }
}
const say = (text: string) => process.stderr.write(`${text}\n`);

/** Recordings and notes of a data folder as files. */
export function addExportCommand(program: Command): void {
  program
    .command('export')
    .description('Export recordings and notes as files. Works while Immeld runs.')
    .argument('<dir>', 'folder to write to')
    .option('--formats <list>', `formats, separated by commas: ${EXPORT_FORMATS.join(',')}`, several, ['txt'])
    .option('--sound <format>', `also export the audio: ${SOUND_FORMATS.join(', ')}`, one(SOUND_FORMATS))
    .option('--folder <name>', 'only items in this folder')
    .option('--tag <name>', 'only items with this tag')
    .option('--from <day>', 'only from this day on, for example 2026-05-12', day)
    .option('--to <day>', 'only up to this day', day)
    .option('--notes', 'include notes')
    .option('--pattern <names>', 'pattern for the file names', pattern, USUAL_PATTERN)
    .option('--data <folder>', 'data folder (default: IMMELD_DATA, then the standard folder)')
    .option('--account <e-mail>', 'account to export (default: the first account)')
    .option('--force', 'overwrite existing files')
    .addHelpText(
      'after',
      '\nItems in the bin are left out. Exit codes: 0 success, 1 some files failed, 2 invalid usage.',
    )
    .action(async (target: string, options: Options) => {
      process.exitCode = (await exportAll(path.resolve(target), options)) ? 0 : 1;
    });
}

async function exportAll(target: string, options: Options): Promise<boolean> {
  const folder = options.data ?? dataFolder();
  if (!fs.existsSync(path.join(folder, 'immeld.sqlite'))) throw new Error(`No Immeld data found in ${folder}.`);
  const database = await openDatabase(folder);
  const workFolder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-export-'));
  try {
    const account = options.account
      ? await AccountRow.findOne({ where: { email: options.account.toLowerCase() } })
      : null;
    if (options.account && !account) throw new Error(`No account found for ${options.account}.`);
    return await asAccount(account?.id ?? FIRST_ACCOUNT, async () => {
      const items = await chosen(options);
      if (items.length === 0) throw new Error('Nothing matches these options.');
      fs.mkdirSync(target, { recursive: true });
      return writeAll(items, target, options, new SoundStore(folder), workFolder);
    });
  } finally {
    await database.close();
    fs.rmSync(workFolder, { recursive: true, force: true });
  }
}

/** What is to be written, oldest first; recordings, then notes. */
async function chosen({ folder, tag, from, to, notes }: Options): Promise<ExportItem[]> {
  const folders = folder === undefined ? null : await Folder.findAll({ where: { name: folder } });
  if (folders?.length === 0) throw new Error(`There is no folder named “${folder}”.`);
  const tags = tag === undefined ? null : await Tag.findAll({ where: { name: tag } });
  if (tags?.length === 0) throw new Error(`There is no tag named “${tag}”.`);
  const include = tags ? [{ association: 'tags', where: { id: tags.map((t) => t.id) }, required: true }] : [];
  const filed = { binnedAt: null, ...(folders ? { folderId: folders.map((f) => f.id) } : {}) };
  const begun = [...(from ? [{ [Op.gte]: from }] : []), ...(to ? [{ [Op.lte]: `${to}T99` }] : [])];
  const recordings = await Recording.findAll({
    where: { ...filed, ...(begun.length ? { startedAt: { [Op.and]: begun } } : {}) },
    order: [['startedAt', 'ASC']],
    include,
  });
  const written = notes ? await NoteRow.findAll({ where: filed, order: [['createdAt', 'ASC']], include }) : [];
  return [
    ...recordings.map(({ id }) => ({ kind: 'recording' as const, id })),
    ...written.map(({ id }) => ({ kind: 'note' as const, id })),
  ];
}

/** Writes one after the other; one that fails does not stop the others. Returns whether all went well. */
async function writeAll(
  items: readonly ExportItem[],
  target: string,
  { formats, sound, pattern: names, force = false }: Options,
  sounds: SoundStore,
  workFolder: string,
): Promise<boolean> {
  const wish = {
    items: [...items],
    files: formats.map((format) => ({ format, choices: USUAL_CHOICES[format] })),
    sound: sound ? { format: sound, cleaning: null, marksOnly: false } : null,
    pattern: names,
  };
  const todos: Todo[] = [];
  const nameFree = uniqueNames();
  let isAllGood = true;
  let count = 0;
  const rules = { sounds, workFolder, signal: new AbortController().signal, miss: say };
  for (const [i, item] of items.entries()) {
    try {
      for await (const file of filesOf(item, i + 1, wish, todos, nameFree, rules)) {
        put(file, target, force);
        count++;
      }
    } catch (error) {
      isAllGood = false;
      // What is wrong with the disk is wrong for all of them.
      if (!(error instanceof Problem) && !(error instanceof ThereAlready)) throw error;
      say(error.message);
    }
  }
  if (formats.includes('csv')) {
    put({ name: 'To-dos.csv', bytes: Buffer.from(todosCsv(todos)) }, target, force);
    count++;
  }
  process.stdout.write(`Exported ${count} files to ${target}\n`);
  return isAllGood;
}

class ThereAlready extends Error {}

/** A file is there whole or not at all. */
function put(file: ExportedFile, folder: string, force: boolean): void {
  const place = path.join(folder, file.name);
  if (fs.existsSync(place) && !force) throw new ThereAlready(`${place} already exists. Use --force to overwrite it.`);
  fs.mkdirSync(path.dirname(place), { recursive: true });
  const part = `${place}.part`;
  try {
    if ('path' in file) fs.copyFileSync(file.path, part);
    else fs.writeFileSync(part, file.bytes);
    fs.renameSync(part, place);
  } finally {
    fs.rmSync(part, { force: true });
  }
}
