import { retimeWords } from './edit';
import { spokenWords } from './inverseTextNormalisation';
import type { Passage, Word } from './manuscript';
import { type ReadingRules, wordsToRead } from './reading';

/** Words to look for, and what comes in their place; nothing to leave them out. */
export type Replacing = { find: string; by: string; matchesCase: boolean };

/** A place where they stand, with some words around it, as one reads it. */
export type Occurrence = { startMs: number; before: string; found: string; instead: string; after: string };

const CONTEXT_WORDS = 6;

type Parts = { before: string; key: string; after: string };

/** The letters and digits of a word without the marks around it; "Bram's" is "Bram" with something after it. */
function partsOf(text: string, matchesCase: boolean): Parts {
  const before = /^[^\p{L}\p{N}]*/u.exec(text)![0];
  const rest = text.slice(before.length);
  const after = /(?:['’]s)?(?<![^\p{L}\p{N}])[^\p{L}\p{N}]*$/u.exec(rest)![0];
  const letters = rest.slice(0, rest.length - after.length).replace(/[^\p{L}\p{N}]+/gu, '');
  return { before, key: matchesCase ? letters : letters.toLowerCase(), after };
}

/** Numbers of the words at which what is looked for begins; places do not overlap. */
function placesOf(parts: readonly Parts[], wanted: readonly string[]): number[] {
  const places: number[] = [];
  for (let at = 0; at + wanted.length <= parts.length;) {
    if (wanted.every((key, i) => parts[at + i]!.key === key)) {
      places.push(at);
      at += wanted.length;
    } else at++;
  }
  return places;
}

/** A capital at the beginning stays one, unless the new words were typed with capitals of their own. */
const likeBefore = (by: string, found: string): string =>
  /^\p{Lu}/u.test(found) && by === by.toLowerCase() ? by.charAt(0).toUpperCase() + by.slice(1) : by;

type Place = { from: number; to: number; instead: string };

function found(words: readonly Word[], { find, by, matchesCase }: Replacing): Place[] {
  const parts = words.map((w) => partsOf(w.text, matchesCase));
  const wanted = find
    .split(/\s+/u)
    .map((word) => partsOf(word, matchesCase).key)
    .filter(Boolean);
  if (wanted.length === 0) return [];
  return placesOf(parts, wanted).map((from) => {
    const to = from + wanted.length;
    const middle = words[from]!.text.slice(parts[from]!.before.length);
    const after = parts[to - 1]!.after;
    // Words that are left out take their marks along, but the end of a sentence stays.
    const instead = by ? parts[from]!.before + likeBefore(by, middle) + after : '';
    return { from, to, instead };
  });
}

/** The words in a passage must be read with their hesitations, so that none is lost by a replacement beside it. */
const readFor = (passage: Pick<Passage, 'words'>, { figures }: ReadingRules) =>
  wordsToRead(passage.words, { figures, hidesFillers: false });

const line = (words: readonly { text: string }[]): string => words.map((w) => w.text).join(' ');

/** Where in a passage the words stand, as one reads it. */
export function occurrencesIn(
  passage: Pick<Passage, 'words'>,
  replacing: Replacing,
  rules: ReadingRules,
): Occurrence[] {
  const words = readFor(passage, rules);
  return found(words, replacing).map(({ from, to, instead }) => ({
    startMs: words[from]!.startMs,
    before: line(words.slice(Math.max(0, from - CONTEXT_WORDS), from)),
    found: line(words.slice(from, to)),
    instead,
    after: line(words.slice(to, to + CONTEXT_WORDS)),
  }));
}

/**
 * The passage with the words replaced; all other words keep their times.
 * @param which of the places, counted from 0
 */
export function replacedIn<P extends Passage>(
  passage: P,
  replacing: Replacing,
  rules: ReadingRules,
  which: ReadonlySet<number>,
): P {
  const words = readFor(passage, rules);
  const places = found(words, replacing).filter((_, i) => which.has(i));
  const texts: string[] = [];
  let at = 0;
  for (const { from, to, instead } of places) {
    texts.push(...words.slice(at, from).map((w) => w.text));
    if (instead) texts.push(instead);
    else keepEnd(texts, words[to - 1]!.text);
    at = to;
  }
  texts.push(...words.slice(at).map((w) => w.text));
  return { ...passage, words: spokenWords(retimeWords(words, texts.join(' '), passage)) };
}

/** Where the last word of a sentence is left out, the word before it ends the sentence. */
function keepEnd(texts: string[], left: string): void {
  const end = /[.?!]$/u.exec(left)?.[0];
  const last = texts.at(-1);
  if (end && last && !/[.?!]$/u.test(last)) texts[texts.length - 1] = last.replace(/[,;:]$/u, '') + end;
}
