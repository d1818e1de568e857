import { slipPlace } from '../formats/slipPlace';
import type { ExportChoices } from '../contract/exports';
import type { MarkKindSetting } from '../contract/markKinds';
import type { PencilState } from '../contract/pencil';
import type { Recording } from '../contract/recordings';
import type { Slip, SlipKind } from '../contract/slips';
import type { MadeSection } from '../contract/templates';
import { clockTime, dayInWords } from '../formats/times';
import type { WrittenWord } from '../transcript/inverseTextNormalisation';
import { paragraphsOf } from '../transcript/manuscript';
import { type ReadingRules, wordsToRead } from '../transcript/reading';
import { whoAndWhen } from '../writeup/asMarkdown';
import type { Aside, Block, Item, Run, ExportDocument } from './exportDocument';

export type RecordingToExport = Recording & {
  /** Write-ups that are kept beside it in pencil. */
  sheets: readonly { name: string; sections: readonly MadeSection[] }[];
  parts: readonly { title: string; startMs: number }[];
};

export type ExportRules = {
  choices: ExportChoices;
  reading: ReadingRules;
  kinds: readonly MarkKindSetting[];
  /** The name of the file with the sound, where it goes along. */
  soundName: string | null;
  /** What stands for whoever recorded it, where others read it; null where only they do. */
  owner?: string | null;
  /** Whether each word is a run of its own that says when it is said. */
  hasWordTimes?: boolean;
};

export const SLIP_LABELS: Record<SlipKind, string> = {
  ...{ mark: 'Mark', note: 'Slip', heading: 'Part', picture: 'Picture', aside: 'Aside', consent: 'Consent' },
  ...{ seam: 'Break', gap: 'Gap', link: 'Link', file: 'File', slide: 'Slide' },
};

/** Slips that say something to a reader; a consent is asked for by itself. */
const READ: ReadonlySet<SlipKind> = new Set(['mark', 'note', 'picture', 'aside', 'seam', 'gap', 'link', 'file']);

type Stretch = { startMs: number; endMs: number };
type Marked = Stretch & { slip: Slip };

/** A recording as a document: header, write-ups, to-dos, words with what stands in their margin. */
export function recordingDocument(recording: RecordingToExport, rules: ExportRules): ExportDocument {
  const { choices } = rules;
  const blocks: Block[] = [];
  const footnotes: Aside[] = [];
  if (choices.consent) blocks.push(...consentOf(recording));
  if (choices.writeUps) blocks.push(...writeUpsOf(recording, rules));
  if (choices.todos) blocks.push(...todosOf(recording, rules));
  const hasMore = blocks.length > 0;
  if (choices.words || choices.marksOnly || choices.slips !== 'none') {
    const words = choices.marksOnly ? markedOnly(recording, rules) : wordsOf(recording, rules, footnotes);
    if (hasMore && words.length)
      blocks.push({ kind: 'heading', level: 2, text: choices.marksOnly ? 'Marked' : 'Words' });
    blocks.push(...words);
  }
  if (choices.soundLink && rules.soundName) {
    blocks.push(paragraph('Audio: ', [{ text: rules.soundName, address: encodeURI(rules.soundName) }]));
  }
  return {
    title: titleOf(recording),
    facts: [factsOf(recording)].filter(Boolean),
    ...{ hasHeader: choices.header || choices.titlePage, hasTitlePage: choices.titlePage },
    ...{ language: recording.language ?? 'en', blocks, footnotes },
  };
}

export const titleOf = ({
  title,
  suggestion,
  fileName,
}: Pick<Recording, 'title' | 'suggestion' | 'fileName'>): string => title ?? suggestion.title ?? fileName;

const factsOf = ({ startedAt, durationMs, people, tags }: Recording): string =>
  [dayInWords(startedAt), durationMs ? clockTime(durationMs) : '', people.join(', '), tags.join(', ')]
    .filter(Boolean)
    .join(' · ');

const paragraph = (lead: string, runs: readonly Run[], notes: readonly number[] = []): Block => ({
  ...{ kind: 'paragraph', lead, runs, notes },
});

export const consentLines = ({ slips }: Pick<Recording, 'slips'>): string[] =>
  slips.filter((s) => s.kind === 'consent').map((s) => `${s.text}, at ${clockTime(s.startMs)}`);

const consentOf = (recording: Recording): Block[] =>
  consentLines(recording).map((line) => paragraph('Consent: ', [{ text: line }]));

/** Only what was accepted is a fact; what is proposed goes along where it is wanted, and says that it is proposed. */
const goesAlong = (state: PencilState, { proposals }: ExportChoices): boolean =>
  state === 'ink' || (state === 'pencil' && proposals);

function writeUpsOf({ writeUps, sheets }: RecordingToExport, { choices }: ExportRules): Block[] {
  return [
    ...writeUps
      .filter((w) => goesAlong(w.state, choices))
      .flatMap((w): Block[] => [
        { kind: 'heading', level: 2, text: w.state === 'ink' ? 'Summary' : 'Summary (suggested)' },
        paragraph('', [{ text: w.editedText ?? w.sentences.map((s) => s.text).join(' ') }]),
      ]),
    // Kept, a write-up is a note; as long as it stands beside its recording nobody has accepted it.
    ...(choices.proposals ? sheets : []).flatMap(({ name, sections }): Block[] => [
      { kind: 'heading', level: 2, text: `${name} (suggested)` },
      ...sections.flatMap((s) => sectionBlocks(s, choices.times)),
    ]),
  ];
}

/** A section of a write-up. @param allTimes whether each line says its second, also where the section does not ask for it */
export function sectionBlocks({ heading, form, indent, hasTimes, groups }: MadeSection, allTimes = false): Block[] {
  const time = (startMs: number | null) =>
    (hasTimes || allTimes) && startMs !== null ? ` (${clockTime(startMs)})` : '';
  return [
    ...(heading ? [{ kind: 'heading' as const, level: 3 as const, text: heading }] : []),
    ...(groups.length === 0 ? [paragraph('', [{ text: 'Nothing was said about this.' }])] : []),
    ...groups.flatMap(({ name, lines }): Block[] => {
      const lead: Block[] = name ? [paragraph('', [{ text: name, isBold: true }])] : [];
      if (form === 'text')
        return [...lead, paragraph('', [{ text: lines.map((l) => `${l.text}${time(l.startMs)}`).join(' ') }])];
      if (form === 'table') {
        const cells = lines.map((l) => [l.person ?? '', `${l.text}${time(l.startMs)}`, l.due ? dayInWords(l.due) : '']);
        // A column in which nothing stands is none.
        const filled = [0, 1, 2].filter((column) => cells.some((row) => row[column]));
        const rows = cells.map((row) => filled.map((column) => [{ text: row[column]! }]));
        return [...lead, { kind: 'table', hasHeader: false, rows }];
      }
      const items = lines.map((l): Item => {
        const more = l.todoId ? whoAndWhen(l) : '';
        const text = `${l.text}${more ? ` (${more})` : ''}${time(l.startMs)}`;
        return { runs: [{ text }], box: form === 'checks' ? l.isDone : null, depth: indent };
      });
      return [...lead, { kind: 'list', isNumbered: form === 'numbered', items }];
    }),
  ];
}

function todosOf({ todos }: Recording, { choices, owner = null }: ExportRules): Block[] {
  const list = (heading: string, state: PencilState): Block[] => {
    const items = todos
      .filter((t) => t.state === state && goesAlong(state, choices))
      .map(({ text, who, due, isDone }): Item => {
        const person = who === 'me' ? owner : who;
        const more = [person, due ? `by ${dayInWords(due)}` : null].filter(Boolean);
        return { runs: [{ text: more.length ? `${text} (${more.join(', ')})` : text }], box: isDone, depth: 0 };
      });
    if (items.length === 0) return [];
    return [
      { kind: 'heading', level: 2, text: heading },
      { kind: 'list', isNumbered: false, items },
    ];
  };
  return [...list('To-dos', 'ink'), ...list('To-dos (suggested)', 'pencil')];
}

/** What was marked by selecting words, in order. */
export const marksOf = ({ slips }: Pick<Recording, 'slips'>): Marked[] =>
  slips
    .filter((s) => s.kind === 'mark' && s.endMs !== null && s.endMs > s.startMs)
    .map((slip) => ({ startMs: slip.startMs, endMs: slip.endMs!, slip }))
    .sort((a, b) => a.startMs - b.startMs);

export const isWithin = (word: Stretch, { startMs, endMs }: Stretch): boolean => {
  const middle = (word.startMs + word.endMs) / 2;
  return middle >= startMs && middle <= endMs;
};

const labelOf = (slip: Slip, kinds: readonly MarkKindSetting[]): string =>
  [
    `${(slip.mark && kinds.find((k) => k.id === slip.mark)?.label) || SLIP_LABELS[slip.kind]} ${slipPlace(slip)}`,
    slip.assignee ? `for ${slip.assignee}` : '',
  ]
    .filter(Boolean)
    .join(', ');

const asideOf = (slip: Slip, { kinds, choices }: ExportRules): Aside => ({
  label: labelOf(slip, kinds),
  text: [slip.text, slip.file?.name].filter(Boolean).join(' '),
  address: slip.address,
  comments: choices.comments ? slip.comments.map((c) => c.text) : [],
  pictureId: choices.pictures && slip.hasPicture ? slip.id : null,
});

/** The words of a stretch as runs; neighbours that look alike are one. */
function runsOf(
  words: readonly WrittenWord[],
  marks: readonly Marked[],
  { choices, kinds, hasWordTimes }: ExportRules,
): Run[] {
  const runs: Run[] = [];
  for (const word of words) {
    const mark = choices.colours ? marks.find((m) => isWithin(word, m)) : undefined;
    const tone = kinds.find((k) => k.id === mark?.slip.mark)?.tone;
    const last = runs.at(-1);
    if (hasWordTimes) {
      runs.push({ text: `${last ? ' ' : ''}${word.text}`, startMs: word.startMs, ...(tone ? { tone } : {}) });
      continue;
    }
    if (last && last.tone === tone) last.text += ` ${word.text}`;
    else {
      // The blank between two looks belongs to the plain one.
      const isBefore = last && !last.tone;
      if (isBefore || (last && tone)) last.text += ' ';
      runs.push({ text: last && !isBefore && !tone ? ` ${word.text}` : word.text, ...(tone ? { tone } : {}) });
    }
  }
  return runs;
}

function wordsOf(recording: RecordingToExport, rules: ExportRules, footnotes: Aside[]): Block[] {
  const { choices } = rules;
  const marks = marksOf(recording);
  const waiting = recording.slips.filter((s) => READ.has(s.kind)).sort((a, b) => a.startMs - b.startMs);
  const { placed: slides, others } = slidesOf(recording, rules);
  const headings = [
    ...recording.slips
      .filter((s) => s.kind === 'heading')
      .map((s) => ({ title: s.text || 'New part', startMs: s.startMs })),
    // Titles that Immeld proposes stand in what is made to look like a document, not in bare words.
    ...(choices.header || choices.titlePage ? recording.parts : []),
  ].sort((a, b) => a.startMs - b.startMs);
  const passages = recording.passages;
  const groups = choices.shape === 'passages' ? passages.map((p) => [p]) : paragraphsOf(passages);
  const blocks: Block[] = [];
  for (const [i, group] of groups.entries()) {
    const [first] = group;
    const until = groups[i + 1]?.[0]!.startMs ?? Infinity;
    // A part that begins inside a paragraph stands before it.
    while (choices.words && headings[0] && headings[0].startMs < until) {
      const { title } = headings.shift()!;
      blocks.push({ kind: 'heading', level: 3, text: title });
    }
    if (choices.slips !== 'none')
      for (const slide of takeUntil(slides, until)) blocks.push(...slideBlocks(slide, rules));
    const beside = choices.slips === 'none' ? [] : takeUntil(waiting, until);
    const notes = choices.slips === 'footnotes' ? beside.map((slip) => footnotes.push(asideOf(slip, rules))) : [];
    if (choices.words) {
      const lead = [choices.times ? clockTime(first!.startMs) : null, choices.speakers ? first!.speaker : null];
      const words = group.flatMap((p) => wordsToRead(p.words, rules.reading));
      const said = lead.filter(Boolean).join(' ');
      if (words.length) blocks.push(paragraph(said ? `${said}: ` : '', runsOf(words, marks, rules), notes));
    }
    if (choices.slips === 'margin') {
      for (const slip of beside) blocks.push({ kind: 'aside', aside: asideOf(slip, rules) });
    }
  }
  if (others.length > 0) blocks.push({ kind: 'heading', level: 3, text: 'Slides without an accepted place' });
  return [...blocks, ...others.flatMap((slide) => slideBlocks(slide, rules, false))];
}

/** Slides above what was said about them; a place that is only proposed counts where proposals go along. */
function slidesOf({ slips }: Pick<Recording, 'slips'>, { choices }: ExportRules) {
  const all = choices.slips === 'none' ? [] : slips.filter((s) => s.kind === 'slide');
  const isPlaced = (s: Slip) => !s.isWhole && (choices.proposals || !s.slide?.isProposed);
  return {
    placed: all.filter(isPlaced).sort((a, b) => a.startMs - b.startMs),
    others: all.filter((s) => !isPlaced(s)).sort((a, b) => (a.slide?.page ?? 0) - (b.slide?.page ?? 0)),
  };
}

function slideBlocks(slip: Slip, { choices }: ExportRules, isPlaced = true): Block[] {
  const time = choices.times && isPlaced ? ` ${slipPlace(slip)}` : '';
  const isProposed = isPlaced && slip.slide?.isProposed;
  const name = `${slip.slide ? `Slide ${slip.slide.page}` : 'Slide'}${time}${isProposed ? ' (place suggested)' : ''}`;
  const comments = choices.comments ? slip.comments.map((c) => paragraph('', [{ text: c.text }])) : [];
  return [
    paragraph('', [{ text: [name, slip.text].filter(Boolean).join(': '), isBold: true }]),
    ...(choices.pictures && slip.hasPicture
      ? [{ kind: 'picture' as const, pictureId: slip.id, alt: slip.text || name }]
      : []),
    ...comments,
  ];
}

function takeUntil(slips: Slip[], until: number): Slip[] {
  const taken: Slip[] = [];
  while (slips[0] && slips[0].startMs < until) taken.push(slips.shift()!);
  return taken;
}

/** Only what was marked: the words, then what was written to it. */
function markedOnly(recording: RecordingToExport, rules: ExportRules): Block[] {
  const { choices } = rules;
  const marks = marksOf(recording);
  return marks.flatMap((mark): Block[] => {
    const passages = recording.passages.filter((p) => p.startMs < mark.endMs && p.endMs > mark.startMs);
    const words = passages.flatMap((p) => wordsToRead(p.words, rules.reading)).filter((w) => isWithin(w, mark));
    if (words.length === 0) return [];
    const speaker = choices.speakers ? passages[0]!.speaker : null;
    const lead = [choices.times ? clockTime(mark.startMs) : null, speaker].filter(Boolean).join(' ');
    const aside = asideOf(mark.slip, rules);
    const says = aside.text || aside.comments.length || aside.pictureId;
    return [
      paragraph(lead ? `${lead}: ` : '', runsOf(words, [mark], rules)),
      ...(choices.slips !== 'none' && says ? [{ kind: 'aside' as const, aside }] : []),
    ];
  });
}
