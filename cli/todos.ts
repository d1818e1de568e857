import fs from 'node:fs';
import { type Sentence, sentencesOf, sentencesOfText } from '@immeld/core/language/sentences';
import { findTodos } from '@immeld/core/language/todos/findTodos';
import type { Passage } from '@immeld/core/transcript/manuscript';
import { type Command, InvalidArgumentError } from 'commander';

function parseAt(value: string): string {
  const match = /^(\d{4}-\d{2}-\d{2})(?:[T ](\d{2}:\d{2})(?::\d{2})?)?$/.exec(value);
  const date = match && new Date(`${match[1]}T${match[2] ?? '00:00'}:00Z`);
  if (!match || !date || Number.isNaN(date.getTime()) || !date.toISOString().startsWith(match[1]!)) {
    throw new InvalidArgumentError('Write the time like 2026-03-09T07:40.');
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
    .description('Find the to-dos in what was said.')
    .argument('<file>', 'plain text, or the JSON that transcribe prints')
    .requiredOption('--at <time>', 'when it was said, local time: 2026-03-09T07:40', parseAt)
    .option('--project <name...>', 'names of projects to sort by')
    .option('--me <name>', 'the speaker whose promises are "me"; only needed where several people speak')
    .option('--json', 'print JSON (the default; kept for scripts that say so)')
    .addHelpText(
      'after',
      '\nPrints [{"text","who","due","project","quote"}]; who is "me", a name or null, due an ISO date or date-time or null.',
    )
    .action((file: string, { at, project, me }: { at: string; project?: string[]; me?: string }) => {
      let content: string;
      try {
        content = fs.readFileSync(file, 'utf8');
      } catch {
        process.stderr.write(`${file}: There is no such file, or it may not be read.\n`);
        process.exitCode = 1;
        return;
      }
      const projects = (project ?? []).map((name) => ({ name }));
      const todos = findTodos(sentencesIn(content), { at, projects, ownName: me ?? null });
      const shown = todos.map(({ text, who, due, project: of, quote }) => ({ text, who, due, project: of, quote }));
      process.stdout.write(`${JSON.stringify(shown, null, 2)}\n`);
    });
}
