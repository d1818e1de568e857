import { tidyText } from '../writeup/tidy';
import { briefly, contracted, inCaseOf, writtenOut } from '../writeup/wording';

type Table = readonly (readonly [string, string])[];

/** What one says, and what one writes instead where it has to be formal. Common practice, no source. */
const FORMAL: Table = [
  ['get in touch with', 'contact'],
  ['find out', 'establish'],
  ['thanks a lot', 'thank you very much'],
  ['thanks', 'thank you'],
  ['as soon as possible', 'at your earliest convenience'],
  ['asap', 'at your earliest convenience'],
  ['let me know', 'inform me'],
  ['kids', 'children'],
  ['put off', 'postpone'],
  ['set up', 'arrange'],
  ['go ahead with', 'proceed with'],
  ['look into', 'examine'],
  ['need to', 'have to'],
  ['stuff', 'material'],
  ['gonna', 'going to'],
  ['wanna', 'want to'],
  ['yeah', 'yes'],
  ['nope', 'no'],
];
/** Words that sound stiff among friends, and what one says instead. Common practice, no source. */
const FRIENDLY: Table = [
  ['contact', 'get in touch with'],
  ['postpone', 'put off'],
  ['arrange', 'set up'],
  ['proceed', 'go ahead'],
  ['at your earliest convenience', 'as soon as you can'],
  ['inform', 'tell'],
  ['assist', 'help'],
  ['thank you very much', 'thanks a lot'],
  ['receive', 'get'],
  ['require', 'need'],
  ['regarding', 'about'],
];

function withWords(text: string, table: Table): { text: string; changed: string[] } {
  const changed: string[] = [];
  let result = text;
  for (const [from, to] of table) {
    result = result.replace(new RegExp(`(?<![\\p{L}-])${from}(?![\\p{L}-])`, 'giu'), (found) => {
      changed.push(`“${found.toLowerCase()}” → “${to}”`);
      return inCaseOf(found, to);
    });
  }
  return { text: result, changed };
}

type Counts = [number, number, number];
export type Reworked = { text: string; reasons: string[] };

/** A sentence made shorter: without fillers, doubled beginnings, words that only strengthen, and asides in brackets. */
export function shorter(sentence: string): Reworked {
  const tidy = tidyText(sentence) || sentence;
  const brief = tidyText(briefly(tidy)) || tidy;
  const [whole, tidyCount, briefCount] = [sentence, tidy, brief].map((text) => text.split(/\s+/).length) as Counts;
  const reasons = [
    ...(tidyCount < whole ? ['Fillers and false starts removed.'] : []),
    ...(briefCount < tidyCount ? ['Intensifiers and asides removed.'] : []),
  ];
  if (reasons.length === 0) return { text: sentence, reasons };
  // A heading or a point without a stop gets none.
  return { text: /[.?!…]["'”’)]?$/.test(sentence) ? brief : brief.replace(/\.$/, ''), reasons };
}

export function formal(sentence: string): Reworked {
  const whole = writtenOut(sentence);
  const { text, changed } = withWords(whole, FORMAL);
  const isWrittenOut = whole !== sentence.replace(/’/g, "'");
  return {
    text: isWrittenOut || changed.length ? text : sentence,
    reasons: reasonsOf(isWrittenOut && 'Short forms written out.', changed),
  };
}

export function friendly(sentence: string): Reworked {
  const short = contracted(sentence);
  const { text, changed } = withWords(short, FRIENDLY);
  return { text, reasons: reasonsOf(short !== sentence && 'Short forms, as in conversation.', changed) };
}

const reasonsOf = (first: string | false, changed: readonly string[]): string[] => [
  ...(first ? [first] : []),
  ...new Set(changed),
];
