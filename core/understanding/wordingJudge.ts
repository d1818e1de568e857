import { wordingStems } from '../language/alike';
import { isActionVerb } from '../language/todos/actionVerbs';
import { lowerFirst } from '../language/todos/clauses';
import { SOMEBODY } from '../language/todos/scene';
import { withoutEnd } from '../language/words';
import { type Linear, probabilities, scoreExpected, scoreOf } from './linear';
import type { Prepared } from './prepare';
import { bareOf, tokenText } from './reading';
import { BEFORE, LEADS_TO, type Stretch, rulesWithin, wordFeatures } from './wordFeatures';
import { type Wording, nounPhraseEnd, wordingsOf } from './wordings';

/** A word of a wording that was not said there, and what the best wording has beside what was said; both measured. */
const UNSAID = 0.08;
const BESIDE = 0.8;

/** "Do it", "email them": what says little without what came before. */
const POINTS = / (?:it|them|that|this|him|her|one|so|those|there)(?: |,|$)|^\S+(?: \S+)?$/i;

/** A wording with what is expected of it: `likeness` to what a person would write, 0 to 1. */
export type Candidate = {
  text: string;
  kind: string;
  unit: number;
  units: number;
  verb: string;
  next: string;
  /** Whether its unit asks, and whether another speaker says it than the one of the to-do. */
  asks: boolean;
  isOther: boolean;
  likeness: number;
  coverage: number;
  precision: number;
  /** How likely its words belong there: the first one, the last one and the least likely. */
  ends: { first: number; last: number; least: number };
};

const POINTER = /^(?:it|them|that|this|him|her|one|those|these|there)$/;
/** So many wordings of a stretch are made fuller, each with so many things that were said near it. */
const MADE_FULLER = 6;
const THINGS = 3;
/** How likely the words of such a thing belong there at least; more where it was not said in the same sentence. */
const LIKELY = { near: 0.3, far: 0.4 };
const meanOf = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;

type Thing = { text: string; lead: string; from: number; stems: string[] };

/** Things and people that were named in a stretch and before it. */
function thingsIn({ reading, dated }: Prepared, from: number, to: number): Thing[] {
  const { tokens } = reading;
  const out: Thing[] = [];
  for (let i = from; i < to;) {
    const end = nounPhraseEnd(tokens, i, to);
    if (end <= i) {
      i++;
      continue;
    }
    const text = withoutEnd(tokenText(tokens, i, end));
    const stems = wordingStems(text);
    const isOfTime = tokens.slice(i, end).some((t, k) => dated.has(i + k) || /WeekDay|Month|Date|Time/.test(t.tag));
    const lead = tokens[i - 1]?.bare ?? '';
    if (stems.length && stems.length < 5 && !isOfTime)
      out.push({ text: lowerFirstWord(text), lead: LEADS_TO.has(lead) ? lead : '', from: i, stems });
    i = end;
  }
  return out;
}

/** A name keeps its capital; "The valve" becomes "the valve". */
const lowerFirstWord = (text: string): string =>
  /^(?:The|A|An|My|Our|His|Her|Their|Your|This|That|Some) /.test(text) ? lowerFirst(text) : text;

/** Whether a pronoun can stand for a thing: "him" for a person, "them" for several or for people, "it" for one thing. */
function fits(pronoun: string, { text }: Thing): boolean {
  const isPerson = SOMEBODY.test(text) || /^\p{Lu}\p{Ll}+(?: \p{Lu}\p{Ll}+)*$/u.test(text);
  if (/^(?:him|her)$/.test(pronoun)) return isPerson;
  if (/^(?:them|those|these)$/.test(pronoun)) return isPerson || /[^s]s$/.test(text);
  return !isPerson && !/[^s]s$/.test(text);
}

/**
 * A wording with a thing that it leaves unsaid: "Order the ash for the treads" where that was said in the same sentence,
 * "Email it (the valuation form)" where it only points to it; null where it would read badly.
 */
function fuller(c: Candidate, thing: Thing, isSameSentence: boolean): { text: string; kind: string } | null {
  const pointer = c.text
    .split(' ')
    .map(bareOf)
    .find((w) => POINTER.test(w));
  if (pointer && !fits(pointer, thing)) return null;
  if (pointer) return { text: `${c.text} (${thing.text})`, kind: `${c.kind}&it` };
  if (!thing.lead || !isSameSentence) return null;
  return { text: `${c.text} ${thing.lead} ${thing.text}`, kind: `${c.kind}&${thing.lead}` };
}

/** All wordings of a stretch: the rules' own and those made of what was said. */
function candidatesFor(talk: Prepared, stretch: Stretch, words: Linear): Candidate[] {
  const { units, tokens } = talk.reading;
  const keep = new Map<string, number>();
  for (const [k, names] of wordFeatures(talk, stretch)) {
    const p = probabilities(words, names)[1]!;
    for (const s of wordingStems(tokens[k]!.bare)) keep.set(s, Math.max(keep.get(s) ?? 0, p));
  }
  let total = BESIDE;
  for (const p of keep.values()) total += p;
  const { speaker } = units[stretch.head]!;
  const weighed = (w: Wording): Candidate => {
    const stems = new Set(wordingStems(w.text));
    let sum = 0;
    const likely: number[] = [];
    for (const s of stems) {
      const p = keep.get(s) ?? UNSAID;
      sum += p;
      likely.push(p);
    }
    return {
      ...w,
      asks: tokens[units[w.unit]!.to - 1]!.text.endsWith('?'),
      isOther: units[w.unit]!.speaker !== speaker,
      likeness: (2 * sum) / (stems.size + total),
      coverage: sum / total,
      precision: sum / (stems.size || 1),
      ends: { first: likely[0] ?? 0, last: likely.at(-1) ?? 0, least: Math.min(1, ...likely) },
    };
  };
  const first = Math.max(0, stretch.from - BEFORE[talk.kind]);
  const plain = [
    ...rulesWithin(talk, stretch).map((r) =>
      weighed({ text: r.text, kind: 'rule', unit: r.unit, units: 1, verb: '', next: '$' }),
    ),
    ...wordingsOf(talk.reading, first, stretch.to, talk.at).map(weighed),
  ];
  const things = thingsIn(talk, units[first]!.from, units[stretch.to - 1]!.to);
  const likeliest = plain.filter((c) => c.verb || c.kind === 'rule').sort((a, b) => b.likeness - a.likeness);
  return [
    ...plain,
    ...likeliest.slice(0, MADE_FULLER).flatMap((c) => {
      const own = new Set(wordingStems(c.text));
      const isNear = (t: Thing) => tokens[t.from]!.sentence === units[c.unit]!.sentence;
      const isLikely = (t: Thing) => meanOf(t.stems.map((x) => keep.get(x) ?? 0)) >= LIKELY[isNear(t) ? 'near' : 'far'];
      return things
        .filter((t) => t.stems.every((x) => !own.has(x)) && isLikely(t))
        .flatMap((t) => fuller(c, t, isNear(t)) ?? [])
        .map((words) => weighed({ ...c, ...words }))
        .filter((w) => w.likeness > c.likeness)
        .sort((a, b) => b.likeness - a.likeness)
        .slice(0, THINGS);
    }),
  ];
}

/** Whether it is as it was said, and not made fuller. */
const isBare = (c: Candidate): boolean => !c.kind.includes('&');

const step = (share: number): number => Math.round(share * 12);

/** Names of what is true of a wording beside the others of its stretch. */
function candidateFeatures(c: Candidate, { from, head }: Stretch, all: readonly Candidate[]): string[] {
  const words = c.text.toLowerCase().split(' ');
  const best = Math.max(...all.map((x) => x.likeness));
  const hasRule = all.some((x) => x.kind === 'rule');
  const place = c.unit === head ? 'H' : c.unit < from ? `C${Math.min(4, from - c.unit)}` : c.unit < head ? '-' : '+';
  const k = c.kind;
  // What the head says alone, and whether that points back to what was said before.
  const own = all.filter((x) => x.unit === head && x.kind !== 'rule');
  const isPointing = own.length > 0 && own.every((x) => POINTS.test(x.text));
  const isSameVerb = c.verb !== '' && own.some((x) => x.verb === c.verb);
  const isBefore = place.startsWith('C');
  return [
    ...['bias', `k:${k}`, `e:${step(c.likeness)}`, `ke:${k} ${step(c.likeness)}`, `d:${step(best - c.likeness)}`],
    ...[
      `kd:${k} ${step(best - c.likeness)}`,
      `n:${Math.min(16, words.length)}`,
      `kn:${k} ${Math.min(8, words.length >> 1)}`,
    ],
    ...[
      `c:${step(c.coverage)}`,
      `p:${step(c.precision)}`,
      `f:${words[0]}`,
      `l:${words.at(-1)}`,
      `av:${isActionVerb(words[0]!)}`,
    ],
    ...[
      `h:${place}`,
      `kh:${k} ${place}`,
      `hr:${hasRule}`,
      `kr:${k} ${hasRule}`,
      `u:${c.units}`,
      `best:${c.likeness === best}`,
    ],
    ...[
      `it:${/ (?:it|them|that|this|him|her|one)(?: |$)/i.test(c.text)}`,
      `I:${/ (?:i|we|he|she|they|you)(?: |'|$)/i.test(c.text)}`,
    ],
    ...[
      `cm:${Math.min(3, c.text.split(',').length - 1)}`,
      `many:${all.length > 15}`,
      `nx:${c.next}`,
      `pk:${place} ${k}`,
      `pp:${place} ${isPointing} ${POINTS.test(c.text)}`,
      `bp:${isBefore} ${isPointing} ${isSameVerb}`,
      `bq:${isBefore} ${c.asks} ${c.isOther}`,
      `bpe:${isBefore} ${isPointing} ${step(best - c.likeness)}`,
      `be:${isBefore} ${step(c.likeness)}`,
      `pf:${step(c.ends.first)}`,
      `pl:${step(c.ends.last)}`,
      `pm:${step(c.ends.least)}`,
      `pfl:${c.ends.first > 0.5} ${c.ends.last > 0.5} ${c.ends.least > 0.25}`,
      `ff:${isBare(c)} ${step(best - c.likeness)}`,
      `nxl:${c.next} ${words.length < 4}`,
      `vb:${c.verb}`,
    ],
  ];
}

/** So many of the likeliest wordings are looked at closely. */
const CLOSELY = 16;

/** The likeliest wordings with the features that a ranker weighs. */
export function choicesIn(
  talk: Prepared,
  stretch: Stretch,
  words: Linear,
): { candidate: Candidate; features: string[] }[] {
  const all = candidatesFor(talk, stretch, words);
  return [...all]
    .sort((a, b) => b.likeness - a.likeness)
    .slice(0, CLOSELY)
    .map((candidate) => ({ candidate, features: candidateFeatures(candidate, stretch, all) }));
}

/** The best wording of a stretch; null where nothing can be worded. */
export function bestWording(talk: Prepared, stretch: Stretch, words: Linear, ranker: Linear): Candidate | null {
  let best: { candidate: Candidate; score: number } | null = null;
  for (const { candidate, features } of choicesIn(talk, stretch, words)) {
    const score = scoreExpected(candidate.likeness) + scoreOf(ranker, features);
    if (!best || score > best.score) best = { candidate, score };
  }
  return best?.candidate ?? null;
}
