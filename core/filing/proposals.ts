import { sentencesOf } from '../language/sentences';
import { suggestTitle } from '../language/title';
import { type FoundTodo, type Named, findTodos } from '../language/todos';
import { type Passage, passageText } from '../transcript/manuscript';
import { type CitedSentence, shortSummary } from '../writeup/shortSummary';
import { type FiledExample, type FolderName, suggestFiling } from './suggestions';

/** What Immeld knows of a person's shelves when it makes its proposals. */
export type FilingContext = {
  /** Local time at which the recording began: `2026-03-09T07:40:12`. */
  startedAt: string;
  filed: FiledExample[];
  folders: FolderName[];
  tags: string[];
  projects: Named[];
};

export type Proposals = {
  title: string | null;
  folderId: string | null;
  tags: string[];
  todos: (FoundTodo & { startMs: number | null })[];
  summary: CitedSentence[];
};

/** Everything that stands in pencil beside a new recording. */
export function proposalsFor(passages: readonly Passage[], context: FilingContext): Proposals {
  const sentences = sentencesOf(passages);
  const text = passages.map(passageText).join(' ');
  const filing = suggestFiling(text, context.filed, context.folders, context.tags);
  return {
    title: suggestTitle(sentences),
    folderId: filing.folder?.id ?? null,
    tags: filing.tags.map((t) => t.name),
    todos: findTodos(sentences, { at: context.startedAt.slice(0, 16), projects: context.projects }).map((todo) => ({
      ...todo,
      startMs: sentences[todo.sentence]?.startMs ?? null,
    })),
    summary: shortSummary(passages),
  };
}
