import type { Passage, Word } from './manuscript';

const middleOf = ({ startMs, endMs }: Word): number => (startMs + endMs) / 2;

/**
 * Puts a new text in the place of an older one, of which some passages were corrected by a person and stay as they are.
 * @param corrected in the order of time
 * @param fresh the new text; its words that fall into a corrected passage, by their middle, are left out
 * @returns all of it in the order of time
 */
export function keepCorrected(
  corrected: readonly Passage[],
  fresh: readonly Passage[],
): { passage: Passage; isCorrected: boolean }[] {
  const kept = corrected.map((passage) => ({ passage, isCorrected: true }));
  const isTaken = (word: Word): boolean =>
    corrected.some((p) => middleOf(word) >= p.startMs && middleOf(word) <= p.endMs);
  const others = fresh.flatMap((passage) =>
    runsOf(passage.words, corrected, isTaken).map((words, i) => ({
      passage: {
        ...passage,
        startsParagraph: passage.startsParagraph && i === 0,
        ...{ startMs: words[0]!.startMs, endMs: words.at(-1)!.endMs, words },
      },
      isCorrected: false,
    })),
  );
  return [...kept, ...others].sort((a, b) => a.passage.startMs - b.passage.startMs);
}

/** Words that follow each other without a corrected passage between them. */
function runsOf(words: readonly Word[], corrected: readonly Passage[], isTaken: (word: Word) => boolean): Word[][] {
  const runs: Word[][] = [];
  let last: Word | null = null;
  for (const word of words) {
    if (isTaken(word)) continue;
    const isCut = last !== null && corrected.some((p) => p.startMs >= middleOf(last!) && p.endMs <= middleOf(word));
    if (last === null || isCut) runs.push([word]);
    else runs.at(-1)!.push(word);
    last = word;
  }
  return runs;
}
