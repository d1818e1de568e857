import { topicStems } from '../language/words';
import type { Candidate } from './answer';
import { bm25 } from './bm25';
import type { QuestionTerm } from './question';

/** Sentences on both sides that are weighed with one. */
const AROUND = 1;

/**
 * The recordings that a question is likest about, best first: BM25 over each sentence with its neighbours, the title and
 * the people of its recording; a recording is as good as its best sentence.
 * @param sources the sentences of each recording, in order
 * @returns numbers of the recordings that have anything of the question in them
 */
export function recordingsFor(
  terms: readonly QuestionTerm[],
  sources: readonly (readonly Candidate<unknown>[])[],
): number[] {
  const windows = sources.flatMap((sentences, source) => {
    const stems = sentences.map((s) => topicStems(s.text));
    const about = sentences[0] ? topicStems(`${sentences[0].title} ${sentences[0].people.join(' ')}`) : [];
    return sentences.map((_, i) => ({
      source,
      stems: [...stems.slice(Math.max(0, i - AROUND), i + AROUND + 1).flat(), ...about],
    }));
  });
  const documents = new Map<string, number>();
  for (const { stems } of windows) for (const s of new Set(stems)) documents.set(s, (documents.get(s) ?? 0) + 1);
  const mean = windows.reduce((sum, w) => sum + w.stems.length, 0) / (windows.length || 1);
  const best = new Map<number, number>();
  for (const { source, stems } of windows) {
    const hits = terms.flatMap((t) => {
      const count = stems.filter((s) => s === t.stem).length;
      return count ? [{ count, documents: documents.get(t.stem) ?? 0 }] : [];
    });
    if (!hits.length) continue;
    const score = bm25(hits, stems.length / (mean || 1), windows.length);
    if (score > (best.get(source) ?? 0)) best.set(source, score);
  }
  return [...best].sort((a, b) => b[1] - a[1]).map(([source]) => source);
}
