import type { Wording } from '../contract/templates';
import { upperFirst } from '../language/words';

/** A replacement with a capital where what it replaces has one. */
export const inCaseOf = (before: string, after: string): string =>
  /^\p{Lu}/u.test(before) ? upperFirst(after) : after;

/** What is contracted in talk, and written out: the first form for reading, both ways. Common practice, no source. */
const CONTRACTIONS: readonly (readonly [string, string])[] = [
  ...([
    ['cannot', "can't"],
    ['will not', "won't"],
    ['shall not', "shan't"],
  ] as const),
  ...(
    ['is', 'are', 'was', 'were', 'do', 'does', 'did', 'have', 'has', 'had', 'would', 'could', 'should', 'must'] as const
  ).map((verb) => [`${verb} not`, `${verb}n't`] as const),
  ...(['I', 'you', 'we', 'they'] as const).flatMap((who) => [
    [`${who} will`, `${who}'ll`] as const,
    [`${who} have`, `${who}'ve`] as const,
  ]),
  ...(['he', 'she', 'it', 'that', 'there'] as const).flatMap((who) => [
    [`${who} will`, `${who}'ll`] as const,
    [`${who} is`, `${who}'s`] as const,
  ]),
  ...([
    ['I am', "I'm"],
    ['you are', "you're"],
    ['we are', "we're"],
    ['they are', "they're"],
    ['let us', "let's"],
  ] as const),
  ...([
    ['what is', "what's"],
    ['who is', "who's"],
    ['where is', "where's"],
    ['here is', "here's"],
  ] as const),
];

/** Where "'s" stands for "has" beyond doubt. */
const HAS = /\b(he|she|it|that|there|who|what)'s(?= (?:been|got|had|become)\b)/gi;

const swap = (text: string, from: string, to: string, after: string): string =>
  text.replace(new RegExp(`(?<![\\p{L}'])${from}(?![\\p{L}'])${after}`, 'giu'), (found) => inCaseOf(found, to));

/** "It's not there and we can't wait." becomes "It is not there and we cannot wait." */
export const writtenOut = (text: string): string =>
  CONTRACTIONS.reduce(
    (t, [whole, short]) => swap(t, short, whole, ''),
    text.replace(/’/g, "'").replace(HAS, (_, who: string) => `${who} has`),
  );

/** The other way; not before a stop, where English keeps the whole word ("Yes, it is."). */
export const contracted = (text: string): string =>
  CONTRACTIONS.reduce((t, [whole, short]) => swap(t, whole, short, '(?= \\p{L})'), text);

/**
 * Words that strengthen or soften and say nothing else; denied they do ("not just a wall"). Common practice, no source.
 */
const PADDING =
  /(?<=^|[\s(])(?<!(?:\b(?:not|never|no|without|hardly)|n['’]t) )(?:really|very|quite|just|simply|actually|basically|obviously|of course|at the end of the day|as a matter of fact|in fact|needless to say|to be honest|honestly),? (?=\p{L})/giu;
/** What stands between two commas or in brackets, of a few words, without a number in it. */
const INSERTED = /,? ?(?:\([^()\d]{1,60}\)|– [^–\d]{1,60} –)|, (?:which|who) [^,.;?!\d]{1,60},/gu;

const withoutPadding = (text: string): string => upperFirst(text.replace(PADDING, ''));

/** A sentence without what it can do without; numbers, names and negations stay. */
export const briefly = (text: string): string =>
  withoutPadding(text.replace(INSERTED, '').replace(/,(?=,)/g, ''))
    .replace(/(?<!\s)\s+([,.;:?!])/g, '$1')
    .replace(/ {2,}/g, ' ');

/** A sentence in the wording of a template. Only the form of small words changes: what carries meaning stays. */
export function applyWording(text: string, wording: Wording): string {
  if (wording === 'formal') return withoutPadding(writtenOut(text));
  if (wording === 'friendly') return contracted(text);
  if (wording === 'brief') return briefly(text);
  return text;
}
