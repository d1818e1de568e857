import { wordingStems } from '../language/alike';
import { isActionVerb } from '../language/todos/actionVerbs';
import { type Linear, probabilities } from './linear';
import { type Prepared } from './prepare';
import { WEAK } from './reading';
import { shapeOf } from './unitFeatures';
import { wordingsOf } from './wordings';

/** So many units before a to-do may tell what it is about. */
const BEFORE = 2;
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
  const [start, end] = [units[Math.max(0, from - BEFORE)]!.from, units[to - 1]!.to];
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
        ? `C${from - at}`
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

/** A wording with what is expected of it: `likeness` to what a person would write, 0 to 1. */
export type Candidate = {
  text: string;
  kind: string;
  unit: number;
  units: number;
  verb: string;
  next: string;
  likeness: number;
  coverage: number;
  precision: number;
};

/** All wordings of a stretch: the rules' own and those made of what was said. */
export function candidatesFor(talk: Prepared, stretch: Stretch, words: Linear): Candidate[] {
  const { tokens } = talk.reading;
  const keep = new Map<string, number>();
  for (const [k, names] of wordFeatures(talk, stretch)) {
    const p = probabilities(words, names)[1]!;
    for (const s of wordingStems(tokens[k]!.bare)) keep.set(s, Math.max(keep.get(s) ?? 0, p));
  }
  let total = BESIDE;
  for (const p of keep.values()) total += p;
  const weighed = (w: Pick<Candidate, 'text' | 'kind' | 'unit' | 'units' | 'verb' | 'next'>): Candidate => {
    const stems = new Set(wordingStems(w.text));
    let sum = 0;
    for (const s of stems) sum += keep.get(s) ?? UNSAID;
    return {
      ...w,
      likeness: (2 * sum) / (stems.size + total),
      coverage: sum / total,
      precision: sum / (stems.size || 1),
    };
  };
  return [
    ...rulesWithin(talk, stretch).map((r) =>
      weighed({ text: r.text, kind: 'rule', unit: r.unit, units: 1, verb: '', next: '$' }),
    ),
    ...wordingsOf(talk.reading, stretch.from, stretch.to, talk.at).map(weighed),
  ];
}

const step = (share: number): number => Math.round(share * 12);

/** Names of what is true of a wording beside the others of its stretch. */
export function candidateFeatures(c: Candidate, { head }: Stretch, all: readonly Candidate[]): string[] {
  const words = c.text.toLowerCase().split(' ');
  const best = Math.max(...all.map((x) => x.likeness));
  const hasRule = all.some((x) => x.kind === 'rule');
  const place = c.unit === head ? 'H' : c.unit < head ? '-' : '+';
  const k = c.kind;
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
      `nxl:${c.next} ${words.length < 4}`,
      `vb:${c.verb}`,
    ],
  ];
}

/** What a wording must beat that does not begin with a verb: a list is read as things to do. */
const VERBLESS = 0.12;

/** The rules' own wordings are whole and have their persons put in. */
const TRUST_IN_RULES = 0.3;

/** The best wording of a stretch, and how good it is expected to be, 0 to 2; null where nothing can be worded. */
export function bestWording(
  talk: Prepared,
  stretch: Stretch,
  words: Linear,
  ranker: Linear,
): { candidate: Candidate; worth: number } | null {
  const all = candidatesFor(talk, stretch, words);
  let best: { candidate: Candidate; worth: number } | null = null;
  for (const candidate of all) {
    const [, fair, good] = probabilities(ranker, candidateFeatures(candidate, stretch, all));
    const isVerbless = candidate.kind === 'whole' || candidate.kind === 'noun';
    const worth = fair! + 1.6 * good! - (isVerbless ? VERBLESS : 0) + (candidate.kind === 'rule' ? TRUST_IN_RULES : 0);
    if (!best || worth > best.worth) best = { candidate, worth };
  }
  return best;
}
