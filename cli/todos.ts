import { findTodos } from '@immeld/core/language/todos/findTodos';
import type { Command } from 'commander';
import { type TalkOptions, contextFrom, readTalkFile, withTalkOptions } from './readTalk';

export function addTodosCommand(program: Command): void {
  withTalkOptions(
    program
      .command('todos')
      .description('Find to-dos in a text or transcript, by rules alone. “understand” finds more.')
      .argument('<file>', 'plain text, or the JSON output of “transcribe”'),
  )
    .option('--json', 'print JSON (the default; accepted for older scripts)')
    .addHelpText(
      'after',
      '\nPrints [{"text","who","due","project","quote"}]. “who” is "me", a name or null. “due” is an ISO date, a date with time, or null.',
    )
    .action((file: string, options: TalkOptions) => {
      const talk = readTalkFile(file);
      if (!talk) return;
      const todos = findTodos(talk.sentences, contextFrom(options));
      const shown = todos.map(({ text, who, due, project, quote }) => ({ text, who, due, project, quote }));
      process.stdout.write(`${JSON.stringify(shown, null, 2)}\n`);
    });
}
