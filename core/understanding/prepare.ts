import type { Sentence } from '../language/sentences';
import { spokenDate } from '../language/spokenDates';
import { wordingStems } from '../language/alike';
import { clean } from '../language/todos/clauses';
import { type FoundTodo, type TodoContext, findTodos } from '../language/todos/findTodos';
import { triggerOf } from '../language/todos/triggers';
import { type Reading, readTalk, unitText } from './reading';
import { unitFeatures } from './unitFeatures';

/** The three ways of speaking that are judged apart. */
export type TalkKind = 'memo' | 'dialogue' | 'talk';

export type RuledTodo = FoundTodo & { unit: number };

/** What was said with all that the judges look at. */
export type Prepared = {
  at: string;
  kind: TalkKind;
  reading: Reading;
  rules: readonly RuledTodo[];
  /** Names of what is true of each unit. */
  features: readonly string[][];
  /** Tokens that belong to a date or a time. */
  dated: ReadonlySet<number>;
  /** The unit of each token. */
  unitAt: Int32Array;
};

/** Longer sentences are not asked for to-dos by the rules one unit at a time. */
const MAX_UNIT = 400;

export function prepareTalk(sentences: readonly Sentence[], context: TodoContext, kind: TalkKind): Prepared {
  const reading = readTalk(sentences);
  const { tokens, units } = reading;
  const texts = units.map((u) => unitText(reading, u));
  const unitsOf = new Map<number, number[]>();
  units.forEach((u, i) => unitsOf.set(u.sentence, [...(unitsOf.get(u.sentence) ?? []), i]));
  const rules = findTodos(sentences, context).map((todo): RuledTodo => {
    const wanted = new Set(wordingStems(todo.text));
    let [unit, most] = [-1, -1];
    for (const i of unitsOf.get(todo.sentence) ?? []) {
      const shared = new Set(wordingStems(texts[i]!).filter((s) => wanted.has(s))).size;
      if (shared > most) [unit, most] = [i, shared];
    }
    return { ...todo, unit };
  });
  const found = new Set(rules.map((r) => r.unit));
  const ruled = texts.map((text, i) => {
    const trigger = text.length > MAX_UNIT ? null : triggerOf(clean(text), null);
    const owner = trigger?.owner ?? null;
    return { isFound: found.has(i), trigger: typeof owner === 'object' && owner ? 'name' : owner };
  });
  const dated = new Set<number>();
  const unitAt = new Int32Array(tokens.length);
  units.forEach((u, i) => {
    unitAt.fill(i, u.from, u.to);
    const date = texts[i]!.length > MAX_UNIT ? null : spokenDate(texts[i]!, context.at);
    if (!date) return;
    for (let k = u.from; k < u.to; k++) {
      const place = tokens[k]!.start - tokens[u.from]!.start;
      if (place >= date.start && place < date.end) dated.add(k);
    }
  });
  return {
    at: context.at,
    kind,
    reading,
    rules,
    features: unitFeatures(reading, ruled, kind.charAt(0)),
    dated,
    unitAt,
  };
}
