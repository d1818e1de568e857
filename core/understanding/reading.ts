import { isActionVerb } from '../language/todos/actionVerbs';
import type { Sentence } from '../language/sentences';
import { taggedTerms } from '../language/tagged';

/** A word as it was said. `start` and `end` are places in the text of its sentence; `bare` is lower case without punctuation. */
export type Token = { text: string; bare: string; tag: string; sentence: number; start: number; end: number };

/** A stretch of a sentence that can mean something of its own: tokens `from` up to, not with, `to`. */
export type Unit = {
  from: number;
  to: number;
  sentence: number;
  speaker: string | null;
  isFirst: boolean;
  isLast: boolean;
};

/** What was said, taken apart. */
export type Reading = { sentences: readonly Sentence[]; tokens: readonly Token[]; units: readonly Unit[] };

export const bareOf = (token: string): string =>
  token
    .toLowerCase()
    .replace(/[’`]/g, "'")
    .replace(/^[^\p{L}\p{N}']+/u, '')
    .replace(/(?:(?<=[\p{L}\p{N}'])|^)[^\p{L}\p{N}']+$/u, '');

/** The tags of the part-of-speech tagger that count, the one that says most first. */
const TAGS = (
  'Modal Copula Auxiliary Gerund PastTense Participle Imperative Infinitive PresentTense PhrasalVerb Verb WeekDay Month Date Time ' +
  'Person Place Organization Pronoun Possessive Determiner Preposition Conjunction QuestionWord Negative Value Adverb Adjective ' +
  'Plural Noun Expression'
).split(' ');

/** One tag for each word that spaces divide; `?` where the tagger has none. */
function tagsOf(text: string, starts: readonly number[]): string[] {
  const tags: string[] = starts.map(() => '?');
  let place = 0;
  let at = 0;
  for (const term of taggedTerms(text)) {
    const tag = TAGS.find((t) => term.tags.has(t)) ?? '?';
    if (!term.text) {
      // The second half of "I'll".
      if ((tag === 'Modal' || tag === 'Copula') && !tags[at]!.includes('+')) tags[at] += `+${tag}`;
      continue;
    }
    const start = place + term.pre.length;
    while (at + 1 < starts.length && starts[at + 1]! <= start) at++;
    if (tags[at] === '?') tags[at] = tag;
    place = start + term.text.length + term.post.length;
  }
  return tags;
}

const JOINS = new Set('and but so then plus or only though'.split(' '));
const SUBORDINATES = new Set("because cos 'cause cause which if unless although otherwise whereas".split(' '));
const STARTS = new Set(
  (
    "i we you he she they it there that this these those who what when where how let's lets please don't dont maybe perhaps " +
    "somebody someone everybody nobody i'll i'm i've i'd we'll we're we've we'd you'll you're you've you'd he'll he's he'd " +
    "she'll she's she'd they'll they're they've they'd it's it'll that's there's then and the also just can could would will " +
    'should shall must might remind remember make tell ask if'
  ).split(' '),
);
/** Words that only lead over to what is said. */
export const WEAK = new Set(
  (
    'um uh er erm oh okay ok right well so and but then also now yes yeah yep no actually like just you know i mean sorry ' +
    'anyway anyhow wait first second third finally lastly next plus basically look listen hmm hm alright all what else'
  ).split(' '),
);

function cutsOf(tokens: readonly Token[]): number[] {
  const cuts: number[] = [];
  for (let i = 1; i < tokens.length; i++) {
    const before = tokens[i - 1]!.text;
    const { bare } = tokens[i]!;
    if (/[,;:—–.?!]["'”’]?$/.test(before) || /^[—–-]+$/.test(before)) {
      cuts.push(i);
      continue;
    }
    if (tokens.length - i < 2) continue;
    if (SUBORDINATES.has(bare)) {
      cuts.push(i);
      continue;
    }
    if (!JOINS.has(bare)) continue;
    const next = tokens[i + 1]!;
    const isClause =
      STARTS.has(next.bare) ||
      isActionVerb(next.bare) ||
      /Modal|Pronoun|Imperative|Infinitive/.test(next.tag) ||
      (/^\p{Lu}/u.test(next.text) && /Modal|Verb|Tense|Copula/.test(tokens[i + 2]?.tag ?? ''));
    if (isClause) cuts.push(i);
  }
  return cuts;
}

/** Takes what was said apart into words with parts of speech and into clauses. */
export function readTalk(sentences: readonly Sentence[]): Reading {
  const tokens: Token[] = [];
  const units: Unit[] = [];
  sentences.forEach(({ text, speaker }, sentence) => {
    const own: Token[] = [];
    for (const match of text.matchAll(/\S+/g)) {
      const [word] = match;
      own.push({
        text: word,
        bare: bareOf(word),
        tag: '?',
        sentence,
        start: match.index,
        end: match.index + word.length,
      });
    }
    tagsOf(
      text,
      own.map((t) => t.start),
    ).forEach((tag, i) => (own[i]!.tag = tag));
    const cuts = [...cutsOf(own), own.length];
    const parts: [number, number][] = [];
    let open = 0;
    for (const cut of cuts) {
      const words = own.slice(open, cut);
      // What only leads over ("Right,") or is one word goes with what follows.
      if (cut < own.length && (words.length < 2 || words.every((w) => WEAK.has(w.bare)))) continue;
      parts.push([open, cut]);
      open = cut;
    }
    const base = tokens.length;
    parts
      .filter(([a, b]) => b > a)
      .forEach(([a, b], i, all) =>
        units.push({
          ...{ from: base + a, to: base + b, sentence, speaker },
          ...{ isFirst: i === 0, isLast: i === all.length - 1 },
        }),
      );
    tokens.push(...own);
  });
  return { sentences, tokens, units };
}

/** Some tokens as they were said, `from` up to, not with, `to`, with one space between. */
export const tokenText = (tokens: readonly Token[], from: number, to: number): string =>
  tokens
    .slice(from, to)
    .map((t) => t.text)
    .join(' ');

/** The words of a unit as they were said. */
export const unitText = (
  { sentences, tokens }: Reading,
  { from, to, sentence }: Pick<Unit, 'from' | 'to' | 'sentence'>,
): string => (to > from ? sentences[sentence]!.text.slice(tokens[from]!.start, tokens[to - 1]!.end) : '');
