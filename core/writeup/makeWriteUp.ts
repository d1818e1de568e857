import type { Line, MadeSection, Section, Template } from '../contract/templates';
import { type Sentence, sentencesOf } from '../language/sentences';
import { partsOf } from '../language/parts';
import { summarise } from '../language/summary';
import type { Passage } from '../transcript/manuscript';
import { datesAndNumbersIn, decisionsIn, openQuestionsIn, termsIn } from './findings';
import { reported, tidied } from './tidy';

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
const MOST_CANDIDATES = 60;

/**
 * Makes a write-up by a template. Every line is made of the words of one sentence, slip or to-do and carries its
 * moment; the lengths that the template asks for are upper bounds that are kept.
 */
export function makeWriteUp(template: Template, source: Source): MadeSection[] {
  const sentences = sentencesOf(source.passages);
  const maker = new Maker(sentences, source, template.wording === 'reported');
  const made = template.sections.flatMap((section): MadeSection[] => {
    const { form, heading, indent, hasTimes } = section;
    const lines = withinLength(maker.lines(section), section);
    if (lines.length === 0 && section.isOptional) return [];
    return [{ heading, form, indent, hasTimes, groups: grouped(lines, section, maker.parts) }];
  });
  return template.mostCharacters === null ? made : withinCharacters(made, template.mostCharacters);
}

/** `paragraph` counts the paragraphs of running text. */
type Found = Line & { score: number; at: number; project: string | null; paragraph: number };

const NO_SLIP: SourceSlip = { kind: 'heading', mark: null, startMs: 0, endMs: null, text: '' };

class Maker {
  private found: { title: string; startMs: number }[] | null = null;

  constructor(
    private readonly sentences: readonly Sentence[],
    private readonly source: Source,
    private readonly isReported: boolean,
  ) {}

  /** Parts by one's own headings, else as they can be told from the words. */
  get parts(): readonly { title: string; startMs: number }[] {
    const own = this.source.slips.filter((s) => s.kind === 'heading');
    this.found ??= own.length
      ? own.map((s) => ({ title: s.text, startMs: s.startMs })).sort((a, b) => a.startMs - b.startMs)
      : partsOf(this.sentences);
    return this.found;
  }

  /** What goes into a section, in its order; `score` says what is to stay where not all of it may. */
  lines({ content, unit, most }: Section): Found[] {
    const { slips, todos } = this.source;
    if (content === 'summary' || content === 'key-points') {
      const count = most !== null && (unit === 'sentences' || unit === 'points') ? most : MOST_CANDIDATES;
      // A short talk is not its own summary.
      const some = Math.min(count, Math.max(1, Math.ceil(this.sentences.length / 2)));
      return summarise(this.sentences, some, this.boost).map((s) => this.said(s, s.score));
    }
    if (content === 'decisions') return decisionsIn(this.sentences).map((s) => this.said(s));
    if (content === 'questions') {
      const asked = slips.filter((s) => s.kind === 'mark' && s.mark === 'question');
      return [
        ...openQuestionsIn(this.sentences).map((s) => this.said(s)),
        ...asked.flatMap((slip) => (slip.text ? [this.written(slip)] : [])),
      ].sort(byTime);
    }
    if (content === 'dates-and-numbers') return datesAndNumbersIn(this.sentences).map((s) => this.said(s));
    if (content === 'terms') {
      return termsIn(this.sentences, most ?? MOST_CANDIDATES).map(({ term, sentence }) => ({
        ...this.said(sentence),
        person: term,
      }));
    }
    if (content === 'parts') {
      return this.parts.map(({ title, startMs }) => this.written({ ...NO_SLIP, text: title, startMs }));
    }
    if (content === 'asides') return slips.filter((s) => s.kind === 'aside').map((s) => this.written(s));
    if (content === 'marked') return this.marked();
    if (content === 'quotes') {
      const chosen = summarise(this.sentences, MOST_CANDIDATES, this.boost).filter((s) => s.speaker !== null);
      return chosen.map((s) => ({ ...this.said(s, s.score), text: `“${tidied(s.text)}”` }));
    }
    if (content === 'text') {
      const starts = this.source.passages.map((p) => p.startsParagraph);
      const paragraphOf = (passage: number | null) => starts.slice(0, (passage ?? 0) + 1).filter(Boolean).length;
      return this.sentences
        .map((s) => ({ ...this.said(s), paragraph: paragraphOf(s.passage) }))
        .filter((l) => l.text !== '');
    }
    return this.todoLines(content, todos);
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
      ...{ text: t.text, startMs: t.startMs, todoId: t.id, isDone: t.isDone, person: t.who, due: t.due },
      ...{ score: 1, at: t.startMs ?? Infinity, project: t.project, paragraph: 0 },
    }));
    return lines.sort((a, b) => (content === 'next-steps' ? a.due!.localeCompare(b.due!) : a.at - b.at));
  }

  private said({ text, startMs, speaker }: Sentence, score = 1): Found {
    const tidy = tidied(text);
    const turned = this.isReported && speaker !== null ? reported(tidy, speaker) : tidy;
    return {
      // What cannot be turned stands as it was said, under the name of who said it.
      ...{ text: turned ?? `${speaker}: “${tidy}”`, startMs, todoId: null, isDone: false, person: speaker, due: null },
      ...{ score, at: startMs ?? 0, project: null, paragraph: 0 },
    };
  }

  private written({ text, startMs }: SourceSlip): Found {
    return {
      ...{ text, startMs, todoId: null, isDone: false, person: null, due: null },
      ...{ score: 1, at: startMs, project: null, paragraph: 0 },
    };
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

function grouped(
  lines: readonly Found[],
  { content, grouping }: Section,
  parts: readonly { title: string; startMs: number }[],
): MadeSection['groups'] {
  const plainLine = ({ text, startMs, todoId, isDone, person, due }: Found): Line => ({
    ...{ text, startMs, todoId, isDone, person, due },
  });
  if (content === 'text') {
    const numbers = [...new Set(lines.map((l) => l.paragraph))];
    return numbers.map((n) => ({ name: null, lines: lines.filter((l) => l.paragraph === n).map(plainLine) }));
  }
  if (grouping === 'part' && parts.length) {
    const inPart = (i: number) =>
      lines.filter((l) => (i === 0 || l.at >= parts[i]!.startMs) && l.at < (parts[i + 1]?.startMs ?? Infinity));
    return parts
      .map(({ title }, i) => ({ name: title, lines: inPart(i).map(plainLine) }))
      .filter((g) => g.lines.length > 0);
  }
  const groups = new Map<string | null, Line[]>();
  for (const found of lines) {
    const { project } = found;
    const line = plainLine(found);
    const name = grouping === 'project' ? (project ?? 'No project') : grouping === 'person' ? personName(line) : null;
    groups.set(name, [...(groups.get(name) ?? []), line]);
  }
  const last = (name: string | null) => Number(name === 'No project' || name === 'Nobody yet');
  return [...groups]
    .map(([name, all]) => ({ name, lines: all }))
    .sort((a, b) =>
      grouping === 'project'
        ? last(a.name) - last(b.name) || (a.name ?? '').localeCompare(b.name ?? '')
        : last(a.name) - last(b.name),
    );
}

const personName = ({ person }: Line): string => (person === 'me' ? 'Mine' : (person ?? 'Nobody yet'));

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
