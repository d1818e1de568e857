import type { Passage } from '@immeld/core/transcript/manuscript';
import { composeLetter, letterText } from '@immeld/core/understanding/letter';
import { kindOf, understand } from '@immeld/core/understanding/understand';
import { documentHtml } from '@immeld/core/exports/documentHtml';
import { documentMarkdown } from '@immeld/core/exports/documentMarkdown';
import { documentText } from '@immeld/core/exports/documentText';
import type { Block, ExportDocument } from '@immeld/core/exports/exportDocument';
import { noteAsDocument } from '@immeld/core/exports/noteAsDocument';
import { writeUpAsNote } from '@immeld/core/writeup/asNote';
import { writeUpOf } from '@immeld/core/writeup/makeWriteUp';
import { SHIPPED_TEMPLATES } from '@immeld/core/writeup/shippedTemplates';
import { understandingModel } from '@immeld/server/understanding/model';
import { type Command, Option } from 'commander';
import { type TalkOptions, contextFrom, parseAt, readTalkFile } from './readTalk';

const FORMATS = ['md', 'txt', 'html'] as const;
type Format = (typeof FORMATS)[number];

const MAKERS: Record<Format, (document: ExportDocument) => string> = {
  md: documentMarkdown,
  txt: documentText,
  html: documentHtml,
};

/** The day on which the file is written up, where none is given. */
const now = (): string => new Date().toISOString().slice(0, 16);

export function addWriteCommand(program: Command): void {
  program
    .command('write')
    .description('Write a text or transcript up by a template.')
    .argument('<file>', 'plain text, or the JSON output of “transcribe”')
    .requiredOption('--template <name>', `one of: ${[...SHIPPED_TEMPLATES.keys()].join(', ')}`)
    .addOption(new Option('--format <format>', 'format of the write-up').choices(FORMATS).default('md'))
    .option('--at <time>', 'local time of the recording, for example 2026-03-09T07:40', parseAt)
    .option('--project <name...>', 'project names to sort the to-dos by')
    .option('--me <name>', 'name of the speaker whose promises are “me”')
    .action((file: string, options: Partial<TalkOptions> & { template: string; format: Format }) => {
      const wanted = options.template.toLowerCase();
      const found = [...SHIPPED_TEMPLATES].find(([id, t]) => id === wanted || t.name.toLowerCase() === wanted);
      if (!found) {
        process.stderr.write(
          `There is no template “${options.template}”. Choose one of: ${[...SHIPPED_TEMPLATES.keys()].join(', ')}.\n`,
        );
        process.exitCode = 2;
        return;
      }
      const talk = readTalkFile(file);
      if (!talk) return;
      process.stdout.write(written(found[0], found[1], talk, { ...options, at: options.at ?? now() }));
    });
}

type Talk = NonNullable<ReturnType<typeof readTalkFile>>;
type Shipped = typeof SHIPPED_TEMPLATES extends ReadonlyMap<string, infer T> ? T : never;

const letterDocument = (title: string, text: string): ExportDocument => ({
  ...{ title, facts: [], hasHeader: false, hasTitlePage: false, language: 'en', footnotes: [] },
  blocks: text.split('\n\n').map((part): Block => ({ kind: 'paragraph', lead: '', runs: [{ text: part }], notes: [] })),
});

function written(
  id: string,
  template: Shipped,
  { sentences, text }: Talk,
  options: TalkOptions & { format: Format },
): string {
  const make = MAKERS[options.format];
  const isLetter = id === 'letter' && kindOf(sentences) === 'letter';
  if (isLetter) {
    const letter = letterText(composeLetter(text));
    // Lines of an address stand under each other.
    return options.format === 'html' ? make(letterDocument(template.name, letter)) : `${letter}\n`;
  }
  const model = understandingModel();
  const understood = understand(sentences, contextFrom(options), model);
  const passages = sentences.map((s, i): Passage => {
    const [startMs, endMs] = [s.startMs ?? i, s.endMs ?? i];
    const words = s.text.split(/\s+/).map((word) => ({ text: word, startMs, endMs, confidence: 1 }));
    return { startMs, endMs, speaker: s.speaker, startsParagraph: i === 0, words };
  });
  const todos = understood.todos.map((t, i) => ({
    ...{ id: String(i), text: t.text, who: t.who, due: t.due, project: t.project, isDone: false },
    startMs: sentences[t.place.sentence]?.startMs ?? t.place.sentence,
  }));
  const made = writeUpOf(template, { passages, slips: [], todos }, sentences, model);
  // A text has no seconds; its sentences only had a place in their order.
  const hasTimes = sentences.some((s) => s.startMs !== null);
  const sections = hasTimes
    ? made
    : made.map((section) => ({
        ...section,
        groups: section.groups.map((g) => ({ ...g, lines: g.lines.map((l) => ({ ...l, startMs: null })) })),
      }));
  const title = understood.title ?? template.name;
  return make(
    noteAsDocument({ title, body: writeUpAsNote(sections, null), facts: [] }, { hasHeader: true, kinds: [] }),
  );
}
