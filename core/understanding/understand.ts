import { alike, wordingStems } from '../language/alike';
import type { Sentence } from '../language/sentences';
import type { TodoContext } from '../language/todos/findTodos';
import { isCalled } from '../language/todos/people';
import { projectIn } from '../language/todos/projects';
import { type SummarySentence, summarise } from '../language/summary';
import { type Due, dueOf } from './due';
import type { SpokenKind } from '../contract/spokenKinds';
import type { Point, UnderstoodTodo } from './findings';
import { type Matter, matterText, mattersOf, withQuestion } from './matters';
import type { UnderstandingModel } from './model';
import { type Prepared, prepareTalk } from './prepare';
import { titleFor } from './titles';
import { type JudgedTodo, judgeTodos } from './todoJudge';
import { tokenText } from './reading';
import { listenerOf, whoForListener, whoInDialogue, whoInMemo } from './who';
import { tidyWording } from './wordings';

const LETTER_OPENS =
  /\b(?:dear (?:\p{L}+\.? ?){1,4}|(?:a |the |this is a )?(?:letter|e-?mail|memo|message|note) to (?:the |all |our |my )?\p{L}+|to whom it may concern|subject(?: line)?[,:])/iu;
const LETTER_CLOSES =
  /\b(?:yours (?:sincerely|faithfully|truly|ever)|(?:kind|best|warm|warmest|many) (?:regards|wishes)|sincerely|regards|new paragraph|full stop|all the best|with (?:kind|best|warm) (?:regards|wishes))\b/iu;
const LECTURE_WORDS = 600;

/** What a recording is, told by who speaks, how long, and how it opens and closes. */
export function kindOf(sentences: readonly Sentence[]): SpokenKind {
  const speakers = new Set(sentences.flatMap((s) => s.speaker ?? []));
  if (speakers.size > 1) return 'dialogue';
  const text = sentences
    .map((s) => s.text)
    .join(' ')
    .replace(/’/g, "'");
  const words = text.split(/\s+/).length;
  const opening = text.slice(0, 400);
  if (LETTER_OPENS.test(opening) && LETTER_CLOSES.test(text)) return 'letter';
  if (words >= LECTURE_WORDS) return 'lecture';
  const you = (text.match(/\b(?:you|your|you're|you'll)\b/giu) ?? []).length;
  return you >= 3 && /^(?:hi|hello|hey|morning|good (?:morning|afternoon|evening))\b/i.test(opening)
    ? 'message'
    : 'memo';
}

/**
 * What is known of a recording when it is understood. `kind` is what the person says it is, null where that is to be
 * found out; `isOther` says that its one voice is not the person's: "I" is then who speaks, and "you" the person.
 */
export type TalkContext = TodoContext & { kind?: SpokenKind | null; isOther?: boolean };

export type Understanding = {
  kind: SpokenKind;
  prepared: Prepared;
  title: string | null;
  todos: UnderstoodTodo[];
  decisions: Point[];
  questions: Point[];
};

const SAME_TODO = 0.7;

/** Where the rules' wording is taken, their day is too: they know which part of a sentence it belongs to. */
function dueFrom(talk: Prepared, { rule, isRuled, ...stretch }: JudgedTodo): Due {
  const own = isRuled && rule?.due ? null : dueOf(talk, stretch);
  if (own?.due || !rule?.due) return own ?? { due: null, time: null, repeat: null };
  const [due = null, time = null] = rule.due.split('T') as [string, string?];
  return { due, time, repeat: rule.repeat };
}

/** Whether two name one thing to do: nearly the same words, or all words of the one in the other, for the same person. */
function isSameTodo(a: Pick<UnderstoodTodo, 'text' | 'who'>, b: Pick<UnderstoodTodo, 'text' | 'who'>): boolean {
  if (a.who !== b.who && a.who !== null && b.who !== null) return false;
  if (alike(a.text, b.text) >= SAME_TODO) return true;
  const [x, y] = [wordingStems(a.text), wordingStems(b.text)].sort((p, q) => p.length - q.length) as [
    string[],
    string[],
  ];
  return x.length >= 2 && x.every((s) => y.includes(s));
}

/** To-dos of what was said, each action once. */
export function understoodTodos(talk: Prepared, context: TalkContext, model: UnderstandingModel): UnderstoodTodo[] {
  const { tokens, units } = talk.reading;
  const isDialogue = talk.kind === 'dialogue';
  const listener = isDialogue ? null : listenerOf(talk.reading);
  const found: UnderstoodTodo[] = [];
  for (const todo of judgeTodos(talk, model)) {
    const { rule } = todo;
    const { due, time, repeat } = dueFrom(talk, todo);
    const said = isDialogue ? whoInDialogue(talk, todo, rule) : whoInMemo(talk, todo, rule, listener, model.who);
    const who = !isDialogue && context.isOther ? whoForListener(talk, todo, said, listener) : said;
    const place = { from: units[todo.from]!.from, to: units[todo.to - 1]!.to, sentence: units[todo.head]!.sentence };
    const made: UnderstoodTodo = {
      text: todo.text,
      who: who !== null && isCalled(context.ownName ?? '', who) ? 'me' : who,
      ...{ due, dueTime: time, repeat },
      project: rule?.project ?? projectIn(tokenText(tokens, place.from, place.to), context.projects ?? []),
      sure: todo.sure,
      place,
    };
    // Told twice, it is one: what was said later about its day counts.
    const same = found.find((f) => isSameTodo(f, made));
    if (!same) {
      found.push(made);
      continue;
    }
    if (made.due) Object.assign(same, { due: made.due, dueTime: made.dueTime ?? same.dueTime });
    // The fuller wording stays.
    if (wordingStems(made.text).length > wordingStems(same.text).length) same.text = made.text;
  }
  return found;
}

/** A matter in words of its own, with its place. */
function pointOf(talk: Prepared, { from, to, sure }: Matter, text: string): Point {
  const { tokens } = talk.reading;
  const first = tokens.findIndex((t) => t.sentence === from);
  let last = first;
  while (last < tokens.length && tokens[last]!.sentence < to) last++;
  return { text, sure, place: { from: first, to: last, sentence: from } };
}

/** All that is understood of what was said. */
export function understand(
  sentences: readonly Sentence[],
  context: TalkContext,
  model: UnderstandingModel,
): Understanding {
  const kind = context.kind ?? kindOf(sentences);
  const prepared = prepareTalk(
    sentences,
    context,
    kind === 'dialogue' ? 'dialogue' : kind === 'lecture' ? 'talk' : 'memo',
  );
  const all = understoodTodos(prepared, context, model);
  // What a letter asks for is its reader's; only what is said after its closing is meant for somebody here.
  const closing = kind === 'letter' ? sentences.findLastIndex((s) => LETTER_CLOSES.test(s.text)) : -1;
  const todos = all.filter((t) => t.place.sentence > closing);
  const matters = mattersOf(sentences, model);
  const decisions = (matters?.decisions ?? []).map((m) => {
    const text = tidyWording(matterText(sentences, m), context.at, true);
    return pointOf(prepared, m, withQuestion(text, m.asked === null ? null : sentences[m.asked]!.text.trim()));
  });
  return {
    kind,
    prepared,
    title: titleFor(kind, sentences, todos, decisions),
    todos,
    decisions,
    questions: (matters?.questions ?? []).map((m) => pointOf(prepared, m, matterText(sentences, m))),
  };
}

/** A short summary: what was decided first, then the sentences that stand for the whole, in the order they were said. */
export function summaryOf(
  { decisions, prepared }: Pick<Understanding, 'decisions' | 'prepared'>,
  most: number,
): SummarySentence[] {
  const { sentences } = prepared.reading;
  const decided = new Set(decisions.map((d) => d.place.sentence));
  return summarise(sentences, most, (i) => (decided.has(i) ? 1.6 : 1));
}
