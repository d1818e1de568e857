import { soundDistance, soundPlaces, soundsOf } from './soundDistance';

/** A name or term that a person has listed, with spellings of how it sounds. */
export type ListedName = { text: string; soundsLike: readonly string[] };

/** Words `from` to `to` (exclusive) may have been this name; the nearer 0 the likelier. */
export type NameCandidate = { from: number; to: number; text: string; distance: number };

/** What sounds more different is not looked at. */
const MAX_DIFFERENT = 0.5;
/** Where the recogniser is sure of every word, the name has to sound nearly the same. */
const MAX_DIFFERENT_WHEN_SURE = 0.3;
/** A name that nobody listed has to sound the same there. */
export const MAX_DIFFERENT_UNLISTED = 0.12;
const MAX_DIFFERENT_BY_HAND = 0.65;
const SURE = 0.9;
const MIN_SOUNDS = 3;
const MAX_WORDS = 4;

type Prepared = { text: string; sounds: string[]; words: number };
export type PreparedNames = readonly Prepared[];

export const prepareNames = (names: readonly ListedName[]): PreparedNames =>
  names.map(({ text, soundsLike }) => ({
    text,
    sounds: [...new Set([text, ...soundsLike].map(soundsOf))].filter((s) => s.length >= MIN_SOUNDS),
    words: text.split(/\s+/).length,
  }));

/** Spelling without marks around it and without "'s". */
export const bareWord = (text: string): string =>
  text.replace(/^[^\p{L}\p{N}]+|(?<![^\p{L}\p{N}])[^\p{L}\p{N}]+$/gu, '').replace(/['’]s$/, '');

/**
 * Where names may hide in what was recognised, likeliest first; none of them overlaps a place that has it right.
 * @param isListed whether a person has listed the names; of others capitals stay as they are, and sure words need the same sound
 */
export function nameCandidates(
  words: readonly { text: string; confidence: number }[],
  names: PreparedNames,
  isListed = true,
): NameCandidate[] {
  const found: NameCandidate[] = [];
  const bare = words.map((w) => bareWord(w.text));
  const longest = Math.max(MAX_WORDS, ...names.map((n) => n.words + 2));
  for (let from = 0; from < words.length; from++) {
    for (let to = from + 1; to <= Math.min(words.length, from + longest); to++) {
      // A name does not go on over the end of a sentence or clause.
      if (to - 1 > from && /[.?!,;:]$/.test(words[to - 2]!.text)) break;
      const isSure = words.slice(from, to).every((w) => w.confidence >= SURE);
      const most = !isSure ? MAX_DIFFERENT : isListed ? MAX_DIFFERENT_WHEN_SURE : MAX_DIFFERENT_UNLISTED;
      const spelled = bare.slice(from, to).join(' ');
      const said = soundsOf(spelled);
      for (const name of names) {
        if (name.sounds.length === 0 || to - from > Math.max(MAX_WORDS, name.words + 2)) continue;
        if (spelled.toLowerCase() === name.text.toLowerCase()) {
          if (spelled !== name.text && isListed) found.push({ from, to, text: name.text, distance: 0 });
          continue;
        }
        const distance = Math.min(...name.sounds.map((s) => soundDistance(s, said)));
        if (distance <= most) found.push({ from, to, text: name.text, distance });
      }
    }
  }
  const isRight = (at: number) => names.some((n) => n.words === 1 && n.text === bare[at]);
  return found
    .filter((c) => !Array.from({ length: c.to - c.from }, (_, i) => c.from + i).some(isRight))
    .sort((a, b) => a.distance - b.distance);
}

/** Listed names that sound somewhat like a word, most alike first: to choose from by hand. */
export function similarNames(word: string, names: PreparedNames, most = 4): string[] {
  const said = soundsOf(bareWord(word));
  return names
    .map(({ text, sounds }) => ({ text, distance: Math.min(1, ...sounds.map((s) => soundDistance(s, said))) }))
    .filter(({ text, distance }) => distance <= MAX_DIFFERENT_BY_HAND && text !== bareWord(word))
    .sort((a, b) => a.distance - b.distance)
    .slice(0, most)
    .map((n) => n.text);
}

/** Share of a name's sounds that may be wrong where it is looked for across the borders of words. */
const MAX_WRONG = 0.55;
/** Where all words are surer than this, nothing is looked for. */
const DOUBTFUL = 0.95;

/** Names that may be hidden anywhere in a text, with the first word from which it is worth hearing again. */
export function hiddenNames(
  words: readonly { text: string; confidence: number }[],
  names: PreparedNames,
): { names: string[]; from: number } | null {
  const sounds = words.map((w) => soundsOf(bareWord(w.text)));
  const starts: number[] = [];
  let row = '';
  for (const s of sounds) {
    starts.push(row.length);
    row += s;
  }
  const wordAt = (place: number) => starts.findLastIndex((start) => start <= place);
  const found: { text: string; from: number }[] = [];
  for (const name of names) {
    for (const spelled of name.sounds) {
      for (const { from, to } of soundPlaces(spelled, row, MAX_WRONG)) {
        const [first, last] = [wordAt(from), wordAt(to - 1)];
        const here = words.slice(first, last + 1);
        if (here.some((w) => bareWord(w.text) === name.text)) continue;
        if (here.some((w) => w.confidence < DOUBTFUL)) found.push({ text: name.text, from: first });
      }
    }
  }
  if (found.length === 0) return null;
  return { names: [...new Set(found.map((f) => f.text))], from: Math.min(...found.map((f) => f.from)) };
}
