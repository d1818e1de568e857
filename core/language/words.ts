import { stemmer } from 'stemmer';

/** Function words that carry no topic. Common practice, no source: the closed word classes of English plus spoken fillers. */
const STOPWORDS = new Set(
  `a about above actually after again against all almost along already also although always am among an and another any
  anybody anyone anything are aren't around as ask at away back be because been before behind being below best better
  between both but by came can can't cannot come could couldn't did didn't do does doesn't doing don't done down each
  either else enough er erm even ever every everyone everything few first for from get gets getting give go goes going
  gone good got had hadn't has hasn't have haven't having he he'd he'll he's her here here's hers herself him himself his
  how how's however i i'd i'll i'm i've if in indeed instead into is isn't it it'd it'll it's its itself just keep kind
  know last least less let let's like little long look lot made make many may maybe me mean might mine more most much
  must my myself need needs never next no nobody none nor not nothing now of off often oh ok okay on once one one's only
  or other others ought our ours ourselves out over own perhaps please probably put quite rather really right said same
  say says see seem seems several shall she she'd she'll she's should shouldn't since so some somebody someone something
  sometimes soon still such sure take tell than thank thanks that that's the their theirs them themselves then there
  there's these they they'd they'll they're they've thing things think this those though three through till to today
  together tomorrow tonight too took two uh um under until up upon us use used very want wants was wasn't way we we'd
  we'll we're we've well went were weren't what what's whatever when when's where where's whether which while who who's
  whole whom whose why will with within without won't would wouldn't yeah yes yesterday yet you you'd you'll you're
  you've your yours yourself minutes minute hour hours day days week weeks month months year years morning evening
  afternoon noon monday tuesday wednesday thursday friday saturday sunday`.split(/\s+/),
);

export const isStopword = (word: string): boolean => STOPWORDS.has(word) || /^\d+$/.test(word) || word.length < 2;

const stems = new Map<string, string>();

/** Stem of a lower-case word (Porter 1980), remembered. */
export function stem(word: string): string {
  let found = stems.get(word);
  if (found === undefined) {
    found = stemmer(word.replace(/'s$/, ''));
    if (stems.size > 50_000) stems.clear();
    stems.set(word, found);
  }
  return found;
}

/** The text with a capital in front. */
export const upperFirst = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A text without any of these signs at its end. */
export function withoutEnd(text: string, signs = ',;:.?! '): string {
  let end = text.length;
  while (end > 0 && signs.includes(text[end - 1]!)) end--;
  return text.slice(0, end);
}

/** Lower-case words of a text, apostrophes kept inside. */
export const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .replace(/[’`]/g, "'")
    .match(/[\p{L}\p{N}]+(?:'[\p{L}]+)?/gu) ?? [];

/** Stems of the words that carry a topic. */
export const topicStems = (text: string): string[] =>
  wordsOf(text)
    .filter((w) => !isStopword(w))
    .map(stem);
