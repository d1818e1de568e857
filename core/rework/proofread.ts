import type nspell from 'nspell';
import { retext } from 'retext';
import retextContractions from 'retext-contractions';
import retextIndefiniteArticle from 'retext-indefinite-article';
import retextRedundantAcronyms from 'retext-redundant-acronyms';
import retextRepeatedWords from 'retext-repeated-words';
import retextSentenceSpacing from 'retext-sentence-spacing';
import retextSimplify from 'retext-simplify';
import type { Piece } from '../contract/rework';
import { upperFirst } from '../language/words';
import { inCaseOf } from '../writeup/wording';
import { sentencesAt } from './pieces';

type Spelling = Pick<ReturnType<typeof nspell>, 'correct' | 'suggest'>;
type Found = { from: number; to: number; insert: string; reason: string };

const checks = retext()
  .use(retextRepeatedWords)
  .use(retextIndefiniteArticle)
  .use(retextContractions, { straight: true })
  .use(retextRedundantAcronyms)
  .use(retextSentenceSpacing);
/**
 * Phrases of the package that also mean something else ("the address", "the effect"), or that need other words around
 * them when they are replaced ("in addition to", "notify Bram"): what would come of it would be wrong.
 */
const NOT_ALWAYS = [
  ...['accede to', 'accordingly', 'address', 'adversely impact', 'aforementioned', 'aggregate', 'approximate', 'as to'],
  ...['as prescribed by', 'attributable to', 'benefit', 'close proximity', 'combined', 'component', 'comprise'],
  ...['concerning', 'consolidate', 'deem', 'designate', 'desire', 'effect', 'elect', 'employ', 'exhibit', 'forward'],
  ...['function', 'furnish', 'in addition', 'in lieu of', 'in terms of', 'in the event of', 'in view of'],
  ...['incumbent upon', 'interface', 'is applicable to', 'it appears', 'it is essential', 'it is requested'],
  ...['limited number', 'maximum', 'minimum', 'not unlike', 'notify', 'objective', 'observe', 'operate', 'parameters'],
  ...['pass away', 'permit', 'proceed', 'purchase', 'reflect', 'relative to', 'render', 'represents', 'request'],
  ...['satisfy', 'submit', 'subsequent', 'thereof', 'therein', 'took advantage of', 'vice', 'warrant', 'whereas'],
  ...['your office'],
];
const simplifying = retext().use(retextSimplify, { ignore: NOT_ALWAYS });

/** What the package does not have, or not in all its forms. Common practice, no source. */
const PLAINER: readonly (readonly [RegExp, string])[] = [
  [/\bin close proximity to\b/gi, 'near'],
  [/\bin the event that\b/gi, 'if'],
  [/\bdespite the fact that\b/gi, 'although'],
  [/\bat this point in time\b/gi, 'now'],
  [/\bin the vicinity of\b/gi, 'near'],
  [/\butili[sz]ed\b/gi, 'used'],
  [/\butili[sz]es\b/gi, 'uses'],
  [/\butili[sz]ing\b/gi, 'using'],
  [/\bcommenced\b/gi, 'began'],
  [/\bterminated\b/gi, 'ended'],
  [/\bfacilitates\b/gi, 'eases'],
  [/\bpurchased\b/gi, 'bought'],
  [/\bdemonstrated\b/gi, 'showed'],
  [/\battempted\b/gi, 'tried'],
  [/\bobtained\b/gi, 'got'],
];

const PLAINER_REASON = 'A plainer word with the same meaning.';
const REASONS: Record<string, string> = {
  'retext-repeated-words': 'This word is repeated.',
  'retext-indefinite-article': 'Use “a” before a consonant sound and “an” before a vowel sound.',
  'retext-contractions': 'The apostrophe is missing or misplaced.',
  'retext-redundant-acronyms': 'The abbreviation already includes the last word.',
  'retext-sentence-spacing': 'Use one space between sentences.',
  'retext-simplify': PLAINER_REASON,
};

/** What is said of `its` and `it's` and the like in talk; the surest cases only. Common practice, no source. */
const MIXED_UP: readonly [RegExp, string, string][] = [
  [/\b(?:could|should|would|must|might) of\b/gi, ' of| have', '“Could of” should be “could have”.'],
  [/\bits (?=(?:a|an|the|been|not|going|too|very|raining|okay|ok)\b)/gi, "its|it's", '“It’s” is short for “it is”.'],
  [/\bit's (?=(?:own|roots?|leaves|colour|shape|size)\b)/gi, "it's|its", '“Its” shows possession.'],
  [
    /\bweather (?=(?:or not|it|we|he|she|they|you|i|the)\b)/gi,
    'weather|whether',
    '“Whether” introduces a choice; “weather” is rain or sun.',
  ],
  [
    /\b(?:more|less|rather|better|other|bigger|smaller|longer|shorter) then\b/gi,
    ' then| than',
    '“Than” is for comparing.',
  ],
];
const NO_SUCH_WORD = 'This word is misspelled.';
const NO_WORD = /\d|^\p{Lu}{2,}$|[@/_]|^.$/u;
/** Looking for what a word was to be takes time: of very bad text, what is found in so many ms. */
const LOOKING_UP_MS = 2000;
const MAX_WORD = 24;

/** Looks words up in several dictionaries, each word once, and not for longer than a while. */
export class Speller {
  private readonly looked = new Map<string, string | null>();
  private spentMs = 0;

  /**
   * @param known words that are right whatever the dictionaries say: names and terms of the person
   * @param misspellings words that people often write wrongly, in lower case, each with what it was to be
   */
  constructor(
    private readonly spellings: readonly Spelling[],
    private readonly known: ReadonlySet<string>,
    private readonly misspellings: Pick<ReadonlyMap<string, string>, 'get'> = new Map<string, string>(),
  ) {}

  /** What a word was surely to be; null for one that is right, that may be several words, or that is a name or a term. */
  betterThan(word: string): string | null {
    if (this.spellings.length === 0 || word.length > MAX_WORD || this.known.has(word.toLowerCase())) return null;
    const before = this.looked.get(word);
    if (before !== undefined) return before;
    let better: string | null = null;
    if (!this.spellings.some((s) => s.correct(word)) && this.spentMs < LOOKING_UP_MS) {
      const started = Date.now();
      const often = this.misspellings.get(word.toLowerCase());
      better = often ? inCaseOf(word, often) : this.onlyNeighbour(word);
      this.spentMs += Date.now() - started;
    }
    this.looked.set(word, better);
    return better;
  }

  /** The one word of the dictionaries that is a step away; null where there are several or none. */
  private onlyNeighbour(word: string): string | null {
    if (word.length < MIN_LENGTH) return null;
    const near = new Set(this.spellings.flatMap((s) => s.suggest(word)).filter((other) => isOneStepFrom(word, other)));
    return near.size === 1 ? [...near][0]! : null;
  }
}

/** Shorter words have too many neighbours. */
const MIN_LENGTH = 7;

/** Whether one letter more, less or another, or two letters that changed places, lie between two words. */
export function isOneStepFrom(a: string, b: string): boolean {
  const [x, y] = [a.toLowerCase(), b.toLowerCase()];
  if (x === y || Math.abs(x.length - y.length) > 1) return false;
  let from = 0;
  while (from < x.length && x[from] === y[from]) from++;
  const [restX, restY] = [x.slice(from), y.slice(from)];
  return (
    restX.slice(1) === restY.slice(1) ||
    restX === restY.slice(1) ||
    restX.slice(1) === restY ||
    (restX[0] === restY[1] && restX[1] === restY[0] && restX.slice(2) === restY.slice(2))
  );
}

async function messagesOf(text: string, processor: { process: (text: string) => Promise<{ messages: unknown[] }> }) {
  const { messages } = await processor.process(text);
  return messages as {
    source?: string;
    place?: { start?: { offset?: number }; end?: { offset?: number } };
    expected?: string[] | null;
  }[];
}

const asFound = (messages: Awaited<ReturnType<typeof messagesOf>>, text: string): Found[] =>
  messages.flatMap(({ source, place, expected }): Found[] => {
    const [from, to, insert] = [place?.start?.offset, place?.end?.offset, expected?.[0]];
    if (from === undefined || to === undefined || insert === undefined || text.slice(from, to) === insert) return [];
    const isUpper = /^\p{Lu}/u.test(text.slice(from, to)) && source !== 'retext-redundant-acronyms';
    return [
      {
        from,
        to,
        insert: isUpper ? upperFirst(insert) : insert,
        reason: REASONS[source ?? ''] ?? '',
      },
    ];
  });

/**
 * Proposals for one paragraph, each with its reason: spelling, doubled words, a and an, apostrophes, words that sound
 * alike, spaces, capitals at the beginning.
 * Method: retext's checks and Hunspell dictionaries (nspell); a word is right that one of them knows. Of one that is not, only
 * what is surely right is proposed: a misspelling that is known, or the only word that is one step away (Damerau 1964).
 */
export async function proofread(block: number, text: string, speller: Speller): Promise<Piece[]> {
  const found = asFound(await messagesOf(text, checks), text);
  for (const [pattern, change, reason] of MIXED_UP) {
    const [from, to] = change.split('|') as [string, string];
    for (const match of text.matchAll(pattern)) {
      const wrong = match[0].trimEnd();
      const insert = wrong.replace(new RegExp(`${from}$`, 'i'), (w) => inCaseOf(w, to));
      found.push({ from: match.index, to: match.index + wrong.length, insert, reason });
    }
  }
  for (const match of text.matchAll(/[\p{L}][\p{L}'’]*/gu)) {
    const word = match[0].replace(/’/g, "'").replace(/'s?$/, '');
    const isName = /^\p{Lu}/u.test(word) && !isSentenceStart(text, match.index);
    if (NO_WORD.test(word) || isName) continue;
    const insert = speller.betterThan(word);
    if (insert) found.push({ from: match.index, to: match.index + word.length, insert, reason: NO_SUCH_WORD });
  }
  for (const { from, text: sentence } of sentencesAt(text)) {
    if (/^\p{Ll}/u.test(sentence) && (from > 0 || sentence.length > 40) && /[.?!]$/.test(sentence)) {
      found.push({
        from,
        to: from + 1,
        insert: sentence.charAt(0).toUpperCase(),
        reason: 'Start a sentence with a capital letter.',
      });
    }
  }
  return apart(found).map((f) => asPiece(block, text, f));
}

/** Plainer words for those that few people use; the sentence stays as it is. */
export async function plainer(block: number, text: string): Promise<Piece[]> {
  const found = asFound(await messagesOf(text, simplifying), text);
  for (const [pattern, plain] of PLAINER) {
    for (const { 0: wordy, index: from } of text.matchAll(pattern)) {
      found.push({ from, to: from + wordy.length, insert: inCaseOf(wordy, plain), reason: PLAINER_REASON });
    }
  }
  return apart(found).map((f) => asPiece(block, text, f));
}

const isSentenceStart = (text: string, at: number): boolean =>
  /(?:^|[.?!…]["'”’)]*\s+)["'“‘(]*$/.test(text.slice(0, at));

/** Of proposals that overlap, the first stays. */
function apart(found: readonly Found[]): Found[] {
  const kept: Found[] = [];
  for (const f of [...found].sort((a, b) => a.from - b.from || b.to - a.to)) {
    if (f.from >= (kept.at(-1)?.to ?? 0)) kept.push(f);
  }
  return kept;
}

const CONTEXT = 28;

function asPiece(block: number, text: string, { from, to, insert, reason }: Found): Piece {
  const before = text.slice(Math.max(0, text.lastIndexOf(' ', Math.max(0, from - CONTEXT)) + 1), from);
  const end = text.indexOf(' ', to + CONTEXT);
  const after = text.slice(to, end < 0 ? text.length : end);
  return {
    block,
    before: `${before}${text.slice(from, to)}${after}`,
    after: `${before}${insert}${after}`,
    reasons: reason ? [reason] : [],
    edits: [{ from, to, insert }],
  };
}
