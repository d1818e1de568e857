import { tableOf } from '../spokenNumbers';
import type { Priority } from '../../contract/todos';
import { type Named } from './projects';
import { wordAsAction } from './wording';

export type TypedTodo = {
  text: string;
  who: string | null;
  due: string | null;
  project: string | null;
  priority: Priority | null;
  repeat: string | null;
};

const SIGN = /(^|\s)([#@!])([\p{L}\p{N}][\p{L}\p{N}_-]*)/gu;
const PRIORITIES = tableOf<Priority>({
  ...{ high: 'high', h: 'high', urgent: 'high', '1': 'high' },
  ...{ middle: 'middle', medium: 'middle', m: 'middle', '2': 'middle' },
  ...{ low: 'low', l: 'low', '3': 'low' },
});

/** How people begin a line that is for themselves: "need to", "I have to", "don’t forget to". */
const OPENING =
  /^(?:i\s+|i['’]ve\s+|we\s+)?(?:(?:need|have|got|want|ought|remember)\s+to|must|remind\s+me\s+to|don['’]?t\s+forget\s+to)\s+(?=\p{L})/iu;

const squeezed = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');

/** What a short sign means among the things that have names: the whole name, another name, or how one begins. */
function named(sign: string, all: readonly Named[]): string | null {
  const wanted = squeezed(sign);
  const names = all.flatMap(({ name, otherNames = [] }) =>
    [name, ...otherNames].map((n) => ({ name, plain: squeezed(n) })),
  );
  return (
    names.find((n) => n.plain === wanted)?.name ??
    names.find((n) => n.plain.startsWith(wanted))?.name ??
    names.find((n) => n.plain.includes(wanted))?.name ??
    null
  );
}

/**
 * A to-do from one line: words, when ("tomorrow 9 am", "every Friday"), and signs: `#project`, `@person`, `!high`.
 * A sign that names nothing known names something new, but for `!`, which stays a word.
 * @param at local time at which it is written: `2026-03-09T07:40`
 */
export function typedTodo(
  line: string,
  at: string,
  known: { projects?: readonly Named[]; people?: readonly Named[] } = {},
): TypedTodo {
  let [project, who, priority]: [string | null, string | null, Priority | null] = [null, null, null];
  const words = line.replace(SIGN, (whole, before: string, sign: string, name: string) => {
    const spoken = name.replace(/[_-]+/g, ' ');
    if (sign === '#') project = named(name, known.projects ?? []) ?? spoken;
    else if (sign === '@') who = /^me$/i.test(name) ? 'me' : (named(name, known.people ?? []) ?? spoken);
    else if (PRIORITIES[name.toLowerCase()]) priority = PRIORITIES[name.toLowerCase()]!;
    else return whole;
    return before;
  });
  const plain = words.replace(/\s+/g, ' ').trim().replace(OPENING, '');
  const item = wordAsAction(plain, at);
  return {
    text: item?.text ?? (plain ? plain.charAt(0).toUpperCase() + plain.slice(1) : ''),
    who: who ?? 'me',
    ...{ due: item?.due ?? null, repeat: item?.repeat ?? null, project, priority },
  };
}
