import { wordingStems } from '../../language/alike';
import type { TodoExample } from '../../language/evaluation/todoExamples';
import { OWN_NAME, PROJECTS, SAID_AT } from '../../language/evaluation/todoExamples';
import { type TalkKind, prepareTalk } from '../prepare';
import { unitText } from '../reading';
import type { Lesson } from './learnTodos';
import { todoLabels } from './labels';

/** The rules were made for the working set, so it says little of how far they can be trusted, and weighs little. */
const WEIGHT = 0.5;
/** A to-do belongs to a unit that has this share of its words. */
const MIN_SHARE = 0.4;

/** Lessons from the short, tidy memos of the working set: their to-dos have no quotes, so each is its likest unit. */
export function workingSetLessons(examples: readonly TodoExample[]): Lesson[] {
  return examples.map(({ said, sentences, todos }, i) => {
    const kind: TalkKind = new Set(sentences.flatMap((s) => s.speaker ?? [])).size > 1 ? 'dialogue' : 'memo';
    const talk = prepareTalk(sentences, { at: SAID_AT, projects: PROJECTS, ownName: OWN_NAME }, kind);
    const { units } = talk.reading;
    const labelled = todos.flatMap((todo) => {
      const wanted = wordingStems(todo.text);
      const shares = units.map((u) => {
        const own = new Set(wordingStems(unitText(talk.reading, u)));
        return wanted.filter((s) => own.has(s)).length / (wanted.length || 1);
      });
      const best = shares.indexOf(Math.max(...shares));
      if (best < 0 || shares[best]! < MIN_SHARE) return [];
      const [due = null, dueTime = null] = todo.due?.split('T') ?? [];
      return [{ ...todo, due, dueTime, quote: unitText(talk.reading, units[best]!) }];
    });
    const item = { id: `W${i}`, kind, at: SAID_AT, text: said, todos: labelled } as const;
    return { item, hand: 'W', talk, labels: todoLabels(talk.reading, item), weight: WEIGHT };
  });
}
