import type { PartOfSpeech } from '../contract/meanings';
import nlp from 'compromise';
import { taggedTerms } from './tagged';
import { isStopword, stem, wordsOf } from './words';

/** One of the meanings of a word. */
export type Sense = { partOfSpeech: PartOfSpeech; meaning: string; examples: string[]; synonyms: string[] };

const BY_LETTER: Record<string, PartOfSpeech> = {
  ...{ n: 'noun', v: 'verb', a: 'adjective', s: 'adjective', r: 'adverb' },
};
const HEXADECIMAL = 16;

/**
 * A sense from a line of a data file of WordNet. Format: wndb(5WN), "data.pos": `offset lex_filenum ss_type w_cnt word lex_id
 * [word lex_id …] … | gloss`; examples stand in quotation marks behind the definition.
 */
export function senseFromLine(line: string): Sense {
  const bar = line.indexOf(' | ');
  const [, , letter, count, ...rest] = line.slice(0, bar).split(' ');
  const gloss = line.slice(bar + 3).trim();
  const quote = gloss.indexOf('"');
  const synonyms = Array.from({ length: parseInt(count!, HEXADECIMAL) }, (_, i) => rest[2 * i]!);
  return {
    partOfSpeech: BY_LETTER[letter!]!,
    meaning: (quote < 0 ? gloss : gloss.slice(0, quote)).replace(/[;:\s]{1,10}$/, ''),
    examples: gloss.slice(quote < 0 ? gloss.length : quote).match(/(?<=")[^";][^"]*(?=")/g) ?? [],
    // Adjectives may say where they stand: "galore(ip)".
    synonyms: synonyms.map((word) => word.replace(/\([a-z]+\)$/, '').replace(/_/g, ' ')),
  };
}

/** Words that stand everywhere say nothing about a sense. */
const stemsOf = (text: string): Set<string> =>
  new Set(
    wordsOf(text)
      .filter((word) => !isStopword(word))
      .map(stem),
  );

const TAGS: Record<PartOfSpeech, string> = { noun: 'Noun', verb: 'Verb', adjective: 'Adjective', adverb: 'Adverb' };
/** What a shared word, the part of speech of the sentence, and a place further down are worth. */
const SHARED = 1;
const SAME_PART = 1.5;
const LATER = 0.35;

/**
 * Which sense is meant, by the words around it: the one whose definition and examples share most words with them, the more
 * usual one before the others. Method: simplified Lesk (Kilgarriff and Rosenzweig 2000).
 * @param senses the most usual first
 * @returns its place; 0 where nothing decides
 */
export function senseInContext(word: string, senses: readonly Sense[], context: string): number {
  const around = stemsOf(context);
  around.delete(stem(word.toLowerCase()));
  const term = taggedTerms(context).find((t) => t.text.toLowerCase() === word.toLowerCase());
  const scores = senses.map(({ partOfSpeech, meaning, examples }, place) => {
    const shared = [...stemsOf([meaning, ...examples].join(' '))].filter((stem) => around.has(stem)).length;
    return shared * SHARED + (term?.tags.has(TAGS[partOfSpeech]) ? SAME_PART : 0) - place * LATER;
  });
  return scores.indexOf(Math.max(...scores));
}

/** The endings of inflected words, and what stands in their place: morphy(7WN), "Rules of Detachment". */
const DETACHED: readonly (readonly [string, string])[] = [
  ...([
    ['s', ''],
    ['ses', 's'],
    ['xes', 'x'],
    ['zes', 'z'],
    ['ches', 'ch'],
    ['shes', 'sh'],
    ['men', 'man'],
  ] as const),
  ...([
    ['ies', 'y'],
    ['es', 'e'],
    ['es', ''],
    ['ed', 'e'],
    ['ed', ''],
    ['ing', 'e'],
    ['ing', ''],
  ] as const),
  ...([
    ['er', ''],
    ['est', ''],
    ['er', 'e'],
    ['est', 'e'],
  ] as const),
];

/**
 * Forms under which a word may stand in the dictionary, as it is written first; words that follow no rule by the tagger
 * ("children", "went"). In small letters, with `_` between words.
 */
export function dictionaryForms(text: string): string[] {
  const plain = text.toLowerCase().replace(/’/g, "'").replace(/'s$/, '').trim();
  const forms = new Set([plain]);
  if (/^\p{L}+$/u.test(plain)) {
    const word = nlp(plain);
    forms.add(word.nouns().toSingular().text());
    forms.add(word.verbs().toInfinitive().text());
  }
  for (const [ending, instead] of DETACHED)
    if (plain.endsWith(ending) && plain.length > ending.length + 1) forms.add(plain.slice(0, -ending.length) + instead);
  forms.delete('');
  return [...forms].map((form) => form.replace(/\s+/g, '_'));
}
