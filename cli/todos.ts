import fs from 'node:fs';
import { type Sentence, sentencesOf, sentencesOfText } from '@immeld/core/language/sentences';
import { findTodos } from '@immeld/core/language/todos/findTodos';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { type Command, InvalidArgumentError } from 'commander';

function parseAt(value: string): string {
  const match = /^(\d{4}-\d{2}-\d{2})(?:[T ](\d{2}:\d{2})(?::\d{2})?)?$/.exec(value);
  const date = match && new Date(`${match[1]}T${match[2] ?? '00:00'}:00Z`);
  if (!match || !date || Number.isNaN(date.getTime()) || !date.toISOString().startsWith(match[1]!)) {
    throw new InvalidArgumentError('Write the time like this: 2026-03-09T07:40.');
  }
  return `${match[1]}T${match[2] ?? '00:00'}`;
}

/** Sentences of a file that is plain text, or the JSON of `transcribe` (one document or several). */
function sentencesIn(content: string): Sentence[] {
  let parsed: unknown = null;
  try {
    parsed = JSON.parse(content);
  } catch {
    return sentencesOfText(content);
  }
  const documents = (Array.isArray(parsed) ? parsed : [parsed]) as {
    passages?: Partial<Passage & { text: string }>[];
  }[];
  if (!documents.every((d) => d && Array.isArray(d.passages))) return sentencesOfText(content);
  return documents.flatMap(({ passages }) =>
    passages!.every((p) => Array.isArray(p.words))
      ? sentencesOf(passages as Passage[])
      : sentencesOfText(passages!.map((p) => p.text ?? '').join(' ')),
  );
}

export function addTodosCommand(program: Command): void {
  program
    .command('todos')
    .description('Find to-dos in a text or transcript.')
    .argument('<file>', 'plain text, or the JSON output of “transcribe”')
    .requiredOption('--at <time>', 'local time of the recording, for example 2026-03-09T07:40', parseAt)
    .option('--project <name...>', 'project names to sort the to-dos by')
    .option('--me <name>', 'name of the speaker whose promises are “me”; only needed with several speakers')
    .option('--json', 'print JSON (the default; accepted for older scripts)')
    .addHelpText(
      'after',
      '\nPrints [{"text","who","due","project","quote"}]. “who” is "me", a name or null. “due” is an ISO date, a date with time, or null.',
    )
    .action((file: string, { at, project, me }: { at: string; project?: string[]; me?: string }) => {
      let content: string;
      try {
        content = fs.readFileSync(file, 'utf8');
      } catch {
        process.stderr.write(`${file}: the file does not exist or cannot be read.\n`);
        process.exitCode = 1;
        return;
      }
      const projects = (project ?? []).map((name) => ({ name }));
      const todos = findTodos(sentencesIn(content), { at, projects, ownName: me ?? null });
      const shown = todos.map(({ text, who, due, project: of, quote }) => ({ text, who, due, project: of, quote }));
      process.stdout.write(`${JSON.stringify(shown, null, 2)}\n`);
    });
}
