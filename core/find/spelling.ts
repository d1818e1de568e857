/** Words of the archive, and how often each stands in it. */
export type Vocabulary = { has(word: string): boolean; words(length: number): Iterable<readonly [string, number]> };

const SHORTEST = 4;
const MOST = 4;

/**
 * Whether one slip of the fingers turns one word into the other: a letter too many, too few, another one, or two in the
 * wrong order (Damerau 1964, A Technique for Computer Detection and Correction of Spelling Errors).
 */
export function isOneEditApart(a: string, b: string): boolean {
  if (a === b || Math.abs(a.length - b.length) > 1) return false;
  let start = 0;
  while (start < a.length && a[start] === b[start]) start++;
  let endA = a.length;
  let endB = b.length;
  while (endA > start && endB > start && a[endA - 1] === b[endB - 1]) {
    endA--;
    endB--;
  }
  const [restA, restB] = [a.slice(start, endA), b.slice(start, endB)];
  if (restA.length <= 1 && restB.length <= 1) return true;
  return restA.length === 2 && restB.length === 2 && restA[0] === restB[1] && restA[1] === restB[0];
}

type StemOf = (word: string) => string;

/** The two words that one falls into, where both are known: "database" as "data base". */
export function partsOf(word: string, vocabulary: Vocabulary, stemOf: StemOf): string[][] {
  const parts: string[][] = [];
  for (let at = 2; at <= word.length - 2; at++) {
    const [head, tail] = [word.slice(0, at), word.slice(at)];
    if (vocabulary.has(stemOf(head)) && vocabulary.has(stemOf(tail))) parts.push([head, tail]);
  }
  return parts.slice(0, MOST);
}

/**
 * What a word that nobody has said may have been meant as: words one slip away, most frequent first. Nothing for a word
 * that is there.
 * @param stemOf how the vocabulary shortens its words
 */
export function nearOf(word: string, vocabulary: Vocabulary, stemOf: StemOf): string[][] {
  if (vocabulary.has(stemOf(word)) || word.length < SHORTEST || /\d/.test(word)) return [];
  const stemmed = stemOf(word);
  const near: [string, number][] = [];
  for (let length = stemmed.length - 1; length <= stemmed.length + 1; length++) {
    for (const [known, count] of vocabulary.words(length)) {
      if (isOneEditApart(stemmed, known) || isOneEditApart(word, known)) near.push([known, count]);
    }
  }
  near.sort((a, b) => b[1] - a[1]);
  return near.slice(0, MOST).map(([known]) => [known]);
}
