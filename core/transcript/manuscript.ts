/** The manuscript of a recording: what was said, in order. Times are integers in milliseconds from its beginning. */
export type Word = {
  startMs: number;
  endMs: number;
  text: string;
  /** 0 (guess) to 1 (sure): smallest probability of the word's tokens. */
  confidence: number;
  /** Typed by a person: it stays exactly so. */
  isTyped?: boolean;
  /** What else the recogniser thought of, likeliest first; only where it was in doubt. */
  others?: string[];
};

/** A stretch of at most about 30 s, cut at a pause or the end of a sentence. */
export type Passage = {
  startMs: number;
  endMs: number;
  speaker: string | null;
  /** False where the passage goes on in the paragraph of the one before. */
  startsParagraph: boolean;
  words: Word[];
};

export const passageText = (passage: { words: readonly { text: string }[] }): string =>
  passage.words.map((w) => w.text).join(' ');

/** Passages in groups that are read as one paragraph. */
export function paragraphsOf<P extends { startsParagraph: boolean; speaker: string | null }>(
  passages: readonly P[],
): P[][] {
  const paragraphs: P[][] = [];
  for (const passage of passages) {
    const current = paragraphs.at(-1);
    if (!current || passage.startsParagraph || current[0]!.speaker !== passage.speaker) paragraphs.push([passage]);
    else current.push(passage);
  }
  return paragraphs;
}

const ABBREVIATIONS = new Set(['mr.', 'mrs.', 'ms.', 'dr.', 'prof.', 'st.', 'no.', 'e.g.', 'i.e.', 'vs.', 'approx.']);

/** Whether a written word ends a sentence, so "Dr." does not. */
export function endsSentence(word: string): boolean {
  return /[.?!…。！？؟।]["'”’)」]*$/u.test(word) && !ABBREVIATIONS.has(word.toLowerCase()) && !/^\p{Lu}\.$/u.test(word);
}
