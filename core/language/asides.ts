/** What a listener says between two phrases is the listener's own note, not the text of the lecture. */
export type AsidePhrases = { opening: string; closing: string };

type TimedWord = { text: string; startMs: number; endMs: number };

export type Aside = {
  /** Indices of its words with the phrases, the end exclusive. */
  from: number;
  to: number;
  startMs: number;
  endMs: number;
  /** What was said between the phrases. */
  text: string;
  /** Whether the closing phrase was heard; else it ended at a pause or with the sound. */
  isClosed: boolean;
};

/** An aside that nobody closes ends at the first pause of this length. */
const ENDING_PAUSE_MS = 5000;
/** The opening phrase stands at a beginning: "on a side note" is none. */
const OPENING_PAUSE_MS = 250;

const lettersOf = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

/** Edit distance (Levenshtein 1966) of two short words. */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      next[j] = Math.min(next[j - 1]! + 1, row[j]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1));
    }
    row = next;
  }
  return row[b.length]!;
}

/** How many words from here say the phrase, as the recogniser may have heard it; 0 when they do not. */
function phraseAt(words: readonly TimedWord[], at: number, phrase: string): number {
  const wanted = lettersOf(phrase);
  const count = phrase.trim().split(/\s+/).length;
  const slips = wanted.length < 6 ? 0 : wanted.length < 8 ? 1 : 2;
  let best = { length: 0, away: slips + 1 };
  for (let length = Math.max(1, count - 1); length <= count + 1 && at + length <= words.length; length++) {
    const heard = lettersOf(
      words
        .slice(at, at + length)
        .map((w) => w.text)
        .join(''),
    );
    if (heard[0] !== wanted[0]) continue;
    const away = distance(heard, wanted);
    if (away < best.away) best = { length, away };
  }
  return best.length;
}

/**
 * Finds the asides in words as they were recognised, live or final.
 * @param words in the order in which they were said
 */
export function findAsides(words: readonly TimedWord[], phrases: AsidePhrases): Aside[] {
  const asides: Aside[] = [];
  if (!lettersOf(phrases.opening)) return asides;
  for (let at = 0; at < words.length; at++) {
    const before = words[at - 1];
    const isBeginning =
      !before || /[.?!,;:]$/.test(before.text) || words[at]!.startMs - before.endMs >= OPENING_PAUSE_MS;
    const opening = isBeginning ? phraseAt(words, at, phrases.opening) : 0;
    if (!opening) continue;
    const aside = asideFrom(words, at, at + opening, phrases.closing);
    asides.push(aside);
    at = aside.to - 1;
  }
  return asides;
}

function asideFrom(words: readonly TimedWord[], from: number, textFrom: number, closing: string): Aside {
  let to = textFrom;
  let textTo = textFrom;
  let isClosed = false;
  for (; to < words.length; to++) {
    const length = lettersOf(closing) ? phraseAt(words, to, closing) : 0;
    if (length) {
      to += length;
      isClosed = true;
      break;
    }
    if (to > textFrom && words[to]!.startMs - words[to - 1]!.endMs >= ENDING_PAUSE_MS) break;
    textTo = to + 1;
  }
  return {
    ...{ from, to, isClosed },
    startMs: words[from]!.startMs,
    endMs: words[Math.max(from, to - 1)]!.endMs,
    text: words
      .slice(textFrom, textTo)
      .map((w) => w.text)
      .join(' ')
      .replace(/^[,;:.\s]+/, ''),
  };
}
