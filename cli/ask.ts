import { answerFrom } from '@immeld/core/find/answer';
import { candidatesFrom } from '@immeld/core/find/candidates';
import { readQuestion } from '@immeld/core/find/question';
import { recordingsFor } from '@immeld/core/find/recordingsFirst';
import { suggestTitle } from '@immeld/core/language/title';
import { topicStems } from '@immeld/core/language/words';
import { wordVectors } from '@immeld/server/find/wordVectors';
import type { Command } from 'commander';
import { type FileTalk, parseAt, readTalkFile } from './readTalk';

/** So many recordings are looked into. */
const MAX_RECORDINGS = 4;
type Ref = { file: string; startMs: number | null };

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

function answersTo(asked: string, talks: readonly FileTalk[], at: string) {
  const sources = talks.map(({ file, sentences }) => {
    const title = suggestTitle(sentences) ?? file;
    const people = [...new Set(sentences.flatMap((s) => s.speaker ?? []))];
    const told = { title, people, saidAt: at, ownNames: [], isOwnMemo: false, markedMs: [] };
    return candidatesFrom(sentences, told, (_, { startMs }): Ref => ({ file, startMs }));
  });
  const known = [...new Set(talks.flatMap((t) => t.sentences.flatMap((s) => s.speaker ?? [])))].map((name) => ({
    name,
    otherNames: [],
  }));
  const question = readQuestion(asked, known, at.slice(0, 10));
  const chosen = recordingsFor(question.terms, sources)
    .slice(0, MAX_RECORDINGS)
    .flatMap((i) => sources[i]!);
  const documents = new Map<string, number>();
  const all = sources.flat();
  for (const { text } of all) for (const s of new Set(topicStems(text))) documents.set(s, (documents.get(s) ?? 0) + 1);
  const archive = {
    documentsWith: (s: string) => documents.get(s) ?? 0,
    documents: Math.max(1, all.length),
    vectors: wordVectors(),
  };
  return answerFrom(question, chosen, archive).quotes.map(({ text, lifted, ref }) => ({
    text: lifted ?? text,
    file: ref.file,
    startMs: ref.startMs,
    quote: text,
  }));
}
