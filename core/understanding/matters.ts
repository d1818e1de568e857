import type { Sentence } from '../language/sentences';
import { type Linear, probabilities } from './linear';
import { turnFeatures } from './turnFeatures';

/** Sentences `from` up to, not with, `to`, by one speaker, and how sure it is that something is decided or asked there. */
export type Matter = { from: number; to: number; sure: number };

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
