import { numberValue, ordinalValue } from '../../core/language/spokenNumbers';

/** British spellings of the texts that the recogniser writes in the American way, and joined words. */
const ALIKE: Record<string, string> = {
  metre: 'meter',
  metres: 'meters',
  centimetre: 'centimeter',
  centimetres: 'centimeters',
  millimetre: 'millimeter',
  millimetres: 'millimeters',
  cm: 'centimeters',
  mm: 'millimeters',
  harbour: 'harbor',
  tomorrow: 'tomorrow',
};
const JOINED: [string, string, string][] = [
  ['per', 'cent', 'percent'],
  ['some', 'body', 'somebody'],
  ['any', 'body', 'anybody'],
  ['to', 'morrow', 'tomorrow'],
  ['to', 'night', 'tonight'],
  ['green', 'fly', 'greenfly'],
  ['worm', 'hole', 'wormhole'],
];

/**
 * Makes numbers and spelling alike before words are compared: "twenty five" and "25" are the same, so are "metre" and
 * "meter". Common practice in scoring, no source. Used for the text and the result alike.
 */
export function withNumerals(words: readonly string[]): string[] {
  const out: string[] = [];
  for (let i = 0; i < words.length; i++) {
    const [word, next] = [words[i]!, words[i + 1] ?? ''];
    const joined = JOINED.find(([a, b]) => a === word && b === next);
    const tens = numberValue(word);
    const unit = numberValue(next);
    if (joined) {
      out.push(joined[2]);
      i++;
    } else if (tens !== null && tens >= 20 && tens % 10 === 0 && tens < 100 && unit !== null && unit > 0 && unit < 10) {
      out.push(String(tens + unit));
      i++;
    } else out.push(ALIKE[word] ?? String(tens ?? ordinalValue(word) ?? word));
  }
  return out;
}
