import { alike, wordingStems } from '../../language/alike';
import { transitionsOf } from '../groups';
import { type Choice, type Example, type Linear, type Training, trainLinear, trainRanker } from '../linear';
import { type Prepared, prepareTalk } from '../prepare';
import type { TodoModel } from '../todoJudge';
import { type Stretch, wordFeatures } from '../wordFeatures';
import { choicesIn } from '../wordingJudge';
import { type TodoLabels, todoLabels } from './labels';
import { type LabelledTodo, type TalkItem, handOf, sentencesOfItem } from './talk';

/** An item ready to be learned from or tested on. */
export type Lesson = { item: TalkItem; hand: string; talk: Prepared; labels: TodoLabels; weight?: number };

export const contextOf = ({ at, people, todos = [] }: TalkItem) => ({
  at,
  ownName: people?.find((p) => p.isMe)?.name ?? null,
  projects: [...new Set(todos.flatMap((t) => t.project ?? []))].map((name) => ({ name })),
});

export function lessonOf(item: TalkItem): Lesson {
  const kind = item.kind === 'letter' ? 'memo' : item.kind;
  const talk = prepareTalk(sentencesOfItem(item), contextOf(item), kind);
  return { item, hand: handOf(item), talk, labels: todoLabels(talk.reading, item) };
}

/** The stretch of a labelled to-do: all units that its quote touches; null where it has none. */
export function labelledStretch({ talk, labels }: Lesson, todo: number): Stretch | null {
  const span = labels.spans[todo];
  const head = labels.headOf[todo]!;
  if (!span || head < 0) return null;
  let [from, to] = [head, head + 1];
  talk.reading.units.forEach((u, i) => {
    if (Math.min(span[1], u.to) - Math.max(span[0], u.from) <= 0) return;
    from = Math.min(from, i);
    to = Math.max(to, i + 1);
  });
  return { from, to, head };
}

type Worded = { lesson: Lesson; stretch: Stretch; todo: LabelledTodo };
const wordedIn = (lessons: readonly Lesson[]): Worded[] =>
  lessons.flatMap((lesson) =>
    (lesson.item.todos ?? []).flatMap((todo, k) => {
      const stretch = labelledStretch(lesson, k);
      return stretch ? [{ lesson, stretch, todo }] : [];
    }),
  );

const WORDS: Training = { bits: 16, epochs: 12, rate: 0.06, l2: 1e-3, minCount: 2 };

const learnWords = (worded: readonly Worded[]): Linear =>
  trainLinear(
    worded.flatMap(({ lesson, stretch, todo }) => {
      const wanted = new Set(wordingStems(todo.text));
      const { tokens } = lesson.talk.reading;
      return [...wordFeatures(lesson.talk, stretch)].flatMap(([k, features]): Example[] => {
        const own = wordingStems(tokens[k]!.bare);
        return own.length
          ? [{ features, label: own.some((s) => wanted.has(s)) ? 1 : 0, weight: lesson.weight ?? 1 }]
          : [];
      });
    }),
    2,
    WORDS,
  );

/** Wordings to choose from, each weighed by words that were learned on other hands. */
function gradedChoices(lessons: readonly Lesson[]): Choice[] {
  const hands = [...new Set(lessons.map((l) => l.hand))];
  return hands.flatMap((hand) => {
    const others = lessons.filter((l) => l.hand !== hand);
    const words = learnWords(wordedIn(others.length ? others : lessons));
    return wordedIn(lessons.filter((l) => l.hand === hand)).map(({ lesson, stretch, todo }): Choice => {
      const all = choicesIn(lesson.talk, stretch, words);
      return {
        features: all.map((c) => c.features),
        expected: all.map((c) => c.candidate.likeness),
        worth: all.map((c) => alike(c.candidate.text, todo.text)),
        weight: lesson.weight ?? 1,
      };
    });
  });
}

/**
 * Learns to find and word to-dos. The wordings are weighed by words that were learned on other hands, for what one has
 * learned by heart says nothing of strangers.
 */
export function learnTodos(lessons: readonly Lesson[]): TodoModel {
  const examples = (part: 'heads' | 'chunks'): Example[] =>
    lessons.flatMap(({ talk, labels, weight = 1 }) =>
      talk.features.map((features, i) => ({ features, label: labels[part][i]!, weight })),
    );
  const graded = gradedChoices(lessons);
  return {
    heads: trainLinear(examples('heads'), 3),
    chunks: trainLinear(examples('chunks'), 3),
    transitions: transitionsOf(lessons.map((l) => l.labels.chunks)),
    words: learnWords(wordedIn(lessons)),
    ranker: trainRanker(graded),
  };
}
