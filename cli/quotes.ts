import { withoutEnd } from '@immeld/core/language/words';
import { type Reading, tokenText } from '@immeld/core/understanding/reading';
import type { Place } from '@immeld/core/understanding/findings';

/** Finds what was said in the text it was read from, so that a quote is an exact part of the file. */
export function quoter(
  text: string,
  { tokens, sentences }: Reading,
): { place: (place: Place) => string; sentence: (index: number) => string } {
  const words = [...text.matchAll(/\S+/g)].map((m) => ({ word: m[0], start: m.index, end: m.index + m[0].length }));
  // Each word that was read stands in the text in the same order; list signs and names of speakers stand between.
  const at: (number | null)[] = [];
  let next = 0;
  for (const token of tokens) {
    let found = next;
    while (found < words.length && words[found]!.word !== token.text) found++;
    if (found < words.length) {
      at.push(found);
      next = found + 1;
    } else at.push(null);
  }
  const between = (from: number, to: number): string => {
    const [first, last] = [at[from], at[to - 1]];
    if (first === null || first === undefined || last === null || last === undefined)
      return tokenText(tokens, from, to);
    return text.slice(words[first]!.start, words[last]!.end);
  };
  return {
    // A quote stays inside what one person said.
    place: ({ from, to, sentence }) => {
      const speaker = sentences[sentence]?.speaker ?? null;
      let [start, end] = [from, to];
      while (start < end && sentences[tokens[start]!.sentence]!.speaker !== speaker) start++;
      while (end > start && sentences[tokens[end - 1]!.sentence]!.speaker !== speaker) end--;
      return withoutEnd(between(start, end), ',;: \n');
    },
    sentence: (index) => {
      const from = tokens.findIndex((t) => t.sentence === index);
      let to = from;
      while (to < tokens.length && tokens[to]!.sentence === index) to++;
      return from < 0 ? '' : between(from, to);
    },
  };
}
