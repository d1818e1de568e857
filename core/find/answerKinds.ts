import { quantitiesIn } from './quantities';
import { stem, wordsOf } from '../language/words';
import type { Question } from './question';

/** What a sentence has to have in it to answer a kind of question. Turns of phrase: common practice, no source. */
const CLOCK_OR_DAY =
  /\b(?:(?:mon|tues|wednes|thurs|fri|satur|sun)day|january|february|march|april|june|july|august|september|october|november|december|o'clock|noon|midnight|half past|quarter (?:past|to)|tomorrow|tonight|today|this (?:week|afternoon|evening|morning)|next (?:week|month|year)|(?:at|before|by|until|from) (?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|\d{1,2})\b|in (?:two|three|four|\w+) (?:days|weeks|months)|(?:the|by the) \w+(?:th|first|second|third)\b|\d{1,2}[:.]\d{2}|end of the (?:week|month|year))/i;
const PLACE =
  /\b(?:at|in|on|by|near|under|behind|beside|between|along|above|below|into|next to|closer to)\s+(?:the|a|an|our|my|his|her|this|that|\p{Lu})/u;
const REASON =
  /\b(?:because|since|so that|due to|that is why|which means|therefore|otherwise|in order to|means|better|so)\b/i;
const ACTS =
  /\b(?:i|we|he|she|they|somebody|the \w+) (?:will|can|could|should|have to|has to|would|'ll)\b|\bi'll\b|\bpaid (?:for )?by\b/i;
const OWN_PROMISE = /\b(?:i(?:'ll| will| shall| promised?| can|'m going to| am going to| agreed)|let me)\b/i;
const ADVICE = /\b(?:should|must|have to|need to|remedy|answer|cover|take|use|choose|press|pour|put|you)\b/i;

const COUNTED = /\bhow (?:many|much) (?:\p{L}+ )??(\p{L}+)/iu;
const DECIDES = /\b(?:decide|decided|choose|chose|chosen|agree|agreed|pick|picked|settle|settled|decision)\b/i;
const DECIDED = /\b(?:decided|agreed?|chose|chosen|settled|take|will be|goes? into|in the end)\b/i;

/** Units of what an adjective asks for: "how deep" wants metres. */
const UNITS: Record<string, RegExp> = {
  length: /\b(?:(?:centi|milli|kilo)?met(?:re|er)s?|(?:c|m|k)m|inch(?:es)?|feet|foot|miles?|yards?)\b/i,
  duration: /\b(?:seconds?|minutes?|hours?|days?|weeks?|months?|years?)\b/i,
  warmth: /\b(?:degrees?|celsius|°)/i,
  speed: /\b(?:an|per|a) (?:second|minute|hour|day)\b|\bper\b/i,
  weight: /\b(?:kilos?|kilograms?|kg|grams?|tons?|tonnes?|pounds?)\b/i,
  money: /\b(?:pounds?|euros?|dollars?|cents?|thousand|hundred|million)\b|[£€$]/i,
};
const ASKS_FOR: [RegExp, keyof typeof UNITS][] = [
  [
    /\bhow (?:deep|high|tall|long (?:is|are)|far|wide|thick|big|large|close)\b|\b(?:depth|height|width|distance)\b/i,
    'length',
  ],
  [/\bhow (?:long|old|often|late)\b/i, 'duration'],
  [/\bhow (?:hot|cold|warm)\b|\btemperature\b/i, 'warmth'],
  [/\bhow fast\b|\brate\b|\bspeed\b/i, 'speed'],
  [/\bhow heavy\b/i, 'weight'],
  [/\bhow expensive\b|\b(?:price|costs?|pay)\b/i, 'money'],
];

/** How well a sentence has in it what a question wants, from -0.5 to 1. */
export function kindFit(
  question: Question,
  { text, speaker, before, after }: { text: string; speaker: string | null; before: string; after: string },
): number {
  switch (question.kind) {
    case 'when':
      return CLOCK_OR_DAY.test(text) ? 1 : 0;
    case 'count': {
      const quantities = quantitiesIn(text);
      const unit = ASKS_FOR.find(([pattern]) => pattern.test(question.asked))?.[1];
      if (quantities.length === 0) return -0.5;
      if (unit !== undefined) return UNITS[unit]!.test(text) ? 1 : 0.2;
      const counted = COUNTED.exec(question.asked)?.[1];
      const isSame = (word: string | undefined) => stem(word?.toLowerCase() ?? '') === stem(counted!.toLowerCase());
      const isCounted =
        !counted || quantities.some((q) => wordsOf(q).some(isSame)) || isSame(COUNTED.exec(before)?.[1]);
      return isCounted ? 1 : 0.5;
    }
    case 'where':
      return PLACE.test(text) ? 0.6 : 0;
    case 'why':
      return REASON.test(text) ? 0.8 : REASON.test(after) ? 0.4 : 0;
    case 'how':
      return ADVICE.test(text) ? 0.4 : 0;
    case 'who':
      return ACTS.test(text) ? 0.8 : /\p{Ll},? \p{Lu}\p{Ll}/u.test(text) ? 0.5 : 0;
    case 'meaning':
      return question.terms.some((t) => isDefined(t.word, text)) ? 1 : 0;
    case 'promise':
      return isOwnPromise(text, speaker) ? 1 : 0;
    default:
      return DECIDES.test(question.asked) && DECIDED.test(text) ? 1 : 0;
  }
}

export const isOwnPromise = (text: string, speaker: string | null): boolean =>
  OWN_PROMISE.test(text) && (speaker === 'me' || speaker === null);

const isDefined = (word: string, text: string): boolean =>
  new RegExp(
    `^(?:the |an? )?[\\p{L} ]{0,20}\\b${word}\\b[\\p{L} ]{0,20} (?:is|are|means)\\b|\\bcalled? (?:it |this |that |the |them |this point )*[\\p{L} ]{0,20}\\b${word}`,
    'iu',
  ).test(text);
