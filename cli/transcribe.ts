import fs from 'node:fs';
import path from 'node:path';
import type { TranscriptDocument } from '@immeld/core/formats/document';
import { FORMATS, FORMAT_TYPES, type Format } from '@immeld/core/formats/formats';
import { toTranscriptJson } from '@immeld/core/formats/json';
import { PACKS, QUALITIES, type Quality } from '@immeld/core/speech/packs';
import { loadModels, usualQuality } from '@immeld/server/recognition/modelFiles';
import { transcribeFile } from '@immeld/server/recognition/transcribeFile';
import { type Command, InvalidArgumentError, Option } from 'commander';
import { reasonOf } from './reason';
import { type FoundSound, newSounds, soundsIn } from './soundFolders';

/** What file systems allow for one name (POSIX NAME_MAX on Linux). */
const LONGEST_NAME_BYTES = 255;

type Options = {
  formats?: Format[];
  out?: string;
  force?: boolean;
  json?: boolean;
  recursive?: boolean;
  watch?: boolean;
  quality?: Quality;
};

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
    .description('Transcribe audio or video files of any length and format.')
    .argument('<files...>', 'audio or video files, or folders of them')
    .option(
      '--formats <list>',
      `formats to write, separated by commas: ${FORMATS.join(',')} (default: txt)`,
      parseFormats,
    )
    .option('--out <dir>', 'output folder (default: next to each audio file)')
    .option('--recursive', 'include subfolders')
    .option('--watch', 'keep watching the folders for new files until you press Ctrl+C')
    .addOption(
      new Option('--quality <quality>', 'quick: less time, more mistakes; usual: the better model').choices(QUALITIES),
    )
    .option('--force', 'overwrite existing files')
    .option(
      '--json',
      'print the transcript as JSON instead of writing files: an object for one file, an array for several',
    )
    .addHelpText(
      'after',
      '\nEach output is named after its audio file: talk.m4a becomes talk.txt. With --out, the subfolder structure is kept.\nIn folders, files that already have a transcript are skipped.\nExit codes: 0 success, 1 some files failed, 2 invalid usage.',
    )
    .action(async (files: string[], options: Options) => {
      process.exitCode = (await transcribeAll(files, options)) ? 0 : 1;
    });
}

/** Transcribes one file after the other; a broken one does not stop the others. Returns whether all went well. */
async function transcribeAll(names: string[], options: Options): Promise<boolean> {
  const writes = options.formats ?? (options.json ? [] : (['txt'] as Format[]));
  if (options.watch && writes.length === 0) {
    throw new InvalidArgumentError(
      '--watch never ends, so it cannot print a single JSON document. Add --formats json to write files instead.',
    );
  }
  if (options.out) fs.mkdirSync(options.out, { recursive: true });
  const sounds = soundsIn(names, options.recursive ?? false);
  const quality = options.quality ?? usualQuality();
  const models = await loadModels(quality);
  const documents: TranscriptDocument[] = [];
  let isAllGood = true;
  const transcribe = async (sound: FoundSound, place: string): Promise<void> => {
    const name = path.basename(sound.file);
    try {
      const targets = targetsOf(sound, writes, options);
      if (sound.below !== null && !options.force && targets.length && targets.every((t) => fs.existsSync(t.target))) {
        say(`${place}${name}: already transcribed`);
        return;
      }
      checkFree(targets, options);
      const { durationMs, passages, problem } = await transcribeFile(sound.file, models, {
        onProgress: progressLine(place + name),
      });
      const document = { file: sound.file, title: null, durationMs, language: 'en', model: PACKS[quality], passages };
      for (const { format, target } of targets)
        writeWhole(target, FORMAT_TYPES[format].write(document), options.force ?? false);
      if (options.json) documents.push(document);
      const written = targets.map((t) => path.basename(t.target)).join(', ');
      say(`\r${place}${name}: done${written ? `, ${written}` : ''}      `);
      if (passages.length === 0) say(`${name}: no speech found`);
      if (problem) say(`${name}: ${problem}`);
    } catch (error) {
      isAllGood = false;
      say(`\r${place}${sound.file}: ${reasonOf(error)}      `);
    }
  };
  for (const [i, sound] of sounds.entries())
    await transcribe(sound, sounds.length > 1 ? `[${i + 1}/${sounds.length}] ` : '');
  if (options.watch) {
    const stopped = new AbortController();
    process.once('SIGINT', () => stopped.abort());
    process.once('SIGTERM', () => stopped.abort());
    say('Watching for new files. Press Ctrl+C to stop.');
    const known = sounds.map((s) => s.file);
    for await (const sound of newSounds(names, options.recursive ?? false, known, stopped.signal))
      await transcribe(sound, '');
  }
  const isOne = names.length === 1 && sounds.length === 1 && sounds[0]!.below === null;
  if (options.json && (documents.length || !isOne)) {
    const json = documents.map(toTranscriptJson);
    process.stdout.write(`${JSON.stringify(isOne ? json[0] : json, null, 2)}\n`);
  }
  return isAllGood;
}

type Target = { format: Format; target: string };

function targetsOf({ file, below }: FoundSound, formats: readonly Format[], { out }: Options): Target[] {
  if (!fs.existsSync(file)) throw new Error('The file does not exist.');
  const inside = below === null ? '' : path.relative(below, path.dirname(file));
  const folder = out ? path.join(out, inside) : path.dirname(file);
  const base = path.basename(file, path.extname(file));
  return formats.map((format) => {
    const target = path.join(folder, `${base}.${format}`);
    if (path.resolve(target) === path.resolve(file))
      throw new Error(`Writing ${target} would overwrite the audio file itself.`);
    return { format, target };
  });
}

/** Before hours are spent: whether what is to be written may be. */
function checkFree(targets: readonly Target[], { force }: Options): void {
  for (const { target } of targets) {
    if (!force && fs.existsSync(target)) throw new Error(`${target} already exists. Use --force to overwrite it.`);
    fs.mkdirSync(path.dirname(target), { recursive: true });
    if (Buffer.byteLength(path.basename(target)) > LONGEST_NAME_BYTES)
      throw new Error('The file name is too long. Give the audio file a shorter name.');
  }
}

/** The file is there whole or not at all, also when the machine stops in between. */
function writeWhole(target: string, content: string, mayOverwrite: boolean): void {
  if (!mayOverwrite && fs.existsSync(target))
    throw new Error(`${target} was created by another program in the meantime and stays as it is.`);
  const part = path.join(path.dirname(target), `.immeld-part-${process.pid}`);
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
