import { wordingStems } from '../language/alike';
import { isActionVerb } from '../language/todos/actionVerbs';
import type { Prepared, TalkKind } from './prepare';
import { type Token, WEAK } from './reading';
import { shapeOf } from './unitFeatures';
import { nounPhraseEnd } from './wordings';

/** So many units before a to-do may tell what it is about. */
export const BEFORE: Record<TalkKind, number> = { memo: 4, dialogue: 10, talk: 2 };
/** A stretch of units that asks for one thing: `from` up to, not with, `to`; `head` says it. */
export type Stretch = { from: number; to: number; head: number };

export const rulesWithin = ({ rules }: Prepared, { from, to }: Stretch) =>
  rules.filter((r) => r.unit >= from && r.unit < to);

/** Said before a thing, this tells what it has to do with what is done: "for the treads", "from Balfour's". */
export const LEADS_TO = new Set(
  'of for from to about with at in on into off behind under beside near round'.split(' '),
);

const counted = new WeakMap<Prepared, Map<string, number>>();
/** How often each stem is said. */
function stemCounts(talk: Prepared): Map<string, number> {
  const known = counted.get(talk);
  if (known) return known;
  const out = new Map<string, number>();
  for (const t of talk.reading.tokens) for (const x of wordingStems(t.bare)) out.set(x, (out.get(x) ?? 0) + 1);
  counted.set(talk, out);
  return out;
}

/** The noun phrase that a token stands in: how it begins and the how manyth of its unit it is, and what leads to it. */
type Phrase = { role: string; lead: string; isLast: boolean };
const NO_PHRASE: Phrase = { role: '-', lead: '-', isLast: false };
const phrased = new WeakMap<Prepared, Phrase[]>();

const beginningOf = ({ bare, text }: Token): string => {
  if (/^(?:a|an|some|another)$/.test(bare)) return 'a';
  if (/^(?:the|that|this|those|these)$/.test(bare)) return 'the';
  if (/^(?:my|our|his|her|their|your)$/.test(bare)) return 'my';
  return /^\p{Lu}/u.test(text) ? 'Name' : '0';
};
const leadOf = ({ bare, tag }: Token): string => {
  if (LEADS_TO.has(bare)) return bare;
  return /Verb|Infinitive|Imperative|Gerund|Past|Present|Modal|Copula/.test(tag) ? 'V' : tag;
};

/** For each token its noun phrase. */
function phrasesOf(talk: Prepared): Phrase[] {
  const known = phrased.get(talk);
  if (known) return known;
  const { tokens, units } = talk.reading;
  const out = tokens.map(() => NO_PHRASE);
  for (const u of units) {
    let nth = 0;
    for (let k = u.from; k < u.to;) {
      const end = nounPhraseEnd(tokens, k, u.to);
      const lead = k === u.from ? '^' : leadOf(tokens[k - 1]!);
      const role = `${beginningOf(tokens[k]!)}${Math.min(2, nth)}`;
      for (let i = k; i < end; i++) out[i] = { role, lead, isLast: i === end - 1 };
      if (end > k) nth++;
      k = Math.max(end, k + 1);
    }
  }
  phrased.set(talk, out);
  return out;
}

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
  let pronoun = '-';
  for (let k = own.from; k < own.to; k++) {
    if (verb < 0 && isActionVerb(tokens[k]!.bare)) verb = k;
    if (/^(?:it|them|that|one|those|him|her)$/.test(tokens[k]!.bare)) pronoun = tokens[k]!.bare;
  }
  const hasPronoun = pronoun !== '-';
  const out = new Map<number, string[]>();
  const counts = stemCounts(talk);
  const phrases = phrasesOf(talk);
  const hasVerb = units.map((u) => tokens.slice(u.from, u.to).some((t) => isActionVerb(t.bare)));
  const headStems = new Set(tokens.slice(own.from, own.to).flatMap((t) => wordingStems(t.bare)));
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
    const stem = wordingStems(token.bare)[0] ?? '-';
    const count = Math.min(3, counts.get(stem) ?? 0);
    const phrase = phrases[k]!;
    const isVerbUnit = hasVerb[at]!;
    const isOwnSpeaker = units[at]!.speaker === own.speaker;
    const inHead = headStems.has(stem);
    names.push(
      `n:${count}`,
      `nu:${count} ${place}`,
      `np:${phrase.role}`,
      `npp:${phrase.role} ${place}`,
      `npd:${phrase.lead} ${place}`,
      `npv:${phrase.role} ${phrase.lead}`,
      `npl:${phrase.isLast} ${place} ${tag(k)}`,
      `sp:${isOwnSpeaker} ${place}`,
      `uv:${isVerbUnit} ${place}`,
      `uvt:${isVerbUnit} ${place} ${tag(k)}`,
      `pn:${pronoun} ${place} ${tag(k)}`,
      `pnr:${pronoun} ${place} ${phrase.role}`,
      `ih:${inHead} ${place}`,
      `sx:${token.bare.slice(-3)} ${place === 'H'}`,
    );
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
