import { isActionVerb } from './actionVerbs';

const FILLERS = /\b(?:um+|uh+|erm?|sort of|kind of|basically)\b,?\s*|(?<=^|, )(?:you know|i mean|well),\s*/gi;
/** "I need to, I need to send": what was begun twice is said once. */
const RESTART = /\b((?:\p{L}[\p{L}']* ){1,4}?\p{L}[\p{L}']*), (?=\1\b)/giu;
const NUMBER = '(?:number |point |no\\. ?)?(?:one|two|three|four|five|six|seven|eight|nine|ten|\\d+)';
const OPENINGS = new RegExp(
  '^(?:(?:okay|ok|right|alright|all right|so|well|and|but|then|also|now|oh|yes|yeah|sorry|good|fine|great|sure|no|wait|actually|' +
    'first thing|first(?:ly)?|second(?:ly)?|third(?:ly)?|finally|last(?:ly)?|next(?! (?:week|month|year|time|\\p{L}+day))|after that|before that|one more thing|another thing|by the way|' +
    'please|at work|for next time|for (?:the |my )?[\\w ]{2,24}?(?=,))\\b[,:]?\\s+)',
  'iu',
);
/** "Action point two, ..." */
const POINT = new RegExp(`^(?:action (?:point|item)|number|point|task|step|item|to-do) ${NUMBER}[,:.]?\\s+`, 'i');

/** A spoken sentence without fillers, restarts and what opens it. */
export function clean(text: string): string {
  let rest = text.replace(/’/g, "'").replace(FILLERS, '').replace(RESTART, '').replace(/\s+/g, ' ').trim();
  for (let before = ''; before !== rest;) {
    before = rest;
    rest = rest.replace(OPENINGS, '').trim();
  }
  return rest
    .replace(/(?<![.!…])[.!…]+$/, '')
    .replace(/,\s*please$/i, '')
    .trim();
}

/** What was announced as a numbered point, without its number; null where nothing was. */
export function numberedPoint(text: string): string | null {
  const opened = clean(text);
  const match = POINT.exec(opened);
  return match ? opened.slice(match[0].length) : null;
}

const SUBJECT =
  "(?:i|we|you|he|she|they|it|remind me|please|somebody|someone|let's|don't forget|remember to|make sure|can you|could you|" +
  'the [\\p{Ll} ]{2,30} (?:has|have|needs|must|should|will|is due|are due)|' +
  "(?:\\p{Lu}[\\p{L}'-]+ ){1,2}(?:will|has to|needs to|should|must|is going to|is coming))(?:'ll|'ve|'m|'d)?\\b";
const SUBJECT_FOLLOWS = new RegExp(
  `(?:,? (?:and then|and also|and|but|then|so|plus)|[,;:]|,? -) (?:please )?(?=${SUBJECT})`,
  'giu',
);

/** Keeps "Jun, could you ..." in one clause. */
const ADDRESS_COMMA = '\u0001';

/** The clauses of a sentence that can each ask for something. */
export const clausesOf = (text: string): string[] =>
  clean(text)
    .replace(/^(\p{Lu}[\p{L}'-]+), (?=(?:can|could|would|will) you)/u, `$1${ADDRESS_COMMA} `)
    .replace(/, (?=(?:will|would|could|can) you\?$)/iu, ADDRESS_COMMA)
    .split(SUBJECT_FOLLOWS)
    .map((c) => clean(c.replaceAll(ADDRESS_COMMA, ', ')).replace(/,  /g, ', '))
    .filter(Boolean);

export const firstWord = (text: string): string => /^[\p{L}-]+/u.exec(text)?.[0] ?? '';
export const lowerFirst = (text: string): string =>
  /^(?:The|My|Our|A|An|Your|His|Her|Their)\b/.test(text) ? text.charAt(0).toLowerCase() + text.slice(1) : text;

/** "have her sign the form" is something to do, "have time" is not. */
const isVerbHere = (word: string, after: string): boolean =>
  /^have$/i.test(word)
    ? isActionVerb(/^ (?:her|him|them|\p{Lu}\p{Ll}+|the \p{Ll}+) (\p{Ll}+)/u.exec(after)?.[1] ?? '')
    : isActionVerb(word) && !/^ (?:is|are|was|of|will|has)\b/.test(after);

/** "send the survey, call Bram and order stakes" taken apart where a further verb begins. */
export function splitAtVerbs(action: string): string[] {
  const parts: string[] = [];
  let rest = action;
  for (;;) {
    const joint = /,? (?:and then|and also|and|then|plus)(?: to| please)?,? (?=[\p{L}-]+)|, (?=[\p{L}-]+)/giu;
    let cut: { at: number; next: number } | null = null;
    for (const match of rest.matchAll(joint)) {
      const next = match.index + match[0].length;
      const word = firstWord(rest.slice(next));
      const after = rest.slice(next + word.length);
      if (isVerbHere(word, after)) {
        cut = { at: match.index, next };
        break;
      }
    }
    if (!cut) return [...parts, rest];
    parts.push(rest.slice(0, cut.at));
    rest = rest.slice(cut.next);
  }
}

/** The things of a spoken list: "bread, milk, apples and a light bulb for the hall". */
export const listed = (text: string): string[] =>
  text
    .split(/,\s*(?:and |or )?|(?<!\s)\s+and\s+|;\s*/i)
    .map((item) => item.replace(/(?<![.!])[.!]+$/, '').trim())
    .filter((item) => /\p{L}/u.test(item));
