import type { TopicMap } from '../contract/templates';
import { type Sentence, sentencesOf } from '../language/sentences';
import { summarise } from '../language/summary';
import { keyPhrases } from '../language/title';
import { topicStems } from '../language/words';
import type { Passage } from '../transcript/manuscript';
import { ownPartsOf, withinParts } from './ownParts';
import { tidyText } from './tidy';

const MAX_POINTS_OF_A_PART = 4;
const MAX_POINTS_WITHOUT_PARTS = 7;
/** A part says as many points as it has this many sentences. */
const SENTENCES_PER_POINT = 6;

const MAX_TERMS = 6;
/** Of so many phrases those are looked for that come back. */
const TERM_CANDIDATES = 30;

type Topics = Pick<TopicMap, 'parts' | 'terms'>;
type Heading = { kind: string; startMs: number; text: string };

/**
 * The topics of a recording: its parts, each with the sentences that stand for it, each with its moment, and the terms
 * that are said in more than one part. A talk without parts has one without a title, and no terms.
 */
export function topicMapOf(passages: readonly Passage[], slips: readonly Heading[]): Topics {
  const sentences = sentencesOf(passages);
  const parts = ownPartsOf(sentences, slips);
  const points = (of: typeof sentences, most: number) =>
    summarise(of, most)
      .map((s) => ({ text: tidyText(s.text), startMs: s.startMs ?? 0 }))
      .filter((p) => p.text !== '');
  if (parts.length === 0) {
    const found = points(sentences, MAX_POINTS_WITHOUT_PARTS);
    return { parts: found.length ? [{ title: null, startMs: found[0]!.startMs, points: found }] : [], terms: [] };
  }
  const within = withinParts(sentences, parts);
  return {
    parts: within.map((of, i) => {
      const most = Math.min(MAX_POINTS_OF_A_PART, Math.max(1, Math.round(of.length / SENTENCES_PER_POINT)));
      return { ...parts[i]!, points: points(of, most) };
    }),
    terms: termsThatComeBack(within),
  };
}

/** Key phrases that are said in at least two parts, those of most parts first. */
function termsThatComeBack(parts: readonly (readonly Sentence[])[]): Topics['terms'] {
  const said = parts.map((part) => part.map((s) => ({ ms: s.startMs ?? 0, stems: new Set(topicStems(s.text)) })));
  const texts = parts.flat().map((s) => s.text);
  return keyPhrases(texts, TERM_CANDIDATES)
    .map((text) => {
      const stems = topicStems(text);
      const moments = said.map((part) => part.filter((s) => stems.every((stem) => s.stems.has(stem))).map((s) => s.ms));
      return { text, saidMs: moments.flat(), partCount: stems.length ? moments.filter((m) => m.length).length : 0 };
    })
    .filter(({ partCount }) => partCount > 1)
    .sort((a, b) => b.partCount - a.partCount)
    .slice(0, MAX_TERMS)
    .map(({ text, saidMs }) => ({ text, saidMs }));
}
