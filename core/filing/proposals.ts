import { type Sentence, sentencesOf } from '../language/sentences';
import { suggestTitles } from '../language/title';
import type { FoundTodo } from '../language/todos/findTodos';
import type { UnderstoodTodo } from '../understanding/findings';
import { type UnderstandingModel } from '../understanding/model';
import { type TalkContext, understand } from '../understanding/understand';
import type { SpokenKind } from '../contract/spokenKinds';
import type { Named } from '../language/todos/projects';
import { type Passage, passageText } from '../transcript/manuscript';
import { type CitedSentence, shortSummary } from '../writeup/shortSummary';
import { type FiledExample, type ShelfName, suggestFiling } from './suggestions';
import type { Filed } from './features';
import { peopleIn } from './people';

/** What Immeld knows of a recording and of its person's shelves when it makes its proposals. */
export type FilingContext = Omit<Filed, 'text'> & {
  filed: FiledExample[];
  folders: ShelfName[];
  tags: string[];
  projects: Named[];
  knownPeople: Named[];
  /** Name of the person whose recordings these are; empty where it is not known. */
  ownName: string;
} & Pick<TalkContext, 'kind' | 'isOther'>;

export type Proposals = {
  kind: SpokenKind;
  title: string | null;
  otherTitles: string[];
  folderId: string | null;
  tags: string[];
  project: string | null;
  people: string[];
  /** `sure` is the probability that it is one, 0 to 1. */
  todos: (FoundTodo & { startMs: number | null; sure: number })[];
  summary: CitedSentence[];
};

/** Everything that stands in pencil beside a new recording. */
export function proposalsFor(
  passages: readonly Passage[],
  context: FilingContext,
  model: UnderstandingModel,
): Proposals {
  const sentences = sentencesOf(passages);
  const text = passages.map(passageText).join(' ');
  const people = peopleIn(passages, context.people, context.knownPeople);
  const { folders, tags, projects } = context;
  const filing = suggestFiling({ ...context, text, people }, context.filed, { folders, tags, projects });
  const { kind, title, todos } = understand(sentences, knownOf(context), model);
  const otherTitles = suggestTitles(sentences).filter((t) => t !== title);
  return {
    ...{ kind, title, otherTitles, people },
    folderId: filing.folder?.id ?? null,
    tags: filing.tags.map((t) => t.name),
    project: filing.project,
    todos: todos.map((t) => proposedTodo(t, sentences)),
    summary: shortSummary(passages),
  };
}

/** What is known of a recording when its to-dos are looked for. */
export type TodoFacts = { startedAt: string; projects: readonly Named[]; ownName: string } & Pick<
  TalkContext,
  'kind' | 'isOther'
>;

/** The to-dos of a recording with the second of the sentence in which each was said. */
export function proposedTodos(
  passages: readonly Passage[],
  facts: TodoFacts,
  model: UnderstandingModel,
): Proposals['todos'] {
  const sentences = sentencesOf(passages);
  return understand(sentences, knownOf(facts), model).todos.map((t) => proposedTodo(t, sentences));
}

const knownOf = ({ startedAt, ...facts }: TodoFacts): TalkContext => ({ ...facts, at: startedAt.slice(0, 16) });

const proposedTodo = (
  { text, who, due, dueTime, repeat, project, place, sure }: UnderstoodTodo,
  sentences: readonly Sentence[],
): Proposals['todos'][number] => ({
  ...{ text, who, repeat, project, sure, sentence: place.sentence },
  due: due && dueTime ? `${due}T${dueTime}` : due,
  quote: sentences[place.sentence]!.text,
  startMs: sentences[place.sentence]!.startMs,
});
