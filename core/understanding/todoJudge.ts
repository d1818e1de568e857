import { groupsIn } from './groups';
import { type Linear, probabilities } from './linear';
import type { Prepared, RuledTodo, TalkKind } from './prepare';
import type { Stretch } from './wordFeatures';
import { bestWording } from './wordingJudge';
import { saysNothing } from './wordings';

/** What was learned about to-dos: see data/understanding/CARD.md. */
export type TodoModel = {
  heads: Linear;
  chunks: Linear;
  transitions: readonly (readonly number[])[];
  words: Linear;
  ranker: Linear;
};

/** A to-do as the judge found it. `sure` is the probability that there is one, 0 to 1; `rule` what the rules found there. */
export type JudgedTodo = Stretch & { text: string; sure: number; rule: RuledTodo | null; isRuled: boolean };

/** How ready the judge is to see a to-do, by the way of speaking; where F1 is best on the hands learned on. */
const BIAS: Record<TalkKind, number> = { memo: 0.9, dialogue: 1.2, talk: 0.9 };
/** Of so few units nearly all is meant as it is said: what the rules found stays, as they word it. */
const SHORT = 8;
/** There the rules are right three times in four at least, whatever the judge thinks of it. */
const SURE_BY_RULE = 0.75;
/** What only the rules found stays from here on. */
const KEEP_RULE: Record<TalkKind, number> = { memo: 0.1, dialogue: 0.3, talk: 0.5 };

const ruled = (rule: RuledTodo, sure: number): JudgedTodo => ({
  ...{ from: rule.unit, to: rule.unit + 1, head: rule.unit, text: rule.text },
  ...{ sure, rule, isRuled: true },
});

export function judgeTodos(talk: Prepared, model: TodoModel): JudgedTodo[] {
  const { features, rules, kind } = talk;
  const heads = features.map((f) => probabilities(model.heads, f));
  const rows = features.map((f, i) => {
    const [none, begins, goesOn] = probabilities(model.chunks, f);
    const o = (none! + heads[i]![0]!) / 2;
    const some = begins! + goesOn! || 1e-9;
    return [o, ((1 - o) * begins!) / some, ((1 - o) * goesOn!) / some];
  });
  const isShort = features.length <= SHORT;
  const surely = (sure: number): number => (isShort ? Math.max(sure, SURE_BY_RULE) : sure);
  const found: JudgedTodo[] = [];
  const used = new Set<RuledTodo>();
  for (const [from, to] of groupsIn(rows, model.transitions, BIAS[kind])) {
    let head = from;
    for (let i = from; i < to; i++) if (heads[i]![1]! > heads[head]![1]!) head = i;
    const stretch = { from, to, head };
    const within = rules.filter((r) => r.unit >= from && r.unit < to);
    within.forEach((r) => used.add(r));
    const sure = 1 - Math.min(...rows.slice(from, to).map(([o]) => o!));
    // What the rules take apart ("plan, rehearse and record the clip") they word better, too, and so they do what is short.
    if ((kind === 'memo' && within.length > 1) || (isShort && within.length)) {
      for (const rule of within) found.push(ruled(rule, surely(sure)));
      continue;
    }
    const worded = bestWording(talk, stretch, model.words, model.ranker);
    if (worded && !(saysNothing(worded.text) && within.length === 0))
      found.push({
        ...stretch,
        text: worded.text,
        sure,
        rule: within[0] ?? null,
        isRuled: worded.kind === 'rule',
      });
  }
  for (const rule of rules) {
    if (used.has(rule) || rule.unit < 0) continue;
    const sure = 1 - rows[rule.unit]![0]!;
    if (sure >= KEEP_RULE[kind] || isShort) found.push(ruled(rule, surely(sure)));
  }
  return found.sort((a, b) => a.from - b.from);
}
