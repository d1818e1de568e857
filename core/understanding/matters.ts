import type { Sentence } from '../language/sentences';
import { type Linear, probabilities } from './linear';
import type { UnderstandingModel } from './model';
import { turnFeatures } from './turnFeatures';

/** Sentences `from` up to, not with, `to`, by one speaker, and how sure it is that something is decided or asked there. */
export type Matter = { from: number; to: number; sure: number };

/** Decisions and open questions of a conversation. */
export type Matters = {
  /** `asked`: the sentence without which the decision says nothing ("Fine, two weeks."); null where it stands alone. */
  decisions: (Matter & { asked: number | null })[];
  questions: Matter[];
};

/** From here on a sentence counts; where F1 is best on the hands learned on. */
export const MIN_SURE = { decisions: 0.35, questions: 0.27 } as const;

/** What is decided, or left open, in a conversation. Sentences of one speaker that follow each other are one matter. */
export function mattersIn(sentences: readonly Sentence[], model: Linear, least: number): Matter[] {
  const features = turnFeatures(sentences);
  const found: Matter[] = [];
  features.forEach((names, i) => {
    const sure = probabilities(model, names)[1]!;
    if (sure < least) return;
    const last = found.at(-1);
    if (last && last.to === i && sentences[i]!.speaker === sentences[i - 1]!.speaker) {
      last.to = i + 1;
      last.sure = Math.max(last.sure, sure);
    } else found.push({ from: i, to: i + 1, sure });
  });
  return found;
}

const ASKED_WITHIN = 6;
/** "Skip." decides nothing. */
const MIN_WORDS = 3;
const SHORT_WORDS = 7;

/** The words of a matter, as they were said. */
export const matterText = (sentences: readonly Sentence[], { from, to }: Pick<Matter, 'from' | 'to'>): string =>
  sentences
    .slice(from, to)
    .map((s) => s.text.trim())
    .join(' ');

const wordCount = (text: string): number => text.split(/\s+/).length;

/** A decision with the question that it answers. */
export const withQuestion = (text: string, question: string | null): string =>
  question ? `${text} (asked: ${question})` : text;

/** What was decided and left open between two or more speakers; null where one alone speaks, who agrees with nobody. */
export function mattersOf(
  sentences: readonly Sentence[],
  model: Pick<UnderstandingModel, 'decisions' | 'questions'>,
): Matters | null {
  if (new Set(sentences.flatMap((s) => s.speaker ?? [])).size < 2) return null;
  const found = (part: keyof Matters) =>
    mattersIn(sentences, model[part], MIN_SURE[part]).filter((m) => wordCount(matterText(sentences, m)) >= MIN_WORDS);
  const askedBefore = (at: number): number | null => {
    for (let k = at - 1; k >= Math.max(0, at - ASKED_WITHIN); k--)
      if (/\?["'”’]?$|\bor\b/i.test(sentences[k]!.text)) return k;
    return null;
  };
  return {
    decisions: found('decisions').map((m) => ({
      ...m,
      asked: wordCount(matterText(sentences, m)) < SHORT_WORDS ? askedBefore(m.from) : null,
    })),
    questions: found('questions'),
  };
}
