import { AskedTalks } from '@immeld/core/find/askTalks';
import { wordVectors } from '@immeld/server/find/wordVectors';
import type { Command } from 'commander';
import { type FileTalk, parseAt, readTalkFile } from './readTalk';

export function addAskCommand(program: Command): void {
  program
    .command('ask')
    .description('Answer a question with sentences of texts or transcripts; what they do not say is not answered.')
    .argument('<file...>', 'plain text, or the JSON output of “transcribe”')
    .requiredOption('--question <question>', 'what you want to know')
    .option('--at <time>', 'today, for example 2026-03-09T07:40', parseAt)
    .option('--json', 'print JSON (the default)')
    .addHelpText('after', '\nPrints {"refused","answers":[{"text","file","startMs","quote"}]}.')
    .action((files: string[], { question, at }: { question: string; at?: string }) => {
      const talks = files.map(readTalkFile);
      if (talks.includes(null)) return;
      const answers = answersTo(question, talks as FileTalk[], at ?? new Date().toISOString().slice(0, 16));
      process.stdout.write(`${JSON.stringify({ refused: answers.length === 0, answers }, null, 2)}\n`);
    });
}

const answersTo = (question: string, talks: readonly FileTalk[], at: string) =>
  new AskedTalks(talks, at, wordVectors()).ask(question).map(({ text, lifted, ref }) => ({
    text: lifted ?? text,
    ...ref,
    quote: text,
  }));
