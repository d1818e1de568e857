import { tidied } from '../writeup/tidy';
import { briefly, contracted, writtenOut } from '../writeup/wording';

/** What one says and what one writes, formal on the right. Common practice, no source. */
const FORMAL: readonly (readonly [string, string])[] = [
  ...([
    ['get in touch with', 'contact'],
    ['find out', 'establish'],
    ['a lot of', 'many'],
    ['lots of', 'many'],
  ] as const),
  ...([
    ['thanks a lot', 'thank you very much'],
    ['thanks', 'thank you'],
    ['sorry about', 'we apologise for'],
  ] as const),
  ...([
    ['as soon as possible', 'at your earliest convenience'],
    ['let me know', 'inform me'],
    ['kids', 'children'],
  ] as const),
  ...([
    ['put off', 'postpone'],
    ['set up', 'arrange'],
    ['go ahead', 'proceed'],
    ['look into', 'examine'],
  ] as const),
  ...([
    ['need to', 'have to'],
    ['okay', 'agreed'],
    ['ok', 'agreed'],
    ['guys', 'colleagues'],
    ['stuff', 'material'],
  ] as const),
  ...([
    ['hi', 'dear'],
    ['bye', 'kind regards'],
    ['asap', 'at your earliest convenience'],
    ['gonna', 'going to'],
  ] as const),
  ...(
    [
      ['wanna', 'want to'],
      ['yeah', 'yes'],
      ['nope', 'no'],
      ['about', 'approximately'],
    ] as const
  ).slice(0, 3),
];
/** The same towards friends, where the formal word sounds stiff. */
const FRIENDLY: readonly (readonly [string, string])[] = [
  ...([
    ['contact', 'get in touch with'],
    ['postpone', 'put off'],
    ['arrange', 'set up'],
    ['proceed', 'go ahead'],
  ] as const),
  ...([
    ['at your earliest convenience', 'as soon as you can'],
    ['inform', 'tell'],
    ['assist', 'help'],
  ] as const),
  ...([
    ['we apologise for', 'sorry about'],
    ['thank you very much', 'thanks a lot'],
    ['children', 'children'],
  ] as const),
  ...([
    ['receive', 'get'],
    ['require', 'need'],
    ['purchase', 'buy'],
    ['regarding', 'about'],
    ['however', 'but'],
  ] as const),
];

function withWords(text: string, table: readonly (readonly [string, string])[]): { text: string; changed: string[] } {
  const changed: string[] = [];
  let result = text;
  for (const [from, to] of table) {
    if (from === to) continue;
    result = result.replace(new RegExp(`(?<![\\p{L}-])${from}(?![\\p{L}-])`, 'giu'), (found) => {
      changed.push(`“${found.toLowerCase()}” → “${to}”`);
      return /^\p{Lu}/u.test(found) ? to.charAt(0).toUpperCase() + to.slice(1) : to;
    });
  }
  return { text: result, changed };
}

export type Reworked = { text: string; reasons: string[] };

/** A sentence made shorter: without fillers, doubled beginnings, words that only strengthen, and asides in brackets. */
export function shorter(sentence: string): Reworked {
  const tidy = tidied(sentence) || sentence;
  const brief = tidied(briefly(tidy)) || tidy;
  const reasons = [
    ...(tidy === sentence ? [] : ['Fillers and what was begun twice are left out.']),
    ...(brief === tidy ? [] : ['Words that only strengthen, and asides, are left out.']),
  ];
  return { text: brief, reasons };
}

export function formal(sentence: string): Reworked {
  const whole = writtenOut(sentence);
  const { text, changed } = withWords(whole, FORMAL);
  const isWrittenOut = whole !== sentence.replace(/’/g, "'");
  return {
    text: isWrittenOut || changed.length ? text : sentence,
    reasons: reasonsOf(isWrittenOut && 'Short forms are written out.', changed),
  };
}

export function friendly(sentence: string): Reworked {
  const short = contracted(sentence);
  const { text, changed } = withWords(short, FRIENDLY);
  return { text, reasons: reasonsOf(short !== sentence && 'Short forms, as one speaks.', changed) };
}

const reasonsOf = (first: string | false, changed: readonly string[]): string[] => [
  ...(first ? [first] : []),
  ...new Set(changed),
];
