import type { TopicMap } from '../contract/templates';
import { sentencesOf } from '../language/sentences';
import { summarise } from '../language/summary';
import type { Passage } from '../transcript/manuscript';
import { ownPartsOf, withinParts } from './ownParts';
import { tidyText } from './tidy';

const MAX_POINTS_OF_A_PART = 4;
const MAX_POINTS_WITHOUT_PARTS = 7;
/** A part says as many points as it has this many sentences. */
const SENTENCES_PER_POINT = 6;

type Heading = { kind: string; startMs: number; text: string };

/**
 * The topics of a recording as a tree: its parts, each with the sentences that stand for it, each with its moment. A
 * talk without parts has one without a title.
 */
export function topicMapOf(passages: readonly Passage[], slips: readonly Heading[]): TopicMap['parts'] {
  const sentences = sentencesOf(passages);
  const parts = ownPartsOf(sentences, slips);
  const points = (of: typeof sentences, most: number) =>
    summarise(of, most)
      .map((s) => ({ text: tidyText(s.text), startMs: s.startMs ?? 0 }))
      .filter((p) => p.text !== '');
  if (parts.length === 0) {
    const found = points(sentences, MAX_POINTS_WITHOUT_PARTS);
    return found.length ? [{ title: null, startMs: found[0]!.startMs, points: found }] : [];
  }
  return withinParts(sentences, parts).map((within, i) => {
    const most = Math.min(MAX_POINTS_OF_A_PART, Math.max(1, Math.round(within.length / SENTENCES_PER_POINT)));
    return { ...parts[i]!, points: points(within, most) };
  });
}
