import fs from 'node:fs';
import path from 'node:path';
import { type Sentence, sentencesOf, sentencesOfText } from '@immeld/core/language/sentences';
import type { Passage } from '@immeld/core/transcript/manuscript';
import type { Command } from 'commander';
import { InvalidArgumentError } from 'commander';

/** What a file says: its text as it stands, and its sentences with their speakers. */
export type FileTalk = { file: string; text: string; sentences: Sentence[] };

/** Nobody speaks so long; what is longer is no transcript. */
const MAX_BYTES = 64 * 1024 * 1024;
/** "Name: what was said". */
const TURN = /^\s{0,8}(\p{L}[\p{L}\p{M}.'’ -]{0,40}?):\s+(\S.*)$/u;
const MIN_TURNS = 2;

/** A time as it is given on the command line; throws for what is no day of the calendar. */
export function parseAt(value: string): string {
  const match = /^(\d{4}-\d{2}-\d{2})(?:[T ](\d{2}:\d{2})(?::\d{2})?)?$/.exec(value);
  const date = match && new Date(`${match[1]}T${match[2] ?? '00:00'}:00Z`);
  if (!match || !date || Number.isNaN(date.getTime()) || !date.toISOString().startsWith(match[1]!)) {
    throw new InvalidArgumentError('Write the time like this: 2026-03-09T07:40.');
  }
  return `${match[1]}T${match[2] ?? '00:00'}`;
}

/** Sentences of plain text; where lines begin with names these are the speakers. */
export function sentencesInText(text: string): Sentence[] {
  const lines = text.replace(/\r\n?/g, '\n').split('\n');
  const turns = lines.filter((line) => line.length < 100_000 && TURN.test(line));
  const named = lines.filter((line) => line.trim()).length;
  // One name with a colon is a list ("Shopping: milk"), and so are few among many lines.
  if (turns.length < MIN_TURNS || turns.length < named / 2) return sentencesOfText(text);
  const sentences: Sentence[] = [];
  let speaker: string | null = null;
  for (const line of lines) {
    const turn = line.length < 100_000 ? TURN.exec(line) : null;
    if (turn) speaker = turn[1]!.trim();
    sentences.push(...sentencesOfText(turn ? turn[2]! : line).map((s) => ({ ...s, speaker })));
  }
  return sentences;
}

type Document = { passages?: (Partial<Passage> & { text?: string })[] };

/** Sentences of a file that is plain text, or the JSON of `transcribe` (one document or several). */
function talkOf(content: string): { text: string; sentences: Sentence[] } {
  let parsed: unknown;
  try {
    parsed = JSON.parse(content);
  } catch {
    return { text: content, sentences: sentencesInText(content) };
  }
  const documents = (Array.isArray(parsed) ? parsed : [parsed]) as (Document | null)[];
  if (!documents.every((d) => d && typeof d === 'object' && Array.isArray(d.passages)))
    return { text: content, sentences: sentencesInText(content) };
  const passages = documents.flatMap((d) => d!.passages!);
  const sentences = passages.every((p) => Array.isArray(p.words))
    ? sentencesOf(passages as Passage[])
    : passages.flatMap((p) => sentencesOfText(p.text ?? '').map((s) => ({ ...s, speaker: p.speaker ?? null })));
  return { text: sentences.map((s) => s.text).join(' '), sentences };
}

/** Reads a file, or says why not and returns null; the exit code is set then. */
export function readTalkFile(file: string): FileTalk | null {
  const fail = (why: string): null => {
    process.stderr.write(`${file}: ${why}\n`);
    process.exitCode = 1;
    return null;
  };
  try {
    if (fs.statSync(file).size > MAX_BYTES) return fail('the file is too large to be a transcript (over 64 MB).');
    const content = fs.readFileSync(file, 'utf8');
    return { file: path.basename(file), ...talkOf(content) };
  } catch {
    return fail('the file does not exist or cannot be read.');
  }
}

export type TalkOptions = { at: string; project?: string[]; me?: string };

export const contextFrom = ({ at, project, me }: TalkOptions) => ({
  at,
  projects: (project ?? []).map((name) => ({ name })),
  ownName: me ?? null,
});

/** The options with which talk is understood. */
export const withTalkOptions = (command: Command): Command =>
  command
    .requiredOption('--at <time>', 'local time of the recording, for example 2026-03-09T07:40', parseAt)
    .option('--project <name...>', 'project names to sort the to-dos by')
    .option('--me <name>', 'name of the speaker whose promises are “me”; only needed with several speakers');
