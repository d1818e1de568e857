import { wordingStems } from '../../language/alike';
import { type Reading, unitText } from '../reading';
import type { TalkItem } from './talk';

/** The tokens of a quote, as numbers `from` up to, not with, `to`; null where it is not found. */
export function quoteSpan({ tokens }: Reading, quote: string): [number, number] | null {
  const wanted = quote.split(/\s+/).filter(Boolean);
  const plain = (t: string) => t.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
  const own = tokens.map((t) => plain(t.text));
  const seek = wanted.map(plain);
  for (let i = 0; i + seek.length <= own.length; i++) {
    let n = 0;
    while (n < seek.length && own[i + n] === seek[n]) n++;
    if (n === seek.length) return [i, i + n];
  }
  // A quote may begin or end inside a word ("Tuesday's").
  for (let i = 0; i + seek.length <= own.length; i++) {
    let n = 0;
    while (
      n < seek.length &&
      (own[i + n] === seek[n] || ((n === 0 || n === seek.length - 1) && own[i + n]!.includes(seek[n]!)))
    )
      n++;
    if (n === seek.length) return [i, i + n];
  }
  return null;
}

/** What a unit is to a to-do: nothing (0), its head (1), or more about it (2); and whether a to-do begins here (1) or goes on (2). */
export type TodoLabels = { heads: number[]; chunks: number[]; headOf: number[]; spans: ([number, number] | null)[] };

export function todoLabels(reading: Reading, { todos = [] }: Pick<TalkItem, 'todos'>): TodoLabels {
  const { units } = reading;
  const heads = units.map(() => 0);
  const chunks = units.map(() => 0);
  const headOf: number[] = [];
  const spans: ([number, number] | null)[] = [];
  for (const todo of todos) {
    const span = quoteSpan(reading, todo.quote);
    spans.push(span);
    headOf.push(-1);
    if (!span) continue;
    const [a, b] = span;
    const within = units.flatMap(({ from, to }, i) => {
      const shared = Math.min(b, to) - Math.max(a, from);
      return shared > 0 && (shared >= (to - from) / 2 || shared >= (b - a) / 2) ? [i] : [];
    });
    const wanted = new Set(wordingStems(todo.text));
    let [best, most] = [-1, -1];
    for (const i of within) {
      const own = new Set(wordingStems(unitText(reading, units[i]!)));
      const shared = [...wanted].filter((s) => own.has(s)).length;
      if (shared > most) [best, most] = [i, shared];
    }
    headOf[headOf.length - 1] = best;
    for (const i of within) if (heads[i] === 0) heads[i] = 2;
    if (best >= 0) heads[best] = 1;
  }
  heads.forEach((h, i) => (chunks[i] = h ? 2 : 0));
  todos.forEach((_, k) => {
    const span = spans[k];
    if (!span) return;
    const [a, b] = span;
    const first = units.findIndex(({ from, to }, i) => heads[i] && Math.min(b, to) - Math.max(a, from) > 0);
    if (first >= 0 && chunks[first] !== 1) chunks[first] = 1;
    else if (headOf[k]! >= 0) chunks[headOf[k]!] = 1;
  });
  return { heads, chunks, headOf, spans };
}
