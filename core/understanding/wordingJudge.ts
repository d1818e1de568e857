import { wordingStems } from '../language/alike';
import { isActionVerb } from '../language/todos/actionVerbs';
import { type Linear, probabilities, scoreOf } from './linear';
import type { Prepared, TalkKind } from './prepare';
import { WEAK } from './reading';
import { shapeOf } from './unitFeatures';
import { type Wording, wordingsOf } from './wordings';

/** So many units before a to-do may tell what it is about. */
const BEFORE: Record<TalkKind, number> = { memo: 4, dialogue: 6, talk: 2 };
/** A word of a wording that was not said there, and what the best wording has beside what was said; both measured. */
const UNSAID = 0.08;
const BESIDE = 0.8;

/** A stretch of units that asks for one thing: `from` up to, not with, `to`; `head` says it. */
export type Stretch = { from: number; to: number; head: number };

const rulesWithin = ({ rules }: Prepared, { from, to }: Stretch) => rules.filter((r) => r.unit >= from && r.unit < to);

/** For each token that may belong into the wording, names of what is true of it. */
export function wordFeatures(talk: Prepared, stretch: Stretch): Map<number, string[]> {
  const { reading, dated, unitAt } = talk;
  const { tokens, units } = reading;
  const { from, to, head } = stretch;
  const [start, end] = [units[Math.max(0, from - BEFORE[talk.kind])]!.from, units[to - 1]!.to];
  const own = units[head]!;
  const rules = rulesWithin(talk, stretch);
  const ruled = rules.length ? new Set(rules.flatMap((r) => wordingStems(r.text))) : null;
  let verb = -1;
  let hasPronoun = false;
  for (let k = own.from; k < own.to; k++) {
    if (verb < 0 && isActionVerb(tokens[k]!.bare)) verb = k;
    hasPronoun ||= /^(?:it|them|that|one|those|him|her)$/.test(tokens[k]!.bare);
  }
  const out = new Map<number, string[]>();
  for (let k = start; k < end; k++) {
    const token = tokens[k]!;
    const isNear = (x: number) => x >= 0 && x < tokens.length && tokens[x]!.sentence === token.sentence;
    const word = (x: number) => (isNear(x) ? shapeOf(reading, x, false) : '$');
    const tag = (x: number) => (isNear(x) ? tokens[x]!.tag : '$');
    const at = unitAt[k]!;
    const place =
      at < from
        ? `C${Math.min(from - at, 3 + ((from - at) >> 1))}`
        : at === head
          ? 'H'
          : at < head
            ? `-${Math.min(3, head - at)}`
            : `+${Math.min(3, at - head)}`;
    const inUnit = Math.min(6, k - units[at]!.from);
    const names = [
      ...[
        'bias',
        `w:${word(k)}`,
        `t:${tag(k)}`,
        `pw:${word(k - 1)}`,
        `nw:${word(k + 1)}`,
        `pt:${tag(k - 1)}`,
        `nt:${tag(k + 1)}`,
      ],
      ...[
        `bp:${word(k - 1)} ${word(k)}`,
        `bn:${word(k)} ${word(k + 1)}`,
        `tp:${tag(k - 1)} ${tag(k)}`,
        `tn:${tag(k)} ${tag(k + 1)}`,
      ],
      ...[`tt:${tag(k - 1)} ${tag(k)} ${tag(k + 1)}`, `u:${place}`, `ut:${place} ${tag(k)}`, `uw:${place} ${word(k)}`],
      ...[
        `i:${inUnit}`,
        `e:${Math.min(4, units[at]!.to - 1 - k)}`,
        `ui:${place} ${inUnit}`,
        `av:${isActionVerb(token.bare)}`,
      ],
      ...[`wk:${WEAK.has(token.bare)}`, `d:${dated.has(k)}`, `dd:${dated.has(k)} ${place}`],
      ...[
        `pr:${hasPronoun} ${place}`,
        `prt:${hasPronoun} ${place} ${tag(k)}`,
        `len:${Math.min(4, (end - start) >> 3)}`,
      ],
      `ps:${token.sentence === tokens[own.from]!.sentence} ${place}`,
    ];
    if (verb < 0) names.push('fv:none', `fvn:${place} ${tag(k)}`);
    else {
      const side = Math.sign(k - verb);
      names.push(
        `fv:${place === 'H' ? Math.max(-3, Math.min(8, k - verb)) : 'x'}`,
        `fvs:${side} ${place}`,
        `fvt:${side} ${place} ${tag(k)}`,
      );
    }
    if (ruled) {
      const isRuled = wordingStems(token.bare).some((s) => ruled.has(s));
      names.push(`r:${isRuled}`, `rr:${isRuled} ${place}`, `rt:${isRuled} ${tag(k)}`);
    } else names.push('r:none');
    out.set(k, names);
  }
  return out;
}

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
};

/** All wordings of a stretch: the rules' own and those made of what was said. */
export function candidatesFor(talk: Prepared, stretch: Stretch, words: Linear): Candidate[] {
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
    for (const s of stems) sum += keep.get(s) ?? UNSAID;
    return {
      ...w,
      asks: tokens[units[w.unit]!.to - 1]!.text.endsWith('?'),
      isOther: units[w.unit]!.speaker !== speaker,
      likeness: (2 * sum) / (stems.size + total),
      coverage: sum / total,
      precision: sum / (stems.size || 1),
    };
  };
  return [
    ...rulesWithin(talk, stretch).map((r) =>
      weighed({ text: r.text, kind: 'rule', unit: r.unit, units: 1, verb: '', next: '$' }),
    ),
    ...wordingsOf(talk.reading, Math.max(0, stretch.from - BEFORE[talk.kind]), stretch.to, talk.at).map(weighed),
  ];
}

const step = (share: number): number => Math.round(share * 12);

/** Names of what is true of a wording beside the others of its stretch. */
export function candidateFeatures(c: Candidate, { from, head }: Stretch, all: readonly Candidate[]): string[] {
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
      `nxl:${c.next} ${words.length < 4}`,
      `vb:${c.verb}`,
    ],
  ];
}

/** The best wording of a stretch; null where nothing can be worded. */
export function bestWording(talk: Prepared, stretch: Stretch, words: Linear, ranker: Linear): Candidate | null {
  const all = candidatesFor(talk, stretch, words);
  let best: { candidate: Candidate; score: number } | null = null;
  for (const candidate of all) {
    const score = scoreOf(ranker, candidateFeatures(candidate, stretch, all));
    if (!best || score > best.score) best = { candidate, score };
  }
  return best?.candidate ?? null;
}
