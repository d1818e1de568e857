import { MIN_SIMILARITY, alike } from '../alike';
import type { ExampleTodo, TodoExample } from './todoExamples';

type Comparable = Pick<ExampleTodo, 'text' | 'who' | 'due' | 'project'> & { repeat?: string | null };

export type TodoMetrics = {
  wanted: number;
  found: number;
  /** Found to-dos that are wanted ones in wording. */
  right: number;
  /** Of the right ones, how many have the right person, date and project. */
  who: number;
  due: number;
  project: number;
  repeat: number;
  /** One line for each thing that is not as wanted. */
  mistakes: string[];
};

/**
 * Counts to-dos found against to-dos wanted. A found one is right when its wording has a Dice coefficient of at least
 * 0.7 with a wanted one of the same example, each taken once, likest first; person, date and project are counted on
 * the right ones only.
 */
export function todoMetrics(
  examples: readonly TodoExample[],
  find: (example: TodoExample) => readonly Comparable[],
): TodoMetrics {
  const figures: TodoMetrics = {
    ...{ wanted: 0, found: 0, right: 0, who: 0, due: 0, project: 0, repeat: 0 },
    mistakes: [],
  };
  for (const example of examples) {
    const found = find(example);
    const pairs = example.todos
      .flatMap((wanted) => found.map((got) => ({ wanted, got, alike: alike(wanted.text, got.text) })))
      .filter((p) => p.alike >= MIN_SIMILARITY)
      .sort((a, b) => b.alike - a.alike);
    const wantedLeft = new Set<ExampleTodo>(example.todos);
    const foundLeft = new Set<Comparable>(found);
    const note = (text: string) => figures.mistakes.push(`${example.said}\n    ${text}`);
    for (const { wanted, got } of pairs) {
      if (!wantedLeft.has(wanted) || !foundLeft.has(got)) continue;
      wantedLeft.delete(wanted);
      foundLeft.delete(got);
      figures.right++;
      for (const part of ['who', 'due', 'project', 'repeat'] as const) {
        if ((wanted[part] ?? null) === (got[part] ?? null)) figures[part]++;
        else note(`${part} of "${wanted.text}": wanted ${wanted[part]}, found ${got[part] ?? null}`);
      }
    }
    figures.wanted += example.todos.length;
    figures.found += found.length;
    for (const w of wantedLeft) note(`missed: ${w.text}`);
    for (const f of foundLeft) note(`too many: ${f.text} (${f.who})`);
  }
  return figures;
}

/** Precision, recall and their harmonic mean, 0 to 1. */
export function precisionRecall({ wanted, found, right }: Pick<TodoMetrics, 'wanted' | 'found' | 'right'>) {
  const precision = found ? right / found : 1;
  const recall = wanted ? right / wanted : 1;
  return { precision, recall, f1: precision + recall ? (2 * precision * recall) / (precision + recall) : 0 };
}
