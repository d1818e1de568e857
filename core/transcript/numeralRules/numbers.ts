import { ORDINALS, TENS, UNITS } from '../../language/spokenNumbers';
import { SCALES, readAmount, readBelowHundred } from './amounts';
import { isMeasureWord } from './measureWords';
import { months } from './monthNames';
import { type Figure, Reader, type Token, before, beginsSentence } from './tokens';

/** Words after which even a small number is a figure: "page four". Common practice, no source. */
const LABELS = new Set(
  'page pages chapter room number line platform step version section figure table exercise unit lesson lecture part level grade question gate seat bus route extension box item day week class plot bed'.split(
    ' ',
  ),
);
const YEAR_LEADS = new Set([
  'in',
  'since',
  'year',
  'of',
  'from',
  'until',
  'till',
  'by',
  'before',
  'after',
  'to',
  ...months(),
]);
const LINKS = new Set(['to', 'or']);

export function plainNumber(tokens: readonly Token[], at: number): Figure | null {
  const year = readYear(tokens, at);
  if (year) return year;
  const compound =
    /^([a-z]+(?:-[a-z]+)?)-((?:year|month|week|day|hour|minute|metre|meter|mile|page|seat|storey|story|foot)(?:-.+)?)$/.exec(
      tokens[at]!.word,
    );
  if (compound) {
    const value = readAmount(new Reader([{ before: '', core: '', after: '', word: compound[1]! }], 0));
    if (value && value.value > 9) return { end: at + 1, text: `${value.text}-${compound[2]}` };
  }
  const r = new Reader(tokens, at);
  const amount = readAmount(r);
  if (!amount || amount.isLoose || isOrdinalNext(r)) return null;
  const isFigure =
    amount.value > 9 ||
    amount.value < 0 ||
    !Number.isInteger(amount.value) ||
    LABELS.has(before(tokens, at)) ||
    isLinkedToLarge(tokens, at, r);
  if (!isFigure) return null;
  if (beginsSentence(tokens, at) && amount.value < 100 && Number.isInteger(amount.value)) return null;
  return { end: r.at, text: amount.text };
}

/** "Nine to eleven": both or none. */
function isLinkedToLarge(tokens: readonly Token[], at: number, r: Reader): boolean {
  if (LINKS.has(r.word)) {
    const next = new Reader(tokens, r.at + 1);
    const amount = r.ahead(1) ? readAmount(next) : null;
    return amount !== null && amount.value > 9 && !amount.isLoose;
  }
  if (!LINKS.has(before(tokens, at))) return false;
  for (let from = Math.max(0, at - 6); from < at - 1; from++) {
    const earlier = new Reader(tokens, from);
    const amount = readAmount(earlier);
    if (amount && earlier.at === at - 1 && earlier.word !== '') return amount.value > 9 && !amount.isLoose;
  }
  return false;
}

const isOrdinalNext = (r: Reader): boolean => r.word in ORDINALS && r.word !== 'second';

/** "Nineteen eighty-four", "twenty twenty-six", "twenty oh five"; "two thousand and six" where a year is led up to. */
export function readYear(tokens: readonly Token[], at: number): Figure | null {
  const r = new Reader(tokens, at);
  const century = UNITS[r.word] ?? TENS[r.word];
  const isLed = YEAR_LEADS.has(before(tokens, at));
  if (century !== undefined && century >= 11 && century <= 20) {
    r.at++;
    if (isLed && r.take('hundred')) {
      if (!(r.word in UNITS) && !(r.word in TENS) && r.word !== 'and') return { end: r.at, text: `${century}00` };
      return null;
    }
    if (r.word === 'oh') {
      r.at++;
      const unit = UNITS[r.word];
      if (unit !== undefined && unit > 0 && unit < 10) return { end: r.at + 1, text: `${century}0${unit}` };
      return null;
    }
    const rest = readBelowHundred(r);
    const isPair = rest !== null && rest >= 10 && (century === 19 || century === 20 || isLed);
    return isPair && !isMeasureWord(r.word) && !(r.word in SCALES) && r.word !== 'hundred'
      ? { end: r.at, text: `${century}${rest}` }
      : null;
  }
  if (!isLed || !r.take('two', 'thousand')) return null;
  r.take('and');
  const rest = readBelowHundred(r);
  return rest && !isMeasureWord(r.word) && r.word !== 'hundred' && !/s$/.test(r.word)
    ? { end: r.at, text: String(2000 + rest) }
    : null;
}
