import fs from 'node:fs';
import path from 'node:path';
import type { TranscriptDocument } from '@immeld/core/formats/document';
import { FORMATS, FORMAT_TYPES, type Format } from '@immeld/core/formats/formats';
import { toTranscriptJson } from '@immeld/core/formats/json';
import { MODEL_NAME, loadModels } from '@immeld/server/recognition/modelFiles';
import { transcribeFile } from '@immeld/server/recognition/transcribeFile';
import { type Command, InvalidArgumentError } from 'commander';

type Options = { formats?: Format[]; out?: string; force?: boolean; json?: boolean };

function parseFormats(value: string): Format[] {
  const names = value
    .split(',')
    .map((n) => n.trim().toLowerCase())
    .filter(Boolean);
  const unknown = names.filter((n) => !(FORMATS as readonly string[]).includes(n));
  if (unknown.length || names.length === 0) {
    throw new InvalidArgumentError(
      `Immeld writes ${FORMATS.join(', ')}${unknown.length ? `, not ${unknown.join(', ')}` : ''}.`,
    );
  }
  return [...new Set(names)] as Format[];
}

const say = (text: string) => process.stderr.write(`${text}\n`);

export function addTranscribeCommand(program: Command): void {
  program
    .command('transcribe')
    .description('Transcribe sound or video files of any length and kind.')
    .argument('<files...>', 'sound or video files')
    .option('--formats <list>', `what to write, separated by commas: ${FORMATS.join(',')} (default: txt)`, parseFormats)
    .option('--out <dir>', 'where to write (default: beside each sound file)')
    .option('--force', 'overwrite files that are there already')
    .option(
      '--json',
      'print the transcript as JSON instead of writing files: one document for one file, an array for several',
    )
    .addHelpText(
      'after',
      '\nFiles are named like the sound file: talk.m4a gives talk.txt.\nExit code: 0 all good, 1 some files failed, 2 wrong use.',
    )
    .action(async (files: string[], options: Options) => {
      process.exitCode = (await transcribeAll(files, options)) ? 0 : 1;
    });
}

/** Transcribes one file after the other; a broken one does not stop the others. Returns whether all went well. */
async function transcribeAll(files: string[], options: Options): Promise<boolean> {
  const writes = options.formats ?? (options.json ? [] : (['txt'] as Format[]));
  if (options.out) fs.mkdirSync(options.out, { recursive: true });
  const models = await loadModels();
  const documents: TranscriptDocument[] = [];
  let isAllGood = true;
  for (const [i, file] of files.entries()) {
    const place = files.length > 1 ? `[${i + 1}/${files.length}] ` : '';
    try {
      const targets = targetsOf(file, writes, options);
      const { durationMs, passages } = await transcribeFile(file, models, {
        onProgress: progressLine(place + path.basename(file)),
      });
      const document = { file, title: null, durationMs, language: 'en', model: MODEL_NAME, passages };
      for (const { format, target } of targets)
        writeWhole(target, FORMAT_TYPES[format].write(document), options.force ?? false);
      documents.push(document);
      say(
        `\r${place}${path.basename(file)}: done${targets.length ? `, ${targets.map((t) => path.basename(t.target)).join(', ')}` : ''}      `,
      );
    } catch (error) {
      isAllGood = false;
      say(`\r${place}${file}: ${reasonOf(error)}      `);
    }
  }
  if (options.json && documents.length) {
    const json = documents.map(toTranscriptJson);
    process.stdout.write(`${JSON.stringify(files.length === 1 ? json[0] : json, null, 2)}\n`);
  } else if (options.json && files.length > 1) process.stdout.write('[]\n');
  return isAllGood;
}

function targetsOf(
  file: string,
  formats: readonly Format[],
  { out, force }: Options,
): { format: Format; target: string }[] {
  if (!fs.existsSync(file)) throw new Error('There is no such file.');
  if (fs.statSync(file).isDirectory()) throw new Error('This is a folder. Name the files in it.');
  const folder = out ?? path.dirname(file);
  const base = path.basename(file, path.extname(file));
  return formats.map((format) => {
    const target = path.join(folder, `${base}.${format}`);
    if (path.resolve(target) === path.resolve(file))
      throw new Error(`Writing ${target} would overwrite the sound file itself.`);
    if (!force && fs.existsSync(target)) throw new Error(`${target} is there already. Use --force to overwrite it.`);
    return { format, target };
  });
}

/** The file is there whole or not at all, also when the machine stops in between. */
function writeWhole(target: string, content: string, mayOverwrite: boolean): void {
  if (!mayOverwrite && fs.existsSync(target)) throw new Error(`${target} appeared meanwhile and is left as it is.`);
  const part = `${target}.part-${process.pid}`;
  fs.writeFileSync(part, content);
  fs.renameSync(part, target);
}

function progressLine(name: string) {
  let last = -1;
  return ({ processedMs, durationMs }: { processedMs: number; durationMs: number | null }) => {
    if (!durationMs) return;
    const percent = Math.min(99, Math.floor((processedMs / durationMs) * 100));
    if (percent === last) return;
    last = percent;
    process.stderr.write(
      process.stderr.isTTY ? `\r${name}: ${percent} %` : percent % 25 === 0 ? `${name}: ${percent} %\n` : '',
    );
  };
}

function reasonOf(error: unknown): string {
  const { code } = error as NodeJS.ErrnoException;
  if (code === 'EACCES') return 'It may not be read or written here: permission denied.';
  if (code === 'ENOSPC') return 'The disk is full.';
  return error instanceof Error ? error.message : String(error);
}
