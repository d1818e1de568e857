import type { Word } from '../transcript/manuscript';

/** Of fewer words nothing can be said. */
const MIN_WORDS = 20;
/**
 * Mean confidence of words below which it is not English that was heard. Measured with both packs on joined voice prompts of a
 * person each (Debian's asterisk-core-sounds): English .89 to .94 and .77 in much noise; Spanish, French and Italian .20 to .52.
 */
const MIN_MEAN_CONFIDENCE = 0.58;

/** Whether words are as sure as those of English speech: in another language, or over noise alone, the recogniser guesses. */
export function soundsEnglish(words: readonly Pick<Word, 'confidence'>[]): boolean {
  if (words.length < MIN_WORDS) return true;
  return words.reduce((sum, w) => sum + w.confidence, 0) / words.length >= MIN_MEAN_CONFIDENCE;
}
