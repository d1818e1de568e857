import type { Sentence } from '../language/sentences';
import { suggestTitles } from '../language/title';
import { topicStems, upperFirst } from '../language/words';
import type { Point, RecordingKind, UnderstoodTodo } from './findings';

const MAX_TITLE = 52;
const MAX_LETTER_TITLE = 62;
const MIN_TITLE_WORDS = 2;
/** A title is made of what is sure. */
const MIN_SURE = 0.6;

/** A title names what the recording is about: the things of its main to-dos or decisions, else its telling phrases. */
export function titleFor(
  kind: RecordingKind,
  sentences: readonly Sentence[],
  todos: readonly UnderstoodTodo[],
  decisions: readonly Point[],
): string | null {
  const letter = kind === 'letter' ? letterTitle(sentences) : null;
  const own = todos
    .filter((t) => t.sure >= MIN_SURE)
    .sort((a, b) => b.sure - a.sure)
    .map((t) => thingOf(t.text))
    .filter((t): t is string => t !== null && t.split(' ').length >= MIN_TITLE_WORDS && t.length <= MAX_TITLE);
  const decided = decisions
    .map((d) => d.text)
    .filter((t) => t.length <= MAX_TITLE && t.split(' ').length > MIN_TITLE_WORDS);
  const pair =
    own[1] && own[0]!.length + own[1].length + 5 <= MAX_TITLE && !sharesWords(own[0]!, own[1])
      ? `${own[0]} and ${lowered(own[1])}`
      : own[0];
  const isGood = (t: string | null | undefined): t is string => Boolean(t) && isTitle(t!);
  if (isGood(letter)) return letter;
  const main = [pair, kind === 'dialogue' ? decided[0] : null].find(isGood);
  if (main && kind !== 'lecture') return main;
  // Phrases take as long to find as all the rest.
  const [announced, ...phrases] = suggestTitles(sentences);
  return [kind === 'lecture' ? announced : null, main, announced, ...phrases].find(isGood) ?? announced ?? null;
}

const lowered = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
const sharesWords = (a: string, b: string): boolean => topicStems(a).some((s) => topicStems(b).includes(s));
/** No word twice, no bare pronoun, nothing cut off. */
const isTitle = (text: string): boolean => {
  const stems = topicStems(text);
  return (
    stems.length > 0 &&
    new Set(stems).size === stems.length &&
    !/\b(?:it|them|that|this|him|her|the|a|an|to|of|for|and|or|with)$/i.test(text)
  );
};
/** What a to-do is about: "Ring the bride's mum about the ribbon" without its verb; null where nothing names it. */
function thingOf(text: string): string | null {
  if (/\b(?:it|them|that|this|him|her|you|me|us|one|there|i|we|he|she|they)\b/i.test(text)) return null;
  const rest =
    /^\p{L}+(?: (?:up|out|in|off|down|back|over))? ((?:(?:the|a|an|my|our|his|her|their|some|two|three|four|more|new) |\p{Lu}).*)$/u.exec(
      text,
    )?.[1];
  const thing = rest?.replace(/^(?:the|a|an|my|our|his|her|their|some) /i, '') ?? text;
  return upperFirst(thing);
}

function letterTitle(sentences: readonly Sentence[]): string | null {
  const text = sentences
    .slice(0, 6)
    .map((s) => s.text)
    .join(' ');
  const form = /\b(letter|e-?mail|memo|note)\b/i.exec(text)?.[1]?.toLowerCase() ?? 'letter';
  const to =
    /\b(?:letter|e-?mail|memo|note) to ((?:the |all |our |my )?[^.,;:]{2,50})/iu
      .exec(text)?.[1]
      ?.split(/ (?:about|regarding) /)[0] ?? /\bdear ([^.,;:]{2,40})/iu.exec(text)?.[1];
  const about = /\b(?:subject(?: line)?|heading|re|regarding|about)[,:]? ([^.,;:]{2,50})/iu.exec(text)?.[1];
  if (!to) return null;
  const plain = `${upperFirst(form)} to ${to.trim()}`;
  const title = about ? `${plain} about ${lowered(about)}` : plain;
  return title.length <= MAX_LETTER_TITLE ? title : plain;
}
