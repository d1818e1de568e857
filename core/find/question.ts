import type { QuestionKind } from '../contract/questionKinds';
import { isStopword, stem, wordsOf } from '../language/words';
import { type Period, periodIn } from './periods';

/** A person with the other names they go by: "the arborist". */
export type KnownPerson = { name: string; otherNames: readonly string[] };

export type QuestionTerm = {
  word: string;
  stem: string;
  /** 1 for what the question is about, less for light verbs. */ weight: number;
};

export type Question = {
  kind: QuestionKind;
  terms: QuestionTerm[];
  /** Names of known people who occur in it. */
  people: string[];
  /** Who has to have said it ("what did Bram say"): one of `people`, "me", or null for anybody. */
  speaker: string | null;
  period: Period | null;
  /** As it was asked. */
  asked: string;
};

const OPENING =
  /^(?:(?:and|so|but|well|please|hey|tell me|can you tell me|do you know|i wonder)[, ]+)*(?:who|whom|whose|what|what's|which|when|where|why|how|did|do|does|have|has|had|is|are|was|were|will|would|should|must|can|could|until when|by when|since when|at what|in which|on which|with whom|to whom|everything (?:with|about|from))\b/i;

/** Whether this is asked and not looked for: "?" at the end, or it begins as questions do and has at least three words. */
export const isQuestion = (typed: string): boolean => {
  const text = typed.trim();
  if (!/\p{L}/u.test(text) || /\b(?:person|tag|in|before|after|has):\S/.test(text)) return false;
  return /\?["'”’]?$/.test(text) || (OPENING.test(text) && text.split(/\s+/).length >= 3);
};

const PROMISE =
  /\b(?:(?:what|which things) (?:have|did|had) (?:i|we) (?:promised?|agreed?|offer(?:ed)?)|what (?:do|did) i owe|what (?:have|did) i (?:say|said) i (?:would|will))\b/i;
const KINDS: [QuestionKind, RegExp][] = [
  ['promise', PROMISE],
  [
    'count',
    /\bhow (?:much|many|deep|high|tall|long|far|wide|thick|old|often|hot|cold|fast|big|large|heavy|late|close|warm|expensive)\b|\bwhat (?:is|was|are) the (?:price|cost|number|rate|amount|size|depth|height|width|temperature)\b|\bwhat do(?:es)? .{2,40} costs?\b/i,
  ],
  [
    'when',
    /^(?:.{0,16}\b)?(?:when|(?:until|by|since) when|at what time|what time|which days?|what days?|on which|what date|how soon)\b/i,
  ],
  ['who', /^(?:.{0,10}\b)?(?:who|whom|whose)\b/i],
  ['where', /^(?:.{0,10}\b)?where\b/i],
  ['why', /^(?:.{0,10}\b)?why\b/i],
  ['meaning', /^what(?:'s| is| are| does)(?: an?| the)? [\p{L}' -]{2,50}?(?: mean(?:ing)?)?\??$/iu],
  ['how', /^(?:.{0,10}\b)?how\b/i],
];

/** Verbs and nouns that ask rather than tell. Common practice, no source. */
const LIGHT = new Set(
  `say said tell told talk talked speak spoke mention mentioned happen happened happens mean means meaning use used
  come comes came go goes going need needs needed want wants wanted think thinks thought know knows become call called
  time date number thing things start starts begin beginning end ends find found keep kept like likes feel work works
  decide choose agree pick settle come look recordings recording deep high tall long far wide thick hot cold fast close note notes memo memos day days anything everything something`
    .split(/\s+/)
    .map(stem),
);
const LIGHT_WEIGHT = 0.35;

const SAID_BY =
  /\b(?:what|when|where|why|which|how)\b.{0,80}?\b(?:did|does|has|had)\s{1,3}(\S.{0,60}?)\s{1,3}(?:say|said|tell|told|promise[d]?|ask(?:ed)?|mention(?:ed)?|offer(?:ed)?|explain(?:ed)?|suggest(?:ed)?|think|want)\b/i;

const namesOf = (person: KnownPerson): string[] => {
  const first = person.name.split(/\s+/)[0]!;
  return [
    person.name,
    ...(first.length > 2 && !/^(?:professor|doctor|mrs?|ms|dr)\b/i.test(first) ? [first] : []),
    ...person.otherNames,
  ];
};

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** In characters; what is pasted by mistake is cut. */
const MAX_QUESTION = 500;
const MAX_TERMS = 24;

/** Takes apart what was asked. @param today the day of asking, `2026-05-12` */
export function readQuestion(typed: string, people: readonly KnownPerson[], today: string): Question {
  const asked = typed.slice(0, MAX_QUESTION).trim().replace(/’/g, "'");
  const kind = KINDS.find(([, pattern]) => pattern.test(asked))?.[0] ?? 'what';
  const timed = kind === 'when' ? null : periodIn(asked, today);
  let rest = timed?.rest ?? asked;
  const saidBy = SAID_BY.exec(asked)?.[1] ?? null;
  const named: string[] = [];
  let speaker: string | null = null;
  for (const person of people) {
    const names = namesOf(person).sort((a, b) => b.length - a.length);
    const pattern = new RegExp(
      `(?<![\\p{L}\\p{N}])(?:${names.map(escaped).join('|')})(?:'s)?(?![\\p{L}\\p{N}])`,
      'giu',
    );
    if (!pattern.test(rest)) continue;
    named.push(person.name);
    pattern.lastIndex = 0;
    if (saidBy && pattern.test(saidBy)) speaker = person.name;
    rest = rest.replace(pattern, ' ');
  }
  if (kind === 'promise' || (saidBy && /^(?:i|we)$/i.test(saidBy))) speaker = 'me';
  const seen = new Set<string>();
  const terms = wordsOf(rest)
    .filter((w) => !isStopword(w) && !/^(?:promised?|agreed?)$/.test(kind === 'promise' ? w : ''))
    .map((word) => ({
      word: word.replace(/'s$/, ''),
      stem: stem(word),
      weight: LIGHT.has(stem(word)) ? LIGHT_WEIGHT : 1,
    }))
    .filter((t) => !seen.has(t.stem) && seen.add(t.stem))
    .slice(0, MAX_TERMS);
  const isOpen = terms.every((t) => t.weight < 1);
  const isDigest =
    isOpen && kind !== 'promise' && (timed !== null || (named.length > 0 && /^everything\b/i.test(asked)));
  return { kind: isDigest ? 'digest' : kind, terms, people: named, speaker, period: timed?.period ?? null, asked };
}
