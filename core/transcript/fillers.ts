import type { Word } from './manuscript';
import { type WrittenWord, spokenWords } from './inverseTextNormalisation';

/** Sounds of hesitation; common practice of clean transcripts, no source. */
const SOUNDS = new Set(['um', 'umm', 'uh', 'uhm', 'uhh', 'er', 'erm', 'err', 'hm', 'hmm', 'mm', 'mmm', 'ah', 'eh']);
/** Phrases that say nothing when they stand between commas. */
const PHRASES = [
  ['you', 'know'],
  ['i', 'mean'],
  ['sort', 'of'],
  ['kind', 'of'],
  ['like'],
  ['well'],
  ['basically'],
  ['actually'],
];
/** Words that are said twice on purpose or by grammar. */
const MAY_REPEAT = new Set(
  'very really so no yes yeah bye ha had that many much never well far long please there now one two three four five six seven eight nine zero oh'.split(
    ' ',
  ),
);
const MAX_REPEAT = 4;

const keyOf = (word: { text: string }): string => word.text.toLowerCase().replace(/[^\p{L}\p{N}'’-]/gu, '');
const endOf = (word: { text: string }): string => /(?<![^\p{L}\p{N}])[^\p{L}\p{N}]*$/u.exec(word.text)![0];
const endsClause = (word: { text: string } | undefined): boolean => !word || /[,.;:?!…–—]["'”’)]*$/.test(word.text);
const endsSentence = (word: { text: string } | undefined): boolean => !word || /[.?!…]["'”’)]*$/.test(word.text);

/**
 * Which words can be left out when reading: hesitations, phrases between commas that say nothing, and what was begun
 * and said again ("the, the", "I was, I was", "plan- plant"). What a person has typed is never one of them.
 * @returns for each word whether it can be left out
 */
export function fillersIn(words: readonly Word[]): boolean[] {
  const keys = words.map(keyOf);
  const found = words.map((w, i) => !w.isTyped && SOUNDS.has(keys[i]!));
  for (let at = 0; at < words.length; at++) {
    const phrase = PHRASES.find((p) => p.every((word, i) => keys[at + i] === word));
    if (phrase) {
      const end = at + phrase.length;
      const standsAlone = endsClause(words[at - 1]) && /,$/.test(words[end - 1]!.text);
      const isTyped = words.slice(at, end).some((w) => w.isTyped);
      if (standsAlone && !isTyped) found.fill(true, at, end);
    }
    for (let length = MAX_REPEAT; length > 0; length--) {
      if (isRepeated(words, keys, at, length)) {
        found.fill(true, at, at + length);
        break;
      }
    }
    const broken = /^(\p{L}+)[-–—]+$/u.exec(words[at]!.text)?.[1];
    const next = keys[at + 1];
    if (broken && !words[at]!.isTyped && next?.startsWith(broken.toLowerCase())) found[at] = true;
  }
  return found;
}

/** Whether these words are said again at once; of the two the first can go. */
function isRepeated(words: readonly Word[], keys: readonly string[], at: number, length: number): boolean {
  if (at + 2 * length > words.length) return false;
  if (length === 1 && (MAY_REPEAT.has(keys[at]!) || /^\p{N}/u.test(keys[at]!))) return false;
  for (let i = 0; i < length; i++) {
    const [word, key] = [words[at + i]!, keys[at + i]!];
    if (!key || key !== keys[at + length + i] || word.isTyped || endsSentence(word)) return false;
  }
  return true;
}

/**
 * The words without fillers. Those left out stay in `spoken` of the word after them (or before, at the end), so that
 * nothing is lost and the sound keeps its length.
 * @returns the same number of words, or fewer; all of them where nothing else would be left
 */
export function withoutFillers(words: readonly Word[]): WrittenWord[] {
  const isFiller = fillersIn(words);
  if (isFiller.every(Boolean)) return [...words];
  const result: WrittenWord[] = [];
  let left: Word[] = [];
  for (const [i, word] of words.entries()) {
    if (isFiller[i]) {
      left.push(word);
      continue;
    }
    if (left.length === 0) result.push(word);
    else {
      const before = result.at(-1);
      // "We, uh, went": the commas were those of the filler.
      if (before?.text.endsWith(',') && left.at(-1)!.text.endsWith(',')) {
        result[result.length - 1] = { ...before, text: before.text.slice(0, -1), spoken: spokenWords([before]) };
      }
      const begins = endsSentence(result.at(-1));
      result.push({ ...word, text: begins ? capital(word.text) : word.text, spoken: [...left, word] });
      left = [];
    }
  }
  if (left.length > 0) {
    const last = result.pop()!;
    const ending = endOf(words.at(-1)!);
    const text =
      endsSentence(words.at(-1)) && !endsSentence(last)
        ? last.text.replace(/(?<![,;:–—])[,;:–—]*$/, '') + ending
        : last.text;
    result.push({ ...last, text, spoken: [...spokenWords([last]), ...left] });
  }
  return result;
}

const capital = (text: string): string => text.replace(/\p{L}/u, (letter) => letter.toUpperCase());
