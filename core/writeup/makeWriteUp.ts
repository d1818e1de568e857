import type { Line, MadeSection, Section, Template, Wording } from '../contract/templates';
import { type Sentence, sentencesOf } from '../language/sentences';
import { wordsOf } from '../language/words';
import { type SummarySentence, summarise } from '../language/summary';
import type { Passage } from '../transcript/manuscript';
import { type Letter, composeLetter } from '../understanding/letter';
import { type Matter, type Matters, matterText, mattersOf, withQuestion } from '../understanding/matters';
import type { UnderstandingModel } from '../understanding/model';
import { kindOf } from '../understanding/understand';
import { askedIn, datesAndNumbersIn, decisionsIn, openQuestionsIn, termsIn } from './findings';
import { ownPartsOf, withinParts } from './ownParts';
import { inReportedSpeech, tidyText } from './tidy';
import { applyWording } from './wording';

type SourceTodo = {
  id: string;
  text: string;
  who: string | null;
  due: string | null;
  project: string | null;
  startMs: number | null;
  isDone: boolean;
};
type SourceSlip = { kind: string; mark: string | null; startMs: number; endMs: number | null; text: string };

/** What a write-up is made from: one recording with its margin. */
export type Source = {
  passages: readonly Passage[];
  slips: readonly SourceSlip[];
  todos: readonly SourceTodo[];
};

/** A sentence within so many milliseconds of a mark or an own note is what was meant by it. */
const NEAR_MS = 6000;
const MARKED_BOOST = 2.5;
const MAX_CANDIDATES = 60;
/** More sentences are ranked stretch by stretch. */
const MAX_RANKED = 2000;
const STRETCH = 400;

/**
 * Makes a write-up by a template. Every line is made of the words of one sentence, slip or to-do and carries its
 * moment; the lengths that the template asks for are upper bounds that are kept.
 * @param model what was learned about decisions and open questions; null: the rules alone find them
 */
export const makeWriteUp = (template: Template, source: Source, model: UnderstandingModel | null): MadeSection[] =>
  writeUpOf(template, source, sentencesOf(source.passages), model);

/** As `makeWriteUp`, of sentences that are known already. */
export function writeUpOf(
  template: Template,
  source: Source,
  sentences: readonly Sentence[],
  model: UnderstandingModel | null,
): MadeSection[] {
  const maker = new Maker(sentences, source, template.wording, model);
  const made = template.sections.flatMap((section): MadeSection[] => {
    const { form, heading, indent, hasTimes } = section;
    const lines = withinLength(maker.lines(section), section);
    if (lines.length === 0 && section.isOptional) return [];
    return [{ heading, form, indent, hasTimes, isKept: false, groups: grouped(lines, section, maker) }];
  });
  return template.mostCharacters === null ? made : withinCharacters(made, template.mostCharacters);
}

/** `paragraph` counts the paragraphs of running text. */
type Found = Line & { score: number; at: number; project: string | null; paragraph: number };

const found = (text: string, startMs: number | null): Found => ({
  ...{ text, startMs, recordingId: null, todoId: null, isDone: false, person: null, due: null },
  isUncited: false,
  ...{ score: 1, at: startMs ?? 0, project: null, paragraph: 0 },
});

/** A letter's paragraphs from top to bottom; name and what stands under it are one. */
const blocksOf = ({ head, salutation, paragraphs, closing: [formula, ...names], foot }: Letter): string[] =>
  [...head, salutation ?? '', ...paragraphs, formula ?? '', names.join(', '), ...foot].filter(Boolean);

/** So many words tell where a block begins. */
const FIRST_WORDS = 8;

const NO_SLIP: SourceSlip = { kind: 'heading', mark: null, startMs: 0, endMs: null, text: '' };

class Maker {
  private found: { title: string; startMs: number }[] | null = null;
  private understood: Matters | null | undefined;

  constructor(
    private readonly sentences: readonly Sentence[],
    private readonly source: Source,
    private readonly wording: Wording,
    private readonly model: UnderstandingModel | null,
  ) {}

  /** What a conversation decided and left open; null where one alone speaks and the rules find it. Asked for by some sections only. */
  private get matters(): Matters | null {
    if (this.understood === undefined) this.understood = this.model && mattersOf(this.sentences, this.model);
    return this.understood;
  }

  /** Asked for by some sections only. */
  get parts(): readonly { title: string; startMs: number }[] {
    this.found ??= ownPartsOf(this.sentences, this.source.slips);
    return this.found;
  }

  /** What goes into a section, in its order; `score` says what is to stay where not all of it may. */
  lines({ content, unit, most }: Section): Found[] {
    const { slips, todos } = this.source;
    if (content === 'summary' || content === 'key-points') {
      const count = most !== null && (unit === 'sentences' || unit === 'points') ? most : MAX_CANDIDATES;
      // A short talk is not its own summary.
      const some = Math.min(count, Math.max(1, Math.ceil(this.sentences.length / 2)));
      return this.ranked(some).map((s) => this.said(s, s.score));
    }
    if (content === 'decisions') return this.decisions();
    if (content === 'questions' || content === 'asked') {
      const asked = slips.filter((s) => s.kind === 'mark' && s.mark === 'question');
      return [
        ...(content === 'asked' ? askedIn(this.sentences).map((s) => this.said(s)) : this.openQuestions()),
        ...asked.flatMap((slip) => (slip.text ? [this.written(slip)] : [])),
      ].sort(byTime);
    }
    if (content === 'dates-and-numbers') return datesAndNumbersIn(this.sentences).map((s) => this.said(s));
    if (content === 'terms') {
      return termsIn(this.sentences, most ?? MAX_CANDIDATES).map(({ term, sentence }) => ({
        ...this.said(sentence),
        person: term,
      }));
    }
    if (content === 'parts') {
      return this.parts.map(({ title, startMs }) => this.written({ ...NO_SLIP, text: title, startMs }));
    }
    if (content === 'asides') return slips.filter((s) => s.kind === 'aside').map((s) => this.written(s));
    if (content === 'marked') return this.marked();
    if (content === 'links') return slips.filter((s) => s.kind === 'link').map((s) => this.written(s));
    if (content === 'quotes') {
      const chosen = this.ranked(MAX_CANDIDATES).filter((s) => s.speaker !== null);
      return chosen.map((s) => ({ ...this.said(s, s.score), text: `“${tidyText(s.text)}”` }));
    }
    if (content === 'letter' && kindOf(this.sentences) === 'letter') return this.letter();
    if (content === 'text' || content === 'letter') {
      const starts = this.source.passages.map((p) => p.startsParagraph);
      const paragraphOf = (passage: number | null) => starts.slice(0, (passage ?? 0) + 1).filter(Boolean).length;
      return this.sentences
        .map((s) => ({ ...this.said(s), paragraph: paragraphOf(s.passage) }))
        .filter((l) => l.text !== '');
    }
    return this.todoLines(content, todos);
  }

  private decisions(): Found[] {
    if (!this.matters) return decisionsIn(this.sentences).map((s) => this.said(s));
    return this.matters.decisions.map((m) => {
      const line = this.told(m);
      const question = m.asked === null ? null : tidyText(this.sentences[m.asked]!.text);
      return { ...line, text: withQuestion(line.text, question) };
    });
  }

  private openQuestions(): Found[] {
    if (!this.matters) return openQuestionsIn(this.sentences).map((s) => this.said(s));
    return this.matters.questions.map((m) => this.told(m));
  }

  /** A matter as one line, however many sentences it took. */
  private told(matter: Matter): Found {
    return this.said({ ...this.sentences[matter.from]!, text: matterText(this.sentences, matter) }, matter.sure);
  }

  /** The blocks of a dictated letter, a paragraph each, at the sentence that most of their first words come from. */
  private letter(): Found[] {
    const blocks = blocksOf(composeLetter(this.sentences.map((s) => s.text).join(' ')));
    const said = this.sentences.map((s) => new Set(wordsOf(s.text)));
    let from = 0;
    return blocks.map((text, paragraph) => {
      const words = wordsOf(text).slice(0, FIRST_WORDS);
      const shared = said.map((own, i) => (i < from ? 0 : words.filter((w) => own.has(w)).length));
      const best = Math.max(...shared);
      if (best > 0) from = shared.indexOf(best);
      return { ...found(text, this.sentences[from]!.startMs), paragraph };
    });
  }

  /** Of very much talk, first the best of each stretch, then the best of those: the ranking compares all with all. */
  private ranked(most: number): readonly SummarySentence[] {
    if (this.sentences.length <= MAX_RANKED) return summarise(this.sentences, most, this.boost);
    const each = Math.ceil((STRETCH * MAX_RANKED) / this.sentences.length / 2);
    const best: SummarySentence[] = [];
    for (let from = 0; from < this.sentences.length; from += STRETCH) {
      const stretch = this.sentences.slice(from, from + STRETCH);
      const chosen = summarise(stretch, Math.max(1, each), (i) => this.boost(from + i));
      best.push(...chosen.map((s) => ({ ...s, index: from + s.index })));
    }
    return summarise(best, most, (i) => this.boost(best[i]!.index));
  }

  private todoLines(content: Section['content'], todos: readonly SourceTodo[]): Found[] {
    const isOwn = (t: SourceTodo) => t.who === 'me';
    const chosen = todos.filter((t) =>
      content === 'own-todos'
        ? isOwn(t)
        : content === 'others-todos'
          ? t.who !== null && !isOwn(t)
          : content === 'next-steps'
            ? !t.isDone && t.due !== null
            : true,
    );
    const lines = chosen.map((t): Found => ({
      ...{ text: t.text, startMs: t.startMs, recordingId: null, todoId: t.id, isDone: t.isDone, isUncited: false },
      ...{ person: t.who, due: t.due },
      ...{ score: 1, at: t.startMs ?? Infinity, project: t.project, paragraph: 0 },
    }));
    return lines.sort((a, b) => (content === 'next-steps' ? a.due!.localeCompare(b.due!) : a.at - b.at));
  }

  private said({ text, startMs, speaker }: Sentence, score = 1): Found {
    const tidy = tidyText(text);
    const turned =
      speaker !== null && this.wording === 'reported'
        ? inReportedSpeech(tidy, speaker)
        : applyWording(tidy, this.wording);
    return {
      // What cannot be turned stands as it was said, under the name of who said it.
      ...found(turned ?? `${speaker}: “${tidy}”`, startMs),
      ...{ person: speaker, score },
    };
  }

  private written({ text, startMs }: SourceSlip): Found {
    return found(text, startMs);
  }

  /** The sentences that marks stand at, and own notes beside them. */
  private marked(): Found[] {
    const { slips } = this.source;
    const lines = slips
      .filter((s) => s.kind === 'mark' || s.kind === 'note')
      .flatMap((slip): Found[] => {
        if (slip.kind === 'note') return [this.written(slip)];
        const end = slip.endMs ?? slip.startMs;
        const sentence =
          this.sentences.find((s) => (s.startMs ?? 0) <= end && (s.endMs ?? 0) >= slip.startMs) ??
          this.sentences.findLast((s) => (s.startMs ?? 0) <= slip.startMs);
        return sentence ? [{ ...this.said(sentence), startMs: slip.startMs, at: slip.startMs }] : [];
      });
    return lines.filter((l, i) => lines.findIndex((m) => m.text === l.text) === i).sort(byTime);
  }

  private readonly boost = (index: number): number => {
    const { startMs, endMs } = this.sentences[index]!;
    if (startMs === null || endMs === null) return 1;
    const isMarked = this.source.slips.some(
      (s) =>
        (s.kind === 'mark' || s.kind === 'note') &&
        s.startMs >= startMs - 500 &&
        s.startMs <= endMs + (s.kind === 'note' ? NEAR_MS : 1500),
    );
    return isMarked ? MARKED_BOOST : 1;
  };
}

const byTime = (a: { at: number }, b: { at: number }): number => a.at - b.at;
const sizeIn = (text: string, unit: Section['unit']): number =>
  unit === 'words' ? text.split(/\s+/).filter(Boolean).length : unit === 'characters' ? [...text].length : 1;

/** As much as the length allows, what matters most first, in the order it had. */
function withinLength(lines: readonly Found[], { most, unit }: Section): Found[] {
  if (most === null) return [...lines];
  let left = most;
  const kept = new Set<Found>();
  for (const line of [...lines].sort((a, b) => b.score - a.score)) {
    // Between two sentences there is a space.
    const size = sizeIn(line.text, unit) + (unit === 'characters' && kept.size > 0 ? 1 : 0);
    if (size > left) continue;
    left -= size;
    kept.add(line);
  }
  if (kept.size === 0 && lines[0] && unit !== 'sentences' && unit !== 'points') {
    const text = shortened(lines[0].text, most, unit);
    return text ? [{ ...lines[0], text }] : [];
  }
  return lines.filter((l) => kept.has(l));
}

/** The beginning of a sentence, to the last whole word that fits. */
function shortened(text: string, most: number, unit: Section['unit']): string {
  const words = text.split(/\s+/);
  while (words.length > 0 && sizeIn(`${words.join(' ')}…`, unit) > most) words.pop();
  return words.length ? `${words.join(' ').replace(/[.,;:]$/, '')}…` : '';
}

function grouped(lines: readonly Found[], { content, grouping }: Section, maker: Maker): MadeSection['groups'] {
  const plainLine = ({ text, startMs, recordingId, todoId, isDone, person, due, isUncited }: Found): Line => ({
    ...{ text, startMs, recordingId, todoId, isDone, person, due, isUncited },
  });
  if (content === 'text' || content === 'letter') {
    const numbers = [...new Set(lines.map((l) => l.paragraph))];
    return numbers.map((n) => ({ name: null, lines: lines.filter((l) => l.paragraph === n).map(plainLine) }));
  }
  const parts = grouping === 'part' ? maker.parts : [];
  if (parts.length) {
    const timed = lines.map((found) => ({ found, startMs: found.at }));
    return withinParts(timed, parts)
      .map((within, i) => ({ name: parts[i]!.title, lines: within.map(({ found }) => plainLine(found)) }))
      .filter((g) => g.lines.length > 0);
  }
  const groups = new Map<string | null, Line[]>();
  for (const found of lines) {
    const { project } = found;
    const line = plainLine(found);
    const name = grouping === 'project' ? (project ?? 'No project') : grouping === 'person' ? personName(line) : null;
    groups.set(name, [...(groups.get(name) ?? []), line]);
  }
  const last = (name: string | null) => Number(name === 'No project' || name === 'Unassigned');
  return [...groups]
    .map(([name, all]) => ({ name, lines: all }))
    .sort((a, b) =>
      grouping === 'project'
        ? last(a.name) - last(b.name) || (a.name ?? '').localeCompare(b.name ?? '')
        : last(a.name) - last(b.name),
    );
}

const personName = ({ person }: Line): string => (person === 'me' ? 'Mine' : (person ?? 'Unassigned'));

/** All text of a write-up as it counts for its length. */
export const plainText = (sections: readonly MadeSection[]): string =>
  sections
    .map(({ heading, form, groups }) => {
      const joint = form === 'text' ? ' ' : '\n';
      const body = groups
        .map(({ name, lines }) => [...(name ? [name] : []), lines.map((l) => l.text).join(joint)].join('\n'))
        .join('\n');
      return heading ? `${heading}\n${body}` : body;
    })
    .join('\n\n');

function withinCharacters(sections: readonly MadeSection[], most: number): MadeSection[] {
  const kept = sections.map((s) => ({ ...s, groups: s.groups.map((g) => ({ ...g, lines: [...g.lines] })) }));
  while ([...plainText(kept)].length > most) {
    const section = kept.at(-1);
    if (!section) break;
    section.groups.at(-1)?.lines.pop();
    if (section.groups.at(-1)?.lines.length === 0) section.groups.pop();
    if (section.groups.length === 0) kept.pop();
  }
  return kept;
}
