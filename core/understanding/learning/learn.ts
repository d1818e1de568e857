import { type Example, quantised, trainLinear } from '../linear';
import type { UnderstandingModel } from '../model';
import { turnFeatures } from '../turnFeatures';
import { WHO_CLASSES, listenerOf, whoSigns } from '../who';
import { quoteSpan } from './labels';
import { type Lesson, labelledStretch, learnTodos } from './learnTodos';

const withoutArticle = (name: string): string => name.toLowerCase().replace(/^(?:the|my|our) /, '');
/** Whether two names mean one person: articles and capitals apart. */
export const isSamePerson = (a: string | null, b: string | null): boolean =>
  withoutArticle(a ?? '') === withoutArticle(b ?? '');

function whoExamples(lessons: readonly Lesson[]): Example[] {
  return lessons.flatMap((lesson) => {
    if (lesson.item.kind !== 'memo') return [];
    const listener = listenerOf(lesson.talk.reading);
    return (lesson.item.todos ?? []).flatMap(({ who }, k): Example[] => {
      const stretch = labelledStretch(lesson, k);
      if (!stretch) return [];
      const rule = lesson.talk.rules.find((r) => r.unit >= stretch.from && r.unit < stretch.to) ?? null;
      const { features, subject } = whoSigns(lesson.talk, stretch, rule, listener);
      const name =
        who === 'me'
          ? 'me'
          : who === null
            ? 'nobody'
            : isSamePerson(subject?.name ?? null, who)
              ? 'subject'
              : isSamePerson(listener, who)
                ? 'listener'
                : null;
      return name ? [{ features, label: WHO_CLASSES.indexOf(name), weight: lesson.weight ?? 1 }] : [];
    });
  });
}

/** What is said seldom weighs more, else all of it would be nothing. */
const RARE = 3;

function matterExamples(lessons: readonly Lesson[], part: 'decisions' | 'questions'): Example[] {
  return lessons.flatMap(({ item, talk }) => {
    if (item.kind !== 'dialogue' || !item[part]) return [];
    const { sentences, tokens } = talk.reading;
    const labels = sentences.map(() => 0);
    for (const { quote } of item[part] ?? []) {
      const span = quoteSpan(talk.reading, quote);
      if (span) tokens.slice(...span).forEach((t) => (labels[t.sentence] = 1));
    }
    return turnFeatures(sentences).map((features, i) => ({
      features,
      label: labels[i]!,
      weight: labels[i] ? RARE : 1,
    }));
  });
}

/** Learns all of it; two minutes on one core for the whole of data/talk. The same lessons give the same weights. */
export function learnAll(lessons: readonly Lesson[]): UnderstandingModel {
  const todos = learnTodos(lessons);
  const matters = { bits: 15, epochs: 20, rate: 0.1, l2: 4e-3, minCount: 4 };
  return {
    heads: quantised(todos.heads),
    chunks: quantised(todos.chunks),
    transitions: todos.transitions,
    words: quantised(todos.words),
    ranker: quantised(todos.ranker),
    who: quantised(trainLinear(whoExamples(lessons), WHO_CLASSES.length, { bits: 12, epochs: 20, minCount: 2 })),
    decisions: quantised(trainLinear(matterExamples(lessons, 'decisions'), 2, matters)),
    questions: quantised(trainLinear(matterExamples(lessons, 'questions'), 2, matters)),
  };
}
