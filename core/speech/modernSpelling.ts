/** A word with its times in milliseconds, a confidence from 0 to 1, and what else it may have been. */
type HeardWord = { text: string; startMs: number; endMs: number; confidence: number; others?: string[] };

/** Words that are written as one today; the recogniser has learnt from old books, too. */
const ONE_WORD = new Map([
  ['some', /^body(['’]s)?$/],
  ['any', /^body(['’]s)?$/],
  ['every', /^body(['’]s)?$/],
  ['to', /^morrow(['’]s)?$/],
]);
/** After these "body" is a word of its own: "some body of water". */
const OF_A_BODY = /^(of|parts?|shops?|language|temperature|heat|weight|fat)$/;
const SMALL_I = /^i(?=$|[^\p{L}])/u;
const OLD_HYPHEN = /^to-(day|night|morrow)/i;

const plain = (text: string): string => text.toLowerCase().replace(/^[^\p{L}]+|(?<![^\p{L}])[^\p{L}]+$/gu, '');

/**
 * Spelling of today for what older books write in two words or with a hyphen: "some body", "to-morrow"; and "I" is large. Two words that
 * become one keep the beginning of the first, the end of the second, and the lower confidence. Common practice, no source.
 */
export function inModernSpelling(words: readonly HeardWord[]): HeardWord[] {
  const made: HeardWord[] = [];
  for (let i = 0; i < words.length; i++) {
    const [word, next, afterwards] = [words[i]!, words[i + 1], words[i + 2]];
    // Punctuation between the two parts them.
    const isOpen = /\p{L}$/u.test(word.text);
    // A name begins large.
    const joins =
      isOpen && next && /^\p{Ll}/u.test(next.text) && ONE_WORD.get(plain(word.text))?.test(plain(next.text));
    if (joins && !(afterwards && /\p{L}$/u.test(next.text) && OF_A_BODY.test(plain(afterwards.text)))) {
      made.push({
        ...{ text: word.text + next.text, startMs: word.startMs, endMs: next.endMs },
        confidence: Math.min(word.confidence, next.confidence),
      });
      i++;
    } else {
      const text = word.text.replace(OLD_HYPHEN, (old) => old.replace('-', '')).replace(SMALL_I, 'I');
      made.push({ ...word, text });
    }
  }
  return made;
}
