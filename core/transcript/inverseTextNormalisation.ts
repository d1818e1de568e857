import { NUMERAL_KINDS, type NumeralKind } from '../contract/numeralKinds';
import { date, ordinal } from './numeralRules/dates';
import { digitRow, measure, money, percent } from './numeralRules/measures';
import { plainNumber } from './numeralRules/numbers';
import { time } from './numeralRules/times';
import { type Figure, NOT_SAID, type Rule, type Token, tokenOf } from './numeralRules/tokens';
import type { Word } from './manuscript';

export const ALL_NUMERAL_KINDS: ReadonlySet<NumeralKind> = new Set(NUMERAL_KINDS);

/** A word as people write it; where it is not what was said, `spoken` are the words that were, with their times. */
export type WrittenWord = Word & { spoken?: readonly Word[] };

/**
 * Spoken numbers, times, dates, sums and measures in figures, as people write them. Numbers below ten stay words unless
 * a measure, a sum or a label such as "page" asks for a figure, and so does a number below a hundred that begins a
 * sentence (common practice of style guides; the numbers themselves are checked against the Unicode CLDR spell-out rules).
 *
 * @param words of one passage, in order
 * @returns new words in the same order; those that took the place of others span their times and hold them in `spoken`
 */
export function normaliseWords(
  words: readonly WrittenWord[],
  kinds: ReadonlySet<NumeralKind> = ALL_NUMERAL_KINDS,
): WrittenWord[] {
  if (kinds.size === 0) return [...words];
  const tokens = words.map((w) => (w.isTyped ? NOT_SAID : tokenOf(w.text)));
  const result: WrittenWord[] = [];
  for (let at = 0; at < words.length;) {
    const found = figureAt(tokens, at, kinds);
    if (!found) {
      result.push(words[at]!);
      at++;
      continue;
    }
    const spoken = spokenWords(words.slice(at, found.end));
    const [first, last] = [tokens[at]!, tokens[found.end - 1]!];
    const text = first.before + found.text + last.after;
    if (spoken.length === 1 && spoken[0]!.text === text) result.push(spoken[0]!);
    else {
      result.push({
        ...{ startMs: spoken[0]!.startMs, endMs: spoken.at(-1)!.endMs, text },
        ...{ confidence: Math.min(...spoken.map((w) => w.confidence)), spoken },
      });
    }
    at = found.end;
  }
  return result;
}

/** The words as they were said: the way back from `normaliseWords`, whatever was changed beside the figures. */
export const spokenWords = (words: readonly WrittenWord[]): Word[] => words.flatMap((w) => w.spoken ?? [w]);

/** A line of text in figures. */
export const withNumerals = (text: string, kinds: ReadonlySet<NumeralKind> = ALL_NUMERAL_KINDS): string =>
  normaliseWords(
    text.split(/\s+/u).map((word) => ({ startMs: 0, endMs: 0, text: word, confidence: 1 })),
    kinds,
  )
    .map((w) => w.text)
    .join(' ');
const RULES: readonly [NumeralKind, Rule][] = [
  ['digits', digitRow],
  ['dates', date],
  ['times', time],
  ['money', money],
  ['percent', percent],
  ['units', measure],
  ['ordinals', ordinal],
  ['numbers', plainNumber],
];

function figureAt(tokens: readonly Token[], at: number, kinds: ReadonlySet<NumeralKind>): Figure | null {
  if (!tokens[at]!.word) return null;
  for (const [kind, rule] of RULES) {
    if (!kinds.has(kind)) continue;
    const found = rule(tokens, at, kinds);
    if (found) return found;
  }
  return null;
}
