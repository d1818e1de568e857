import type { Sentence } from '../language/sentences';
import { announcedTitle, keyPhrases } from '../language/title';
import { topicStems, upperFirst } from '../language/words';
import type { SpokenKind } from '../contract/spokenKinds';
import type { Point, UnderstoodTodo } from './findings';

const MAX_TITLE = 52;
const MAX_LETTER_TITLE = 62;
/** A title names up to so many things, of so many that the recording is most about. */
const MAX_THINGS = 3;
const MAX_CANDIDATES = 8;
/** A lone common noun says less than a name or several words; it comes so many places later. */
const LONE_LATER = 3;
/** Alone, these name nothing. Common practice, no source. */
const EMPTY =
  /^(?:times?|days?|weeks?|months?|years?|minutes?|hours?|left|right|pair|couple|bit|lot|stuff|reason|side|end|law|christmas|easter)$/i;

/**
 * A title names what the recording is about: what it announces, else the things that come back most, in what was said and in the
 * to-dos and decisions that were found. Null where nothing was said.
 */
export function titleFor(
  kind: SpokenKind,
  sentences: readonly Sentence[],
  todos: readonly UnderstoodTodo[],
  decisions: readonly Point[],
): string | null {
  const letter = kind === 'letter' ? letterTitle(sentences) : null;
  if (letter) return letter;
  const announced = announcedTitle(sentences);
  if (announced && (kind === 'lecture' || isTitle(announced))) return announced;
  const things = thingsOf(sentences, [...todos, ...decisions]);
  let title = '';
  for (let count = Math.min(MAX_THINGS, things.length); count > 0 && !title; count--) {
    const joined = inARow(things.slice(0, count));
    if (joined.length <= MAX_TITLE) title = joined;
  }
  return title ? upperFirst(title) : (announced ?? null);
}

/** "Gravel path, client and plants" */
const inARow = (things: readonly string[]): string =>
  things.length < 2 ? (things[0] ?? '') : `${things.slice(0, -1).join(', ')} and ${things.at(-1)}`;

/** What is spoken of, best first: names and several words before a lone noun, never who speaks. */
function thingsOf(sentences: readonly Sentence[], points: readonly { text: string }[]): string[] {
  const texts = sentences.map((s) => s.text);
  const speakers = new Set(sentences.flatMap((s) => (s.speaker ? topicStems(s.speaker) : [])));
  const inside = new Set(texts.flatMap((t) => t.match(/(?<=\p{Ll},? )\p{Lu}[\p{L}'’-]+/gu) ?? []));
  return keyPhrases([...texts, ...points.map((p) => p.text)], MAX_CANDIDATES)
    .map((phrase) => phrase.replace(/['’]s?$/u, ''))
    .filter((phrase) => !EMPTY.test(phrase) && topicStems(phrase).some((s) => !speakers.has(s)))
    .map((phrase, at) => {
      const isTelling = phrase.includes(' ') || inside.has(phrase);
      const isName = inside.has(phrase.split(' ')[0]!);
      return { phrase: isName ? phrase : lowered(phrase), rank: isTelling ? at : at + LONE_LATER };
    })
    .sort((a, b) => a.rank - b.rank)
    .map(({ phrase }) => phrase);
}

const lowered = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
/** No word twice, no bare pronoun, nothing cut off. */
const isTitle = (text: string): boolean => {
  const stems = topicStems(text);
  return (
    stems.length > 0 &&
    new Set(stems).size === stems.length &&
    !/^(?:it|this|that|they|he|she|we|you|i)\b/i.test(text) &&
    !/\b(?:it|them|that|this|him|her|the|a|an|to|of|for|and|or|with)$/i.test(text)
  );
};

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
