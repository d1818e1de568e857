import { partsOf } from '@immeld/core/language/parts';
import { type Understanding, summaryOf, understand } from '@immeld/core/understanding/understand';
import { termsIn } from '@immeld/core/writeup/findings';
import { understandingModel } from '@immeld/server/understanding/model';
import type { Command } from 'commander';
import { quoter } from './quotes';
import { type FileTalk, type TalkOptions, contextFrom, readTalkFile, withTalkOptions } from './readTalk';

const SUMMARY_SENTENCES = 3;
const MAX_TERMS = 12;
const FIRST_WORDS = 8;

/** What the command prints; every quote is an exact part of the text. */
function shown({ text, sentences }: FileTalk, understood: Understanding): object {
  const { kind, title, todos, decisions, questions, prepared } = understood;
  const quoteOf = quoter(text, prepared.reading);
  return {
    kind,
    title,
    summary: summaryOf(understood, Math.min(SUMMARY_SENTENCES, Math.max(1, Math.floor(sentences.length / 2)))).map(
      (s) => ({
        text: s.text,
        quote: quoteOf.sentence(s.index),
      }),
    ),
    todos: todos.map(({ text: wording, who, due, dueTime, repeat, project, place, sure }) => ({
      ...{ text: wording, who, due, dueTime, repeat, project, quote: quoteOf.place(place) },
      sure: Math.round(sure * 100) / 100,
    })),
    decisions: decisions.map((d) => ({ text: d.text, quote: quoteOf.place(d.place) })),
    questions: questions.map((q) => ({ text: q.text, quote: quoteOf.place(q.place) })),
    terms: termsIn(sentences, MAX_TERMS).map(({ term, sentence }) => ({
      term,
      quote: quoteOf.sentence(sentences.indexOf(sentence)),
    })),
    parts: partsOf(sentences).map(({ title: partTitle, startMs, sentence }) => ({
      ...{ title: partTitle, startMs },
      firstWords: sentences[sentence]!.text.split(/\s+/).slice(0, FIRST_WORDS).join(' '),
    })),
  };
}

export function addUnderstandCommand(program: Command): void {
  withTalkOptions(
    program
      .command('understand')
      .description(
        'Say what a text or transcript is about: to-dos, decisions, open questions, summary, terms and parts.',
      )
      .argument(
        '<file>',
        'plain text (“Name:” at the beginning of a line is a speaker), or the JSON output of “transcribe”',
      ),
  )
    .option('--json', 'print JSON (the default)')
    .addHelpText(
      'after',
      '\nPrints {"kind","title","summary","todos","decisions","questions","terms","parts"}. “sure” is a probability from 0 to 1; all of it is a suggestion.',
    )
    .action((file: string, options: TalkOptions) => {
      const talk = readTalkFile(file);
      if (!talk) return;
      const understood = understand(talk.sentences, contextFrom(options), understandingModel());
      process.stdout.write(`${JSON.stringify(shown(talk, understood), null, 2)}\n`);
    });
}
