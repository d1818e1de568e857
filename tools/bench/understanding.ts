/**
 * How well strangers' talk is understood: learned on two hands of data/talk, tested on the third, in turn. Prints a
 * Markdown table, then the older working sets.
 */
import fs from 'node:fs';
import path from 'node:path';
import { readTodoExamples, OWN_NAME, PROJECTS, SAID_AT } from '../../core/language/evaluation/todoExamples';
import { precisionRecall, todoMetrics } from '../../core/language/evaluation/todoMetrics';
import { TODO_MEMOS_DEV_SET } from '../../core/language/evaluation/todoMemosDevSet';
import { TODO_MEMOS_TEST_SET } from '../../core/language/evaluation/todoMemosTestSet';
import { findTodos } from '../../core/language/todos/findTodos';
import { composeLetter, letterText } from '../../core/understanding/letter';
import { quoteSpan } from '../../core/understanding/learning/labels';
import { isSamePerson, learnAll } from '../../core/understanding/learning/learn';
import { type Lesson, contextOf, lessonOf } from '../../core/understanding/learning/learnTodos';
import { type Scored, pairUp } from '../../core/understanding/learning/score';
import { type TalkItem, readTalkFile, sentencesOfItem } from '../../core/understanding/learning/talk';
import { workingSetLessons } from '../../core/understanding/learning/workingSet';
import { type UnderstandingModel, packModel, unpackModel } from '../../core/understanding/model';
import { type Understanding, understand } from '../../core/understanding/understand';
import { decisionsIn, openQuestionsIn } from '../../core/writeup/findings';

const root = path.resolve(__dirname, '..', '..');
const items = ['A', 'B', 'C', 'D', 'E'].flatMap((hand) =>
  readTalkFile(fs.readFileSync(path.join(root, 'data', 'talk', `${hand}.jsonl`), 'utf8')),
);
const lessons = items.filter((i) => i.kind !== 'letter').map(lessonOf);
const working = workingSetLessons(readTodoExamples(TODO_MEMOS_DEV_SET));

/** Where F1 counts a find: quotes touch, wordings are alike enough, one to one. */
const WORDED = 0.5;
const USABLE = 0.75;
const MAX_WORDS = 14;

// Before anything is learned: what learning leaves in memory would be swept up in this time.
const model: UnderstandingModel = unpackModel(
  new Uint8Array(fs.readFileSync(path.join(root, 'data', 'understanding', 'weights.bin'))),
);
const memos = lessons.filter((l) => l.item.kind === 'memo');
const times: number[] = [];
for (let round = 0; round < 2; round++)
  for (const { item } of memos.slice(0, 60)) {
    const before = process.cpuUsage();
    understand(sentencesOfItem(item), contextOf(item), model);
    const { user, system } = process.cpuUsage(before);
    if (round) times.push(((user + system) / 1000 / (item.text ?? '').split(/\s+/).length) * 250);
  }
times.sort((a, b) => a - b);

type Tested = { lesson: Lesson; found: Understanding };
const tested: Tested[] = [];
for (const hand of ['A', 'B', 'C']) {
  // As it ships: a byte for each weight.
  const model = unpackModel(packModel(learnAll([...lessons.filter((l) => l.hand !== hand), ...working])));
  for (const lesson of lessons) {
    if (lesson.hand !== hand) continue;
    tested.push({ lesson, found: understand(sentencesOfItem(lesson.item), contextOf(lesson.item), model) });
  }
}

type Counts = { wanted: number; found: number; right: number };
const none = (): Counts => ({ wanted: 0, found: 0, right: 0 });
const add = (sum: Counts, wanted: readonly Scored[], found: readonly Scored[], least: number): void => {
  sum.wanted += wanted.length;
  sum.found += found.length;
  sum.right += pairUp(wanted, found, least).length;
};
const shown = (counts: Counts): string => {
  const { precision, recall, f1 } = precisionRecall(counts);
  return `P ${precision.toFixed(2)}, R ${recall.toFixed(2)}, F1 ${f1.toFixed(2)}`;
};
const line = (name: string, value: string): void => console.log(`| ${name} | ${value} |`);
const share = (part: number, all: number): string => (all ? (part / all).toFixed(2) : '-');

/** To-dos that were wanted, with the place of their quotes. */
const wantedOf = ({ item, labels }: Lesson) =>
  (item.todos ?? []).map((t, k) => ({ ...t, span: labels.spans[k] ?? null }));

console.log('\n## Talk of strangers\n');
console.log('Learned on two hands, tested on the third, in turn; 355 items. What was rules only stands beside it.\n');
console.log('| figure | measured |\n|---|---|');
for (const kind of ['memo', 'dialogue', 'talk'] as const) {
  const own = tested.filter(({ lesson }) => lesson.item.kind === kind);
  const [touched, worded, ruled] = [none(), none(), none()];
  const more = { usable: 0, pairs: 0, who: 0, days: 0, day: 0 };
  for (const { lesson, found } of own) {
    const wanted = wantedOf(lesson);
    const todos = found.todos.map((t) => ({ ...t, span: [t.place.from, t.place.to] as [number, number] }));
    add(touched, wanted, todos, 0);
    add(worded, wanted, todos, WORDED);
    const { units } = lesson.talk.reading;
    add(
      ruled,
      wanted,
      lesson.talk.rules.map((r) => ({
        text: r.text,
        span: r.unit < 0 ? null : ([units[r.unit]!.from, units[r.unit]!.to] as [number, number]),
      })),
      WORDED,
    );
    for (const pair of pairUp(wanted, todos, 0)) {
      more.pairs++;
      if (pair.likeness >= USABLE && pair.found.text.split(' ').length <= MAX_WORDS) more.usable++;
      const { ownName } = contextOf(lesson.item);
      if (isSamePerson(kind === 'dialogue' && pair.found.who === 'me' ? ownName : pair.found.who, pair.wanted.who))
        more.who++;
      if (!pair.wanted.due) continue;
      more.days++;
      if (pair.found.due === pair.wanted.due) more.day++;
    }
  }
  line(`To-dos, ${kind}s: there at all (quotes touch)`, shown(touched));
  line(`To-dos, ${kind}s: and worded alike (Dice ≥ .5)`, shown(worded));
  line(`The same by rules alone`, shown(ruled));
  line(`Usable as worded (Dice ≥ .75, at most 14 words), of those wanted`, share(more.usable, touched.wanted));
  line(
    `Who, of those there; day, where one is wanted`,
    `${share(more.who, more.pairs)}; ${share(more.day, more.days)}`,
  );
}
for (const part of ['decisions', 'questions'] as const) {
  const [judged, ruled] = [none(), none()];
  for (const { lesson, found } of tested) {
    const { item, talk } = lesson;
    const labelled = item[part];
    if (item.kind !== 'dialogue' || !labelled) continue;
    const wanted = labelled.map((p) => ({ text: p.text, span: quoteSpan(talk.reading, p.quote) }));
    add(
      judged,
      wanted,
      found[part].map((p) => ({ text: p.text, span: [p.place.from, p.place.to] as [number, number] })),
      0,
    );
    const { sentences, tokens } = talk.reading;
    const rules = (part === 'decisions' ? decisionsIn : openQuestionsIn)(sentences).map((s) => {
      const at = sentences.indexOf(s);
      const first = tokens.findIndex((t) => t.sentence === at);
      return { text: s.text, span: [first, first + s.text.split(/\s+/).length] as [number, number] };
    });
    add(ruled, wanted, rules, 0);
  }
  line(
    `${part === 'decisions' ? 'Decisions' : 'Open questions'} in dialogues (quotes touch); by rules alone`,
    `${shown(judged)}; ${shown(ruled)}`,
  );
}

const wordsIn = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}']+/gu) ?? [];
/** Longest common subsequence (ROUGE-L, Lin 2004). */
function common(a: readonly string[], b: readonly string[]): number {
  const row = new Int32Array(b.length + 1);
  for (const x of a) {
    let diagonal = 0;
    for (let j = 1; j <= b.length; j++) {
      const above = row[j]!;
      row[j] = x === b[j - 1] ? diagonal + 1 : Math.max(above, row[j - 1]!);
      diagonal = above;
    }
  }
  return row[b.length]!;
}
const letters = items.filter(
  (i): i is TalkItem & { spoken: string; letter: string } => i.kind === 'letter' && Boolean(i.spoken && i.letter),
);
let [likeness, asides, left] = [0, 0, 0];
for (const { spoken, letter, asides: said = [] } of letters) {
  const [own, wanted] = [wordsIn(letterText(composeLetter(spoken))), wordsIn(letter)];
  likeness += (2 * common(own, wanted)) / (own.length + wanted.length || 1);
  asides += said.length;
  left += said.filter(
    ({ quote }) => wordsIn(quote).length > 2 && own.join(' ').includes(wordsIn(quote).join(' ')),
  ).length;
}
line(
  `Letters (${letters.length}, a working set: the rules were made with them): ROUGE-L; asides left`,
  `${(likeness / letters.length).toFixed(2)}; ${left} of ${asides}`,
);

line('CPU for a memo of 250 words, warm, median', `${times[times.length >> 1]!.toFixed(0)} ms`);

console.log('\nThe older sets are by the hand that made the rules (the working set was also learned from):\n');
console.log('| set | all | rules alone |\n|---|---|---|');
for (const [name, set] of [
  ['working set', TODO_MEMOS_DEV_SET],
  ['its other half', TODO_MEMOS_TEST_SET],
] as const) {
  const context = { at: SAID_AT, projects: PROJECTS, ownName: OWN_NAME };
  const [all, rules] = [
    todoMetrics(readTodoExamples(set), ({ sentences }) =>
      understand(sentences, context, model).todos.map((t) => ({
        ...t,
        due: t.due && t.dueTime ? `${t.due}T${t.dueTime}` : t.due,
      })),
    ),
    todoMetrics(readTodoExamples(set), ({ sentences }) => findTodos(sentences, context)),
  ].map((m) => shown(m));
  console.log(`| ${name} | ${all} | ${rules} |`);
}
