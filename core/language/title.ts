import nlp from 'compromise';
import type { Sentence } from './sentences';
import { type TaggedTerm, taggedTerms } from './tagged';
import { isStopword, stem, topicStems, wordsOf } from './words';

const MAX_TITLE = 52;

/** Openings that say what comes. Common practice, no source. */
const ANNOUNCEMENTS = [
  /\b(?:this (?:is|memo is|note is)|i(?:'m| am) (?:talking|thinking)|a (?:note|memo|word)|notes?|some thoughts|today's (?:lecture|topic|subject) is|(?:today|tonight|this evening),? we (?:talk|speak|look|turn)|welcome to (?:the |this )?(?:lecture|talk|session|evening))\s*(?:is |are )?(?:about|on|at|to|for)\s+([^.?!;:\s][^.?!;:]*)/i,
  /\b(?:letter|message|call|appointment|meeting|visit|walk)\s+(?:to|with|from|about|along|on)\s+([^.?!,;:\s][^.?!,;:]*)/i,
];

const MAX_TITLES = 6;

/**
 * Titles from what was said, best first: what the speaker announced, then key phrases, then the first sentence.
 * Key phrases are runs of topic words between function words, scored by degree over frequency
 * (Rose and others 2010, Rapid Automatic Keyword Extraction) and by how often they come back.
 * @returns each at most 52 characters, never cut inside a word; none when nothing was said
 */
export function suggestTitles(sentences: readonly Sentence[]): string[] {
  const phrases = keyPhrases(
    sentences.map((s) => s.text),
    5,
  );
  const [first, second] = phrases;
  const together = first && second && first.length + second.length + 5 <= MAX_TITLE ? `${first} and ${second}` : first;
  const titles = [
    announcedTitle(sentences),
    together && tidy(together),
    ...phrases.map(tidy),
    sentences[0] && tidy(sentences[0].text),
  ].filter((t): t is string => Boolean(t));
  const seen = new Set<string>();
  return titles.filter((t) => !seen.has(t.toLowerCase()) && seen.add(t.toLowerCase())).slice(0, MAX_TITLES);
}

/** The best of the titles from what was said; null when nothing was said. */
export const suggestTitle = (sentences: readonly Sentence[]): string | null => suggestTitles(sentences)[0] ?? null;

/** What the first sentences say that comes, as a title; null where they announce nothing. */
export function announcedTitle(sentences: readonly Sentence[]): string | null {
  const opening = sentences
    .slice(0, 4)
    .map((s) => s.text)
    .join(' ');
  const announced = ANNOUNCEMENTS.map((pattern, kind) => {
    const match = pattern.exec(opening);
    return match && (kind === 0 ? match[1]! : match[0]);
  }).find(Boolean);
  if (!announced) return null;
  const short = tidy(
    announced.split(
      /(?<!^)\b(?:for (?:the|my|our)|means|and i|because|which|so that|before|after|today|tonight|this evening|tomorrow)\b/i,
    )[0]!,
  );
  return wordsOf(short).some((w) => !isStopword(w)) ? short : null;
}

/** Ten hours of talk have fewer sentences. */
const MAX_TEXTS = 20_000;
const hasWords = (text: string): boolean => /\p{L}{2}/u.test(text);

/**
 * The most telling phrases of a text, without repetition, best first.
 * @param everywhere how often each stem is in the whole that the texts are a part of: what is said elsewhere tells less
 */
export function keyPhrases(
  texts: readonly string[],
  most: number,
  everywhere: ReadonlyMap<string, number> | null = null,
): string[] {
  const phrases = texts.filter(hasWords).slice(0, MAX_TEXTS).flatMap(phrasesOf);
  const frequency = new Map<string, number>();
  const degree = new Map<string, number>();
  for (const phrase of phrases) {
    for (const word of phrase) {
      const s = stem(word.toLowerCase());
      frequency.set(s, (frequency.get(s) ?? 0) + 1);
      degree.set(s, (degree.get(s) ?? 0) + phrase.length);
    }
  }
  const here = everywhere && stemCounts(texts);
  const seen = new Map<string, { phrase: string[]; count: number; first: number }>();
  phrases.forEach((phrase, position) => {
    const key = phrase.map((w) => stem(w.toLowerCase())).join(' ');
    const entry = seen.get(key);
    if (entry) {
      entry.count++;
      // A capital may be that of a sentence; what is ever written small is no name.
      if (/^\p{Ll}/u.test(phrase[0]!)) entry.phrase = phrase;
    } else seen.set(key, { phrase, count: 1, first: position });
  });
  const scored = [...seen.values()].map(({ phrase, count, first }) => {
    const words = phrase.map((w) => stem(w.toLowerCase()));
    const rake = words.reduce((sum, w) => sum + degree.get(w)! / frequency.get(w)!, 0) / words.length;
    const comesBack = words.reduce((sum, w) => sum + Math.log2(1 + frequency.get(w)!), 0) / words.length;
    const share = (w: string) => (here?.get(w) ?? 1) / Math.max(1, here ? (everywhere?.get(w) ?? 1) : 1);
    const own = words.reduce((sum, w) => sum + Math.min(1, share(w)), 0) / words.length;
    const early = 1 + 0.5 / (1 + first / 8);
    return { phrase, words, score: (1 + Math.log2(count)) * comesBack * Math.sqrt(rake) * early * own };
  });
  scored.sort((a, b) => b.score - a.score);
  const chosen: typeof scored = [];
  for (const candidate of scored) {
    if (chosen.length === most) break;
    if (!chosen.some((c) => c.words.some((w) => candidate.words.includes(w)))) chosen.push(candidate);
  }
  return chosen.map((c) => c.phrase.join(' '));
}

/** How often each stem that carries a topic is in some texts. */
export function stemCounts(texts: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const s of texts.flatMap(topicStems)) counts.set(s, (counts.get(s) ?? 0) + 1);
  return counts;
}

/** Noun phrases of up to three words; function words, times and numbers are left out. */
function phrasesOf(text: string): string[][] {
  return nounRuns(taggedTerms(text))
    .map((phrase) => (phrase.match(/[\p{L}\p{N}]+(?:['’-][\p{L}\p{N}]+)*/gu) ?? []).filter((w) => !isUntelling(w)))
    .filter((run) => run.length > 0 && run.length <= 3 && !isLoneQuality(run));
}

const NO_TOPIC = ['Pronoun', 'Date', 'Time', 'Value', 'Month', 'WeekDay', 'Duration'];

/** An adjective, where there is one, and the nouns after it, as they were said; what names no topic parts them. */
function nounRuns(terms: readonly TaggedTerm[]): string[] {
  const runs: string[] = [];
  let run = '';
  const end = (): void => {
    if (run) runs.push(run);
    run = '';
  };
  for (let from = 0; from < terms.length;) {
    const isNoun = (at: number): boolean => terms[at]?.tags.has('Noun') ?? false;
    const isLed = terms[from]!.tags.has('Adjective') && (!isNoun(from) || isNoun(from + 1));
    const first = isLed ? from + 1 : from;
    let to = first;
    while (isNoun(to)) to++;
    if (to === first) {
      from++;
      continue;
    }
    for (const { tags, pre, text, post } of terms.slice(from, to))
      if (NO_TOPIC.some((tag) => tags.has(tag))) end();
      else run += `${pre}${text}${post}`;
    end();
    from = to;
  }
  return runs;
}

/** An adjective that was taken for a noun where it stood. */
function isLoneQuality([word, ...more]: readonly string[]): boolean {
  if (more.length) return false;
  let is = qualities.get(word!);
  if (is === undefined) {
    const tagged = nlp(word!);
    qualities.set(word!, (is = tagged.has('#Adjective') && !tagged.has('#Noun')));
  }
  return is;
}
const qualities = new Map<string, boolean>();

/** Words that name time, amount or nothing in particular. */
const UNTELLING =
  /^(?:half|past|quarter|o'clock|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|point|part|place|number|kind|question|thing|way|people|name|call|called|hello|goodbye|evening|morning|mother|father|doctor|met(?:re|er)s?|centimet(?:re|er)s?|millimet(?:re|er)s?|per|cent|degrees?|pounds?|euros?)$/i;
const isUntelling = (word: string): boolean =>
  UNTELLING.test(word) || isStopword(word.toLowerCase().replace(/’/g, "'").replace(/'s$/, ''));

function tidy(text: string): string {
  let words = text
    .replace(/(?<![.,;:?!…])[.,;:?!…]+$/g, '')
    .trim()
    .split(/\s+/);
  while (words.length > 1 && /^(?:um|uh|so|well|okay|right|and|the|a|an|my|our)$/i.test(words[0]!))
    words = words.slice(1);
  let title = '';
  for (const word of words) {
    if (title.length + word.length + 1 > MAX_TITLE) break;
    title += (title ? ' ' : '') + word;
  }
  title = title.replace(/(?<![\s,;:])[\s,;:]+(?:and|or|the|a|an|of|to|for|with|in|on|at|by)?$/i, '').replace(/,$/, '');
  return title.charAt(0).toUpperCase() + title.slice(1);
}
