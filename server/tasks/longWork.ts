import type { CurrencyTable } from '@immeld/core/compute/currencies';
import { withSums } from '@immeld/core/compute/noteBodySums';
import type { NoteBody } from '@immeld/core/contract/notes';
import type { NumeralKind } from '@immeld/core/contract/numeralKinds';
import { withNumerals } from '@immeld/core/transcript/inverseTextNormalisation';
import type { MadeSection, Template } from '@immeld/core/contract/templates';
import { sentencesOf } from '@immeld/core/language/sentences';
import { type DocumentResults, type DocumentTask, makeDocument } from '../exports/makeDocument';
import { type SlideWords, placeSlides } from '@immeld/core/slides/placeSlides';
import { type RecallQuestion, recallQuestions } from '@immeld/core/study/recallQuestions';
import { type Part, partsOf } from '@immeld/core/language/parts';
import type { AsidePhrases } from '@immeld/core/language/asides';
import type { Passage, Word } from '@immeld/core/transcript/manuscript';
import { passagesFrom } from '@immeld/core/transcript/passages';
import { withoutAsides } from '@immeld/core/transcript/withoutAsides';
import { type Source, makeWriteUp } from '@immeld/core/writeup/makeWriteUp';
import { type OneOfSeveral, makeWriteUpOfSeveral } from '@immeld/core/writeup/together';
import { type Proposals, type TodoFacts, proposedTodos } from '@immeld/core/filing/proposals';
import { understandingModel } from '../understanding/model';
import { parseISO } from 'date-fns';
import { topicMapOf } from '@immeld/core/writeup/topicMap';

/** Written as people write; as figures are never longer than their words, the lengths hold. */
function inWriting(sections: readonly MadeSection[], kinds: readonly NumeralKind[]): MadeSection[] {
  const figures = new Set(kinds);
  return sections.map((section) => ({
    ...section,
    groups: section.groups.map((g) => ({
      ...g,
      lines: g.lines.map((l) => ({ ...l, text: withNumerals(l.text, figures) })),
    })),
  }));
}

type Topics = ReturnType<typeof topicMapOf>;
type Headings = Parameters<typeof topicMapOf>[1];

export type LongTask =
  | { kind: 'write-up'; template: Template; source: Source; figures: readonly NumeralKind[] }
  | { kind: 'several'; template: Template; sources: OneOfSeveral[]; figures: readonly NumeralKind[] }
  /** Passages are JSON: a text is handed to a thread quickly. */
  | { kind: 'parts'; passages: string }
  | { kind: 'place slides'; passages: string; slides: readonly SlideWords[] }
  | { kind: 'recall'; passages: string }
  | { kind: 'map'; passages: string; headings: Headings }
  /** Words are JSON, too. */
  | { kind: 'passages'; words: string; asides: AsidePhrases | null }
  /** A note with its sums worked out; `day` is today, `YYYY-MM-DD`. */
  | { kind: 'sums'; body: NoteBody; day: string; currencies: CurrencyTable | null }
  | { kind: 'todos'; passages: string; facts: TodoFacts }
  | DocumentTask;
export type LongResults = DocumentResults & {
  'write-up': MadeSection[];
  several: MadeSection[];
  parts: Part[];
  'place slides': (number | null)[];
  recall: RecallQuestion[];
  map: Topics;
  passages: Passage[];
  todos: Proposals['todos'];
  sums: NoteBody;
};

export function doLongTask(task: LongTask): LongResults[LongTask['kind']] {
  switch (task.kind) {
    case 'write-up':
      return inWriting(makeWriteUp(task.template, task.source, understandingModel()), task.figures);
    case 'several':
      return inWriting(makeWriteUpOfSeveral(task.template, task.sources, understandingModel()), task.figures);
    case 'parts':
      return partsOf(sentencesOf(JSON.parse(task.passages) as Passage[]));
    case 'place slides':
      return placeSlides(task.slides, sentencesOf(JSON.parse(task.passages) as Passage[]));
    case 'recall':
      return recallQuestions(sentencesOf(JSON.parse(task.passages) as Passage[]));
    case 'map':
      return topicMapOf(JSON.parse(task.passages) as Passage[], task.headings);
    case 'passages':
      return withoutAsides(passagesFrom(JSON.parse(task.words) as Word[]), task.asides).passages;
    case 'sums':
      return withSums(task.body, { today: parseISO(task.day), currencies: task.currencies });
    case 'todos':
      return proposedTodos(JSON.parse(task.passages) as Passage[], task.facts, understandingModel());
    default:
      return makeDocument(task);
  }
}
