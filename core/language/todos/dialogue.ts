import { firstWord } from './clauses';

/** Something that was asked and waits for an answer. */
export type Pending = {
  /** What is to be done; null where the question was about nothing in particular. */
  action: string;
  askedBy: string | null;
  /** `who` "Who brings ...?" · `own` "Should I ...?" · `request` a to-do that is found already */
  kind: 'who' | 'own' | 'request';
};

const YES =
  /^(?:yes|yeah|yep|sure|of course|okay|ok|all right|alright|certainly|gladly|with pleasure|no problem|will do|right|i (?:will|can|could)(?: do (?:it|that|this))?\b|i'll do (?:it|that|this)\b|you'll have it)/i;
const NO = /^(?:no\b(?!,? (?:problem|wait))|nope|not me|not (?:this time|necessary)|i can't|i cannot|don't\b)/i;
const DONE =
  /\b(?:i(?:'ve| have)? already (?:done|did|\p{L}+(?:ed|nt))|i did (?:it|that)|i have(?=[.,!]|$)|that's done|it is done|is already (?:done|there))/iu;
const TAKES =
  /^(?:(?:then |so )?(i|the \p{Ll}+|\p{Lu}\p{Ll}+)(?:'ll| will| can| could)) (?:\p{L}+ )?(?:do|take|handle|see to|take care of) (?:it|that|this)\b/iu;
const YOURS = /^(?:can|could|would|will) you (?:please )?(?:do|take|handle|see to) (?:it|that|this)\b/i;

export const isYes = (text: string): boolean => YES.test(text);
export const isNo = (text: string): boolean => NO.test(text);
export const isDoneAlready = (text: string): boolean => DONE.test(text);
export const asksToTakeIt = (text: string): boolean => YOURS.test(text);

/** Who takes what was spoken of: "I'll do it", "the caretaker will do that"; "i" for the speaker. */
export const takerIn = (text: string): string | null => TAKES.exec(text)?.[1]?.replace(/^The /, 'the ') ?? null;

const WHO_DOES =
  /^(?:and |so )?who(?:'ll| will| can| could|'s going to)? (\p{Ll}+?)(?:e?s)? ((?:the|a|an|my|our|some)\b.+)\?$/iu;
const SHOULD = /^(?:and |so )?(?:should|shall|do|must|may) (?:i|we)(?: have to| need to)? (.+)\?$/i;

/** What a question leaves open: "Who brings the gloves?", "Do we have to hand in exercise three?" */
export function openQuestion(text: string, askedBy: string | null, isVerb: (word: string) => boolean): Pending | null {
  const who = WHO_DOES.exec(text);
  if (who) {
    const verb = [who[1]!, `${who[1]}e`].find(isVerb);
    return verb ? { action: `${verb} ${who[2]!}`, askedBy, kind: 'who' } : null;
  }
  const own = SHOULD.exec(text);
  if (own && isVerb(firstWord(own[1]!)) && !/\b(?:anything|something)\b/i.test(own[1]!))
    return { action: own[1]!, askedBy, kind: 'own' };
  return null;
}
