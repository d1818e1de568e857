import { isActionVerb } from '../language/todos/actionVerbs';
import { type Reading, WEAK } from './reading';
import { signsOf } from './signs';

const DAYS = /^(?:mon|tues|wednes|thurs|fri|satur|sun)days?(?:'s)?$/;
const MONTHS = /^(?:january|february|march|april|may|june|july|august|september|october|november|december)$/;
const NUMBERS =
  /^(?:\d[\d.,:]*(?:st|nd|rd|th)?|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|\p{L}+teen|twenty|thirty|forty|fifty|sixty|hundred|thousand|first|second|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth|\p{L}+teenth|twentieth|thirtieth)$/u;
const SUBJECTS = new Set(
  "i we you he she they it somebody someone i'll i've i'd i'm we'll we've we'd we're you'll you've you're he'll he's she'll she's they'll they're it'll it's".split(
    ' ',
  ),
);
const TIMES = new Set(
  'today tomorrow tonight week weekend month morning afternoon evening noon lunch by before until till'.split(' '),
);

/** A word as it counts for learning: names, numbers, days and months stand for each other. */
export function shapeOf({ tokens }: Reading, at: number, isFirst: boolean): string {
  const { bare, text, tag } = tokens[at]!;
  if (!bare) return '-';
  if (DAYS.test(bare)) return '#day';
  if (MONTHS.test(bare) && (bare !== 'may' || /^M/.test(text))) return '#month';
  if (NUMBERS.test(bare)) return '#num';
  if (!isFirst && /^["'(]*\p{Lu}\p{Ll}/u.test(text) && !/^i(?:'|$)/.test(bare)) return '#name';
  if (isFirst && tag === 'Person') return '#name';
  return bare;
}

/** What the rules make of a unit. */
export type RuleSigns = { isFound: boolean; trigger: string | null };

/** Features that mean something else in a memo than in a conversation or a talk. */
const BY_KIND = /^(?:w:|b:|s1|s2|sp:|subject|sv|dated|T:|RT|turn|P1|verb|asks|opens|S:|SS)/;

/** Names of what is true of each unit: its words, parts of speech, letters, place, neighbours, and the rules' verdict. */
export function unitFeatures(reading: Reading, ruled: readonly RuleSigns[], kind: string): string[][] {
  const { tokens, units } = reading;
  const words = units.map(({ from, to, isFirst }) =>
    Array.from({ length: to - from }, (_, k) => shapeOf(reading, from + k, isFirst && k === 0)),
  );
  const shapes = units.map(({ from, to }) =>
    Array.from({ length: to - from }, (_, k) => shapeOf(reading, from + k, false)),
  );
  const signs = units.map((u, i) => signsOf(reading, u, shapes[i]!));
  const speakers = new Set(units.map((u) => u.speaker)).size;
  return units.map((u, at) => {
    const out: string[] = ['bias'];
    const w = words[at]!;
    const tags = tokens.slice(u.from, u.to).map((t) => t.tag);
    const own = ['^', ...w, '$'];
    for (const x of w) out.push(`w:${x}`);
    for (let i = 0; i + 1 < own.length; i++) out.push(`b:${own[i]} ${own[i + 1]}`);
    for (let i = 0; i + 2 < own.length; i++)
      out.push(`t:${own[i]} ${own[i + 1]} ${own[i + 2]}`, `k:${own[i]} _ ${own[i + 2]}`);
    const t = ['^', ...tags, '$'];
    for (let i = 0; i + 1 < t.length; i++) out.push(`pb:${t[i]} ${t[i + 1]}`);
    for (let i = 0; i + 2 < t.length; i++) out.push(`pt:${t[i]} ${t[i + 1]} ${t[i + 2]}`);
    out.push(`p1:${tags[0]}`, `pw:${w[0]} ${tags[1] ?? '$'}`);
    // Without what leads over.
    const strong = w.findIndex((x) => !WEAK.has(x));
    if (strong >= 0)
      out.push(
        `s1:${w[strong]}`,
        `s2:${w[strong]} ${w[strong + 1] ?? '$'}`,
        `s3:${w[strong]} ${w[strong + 1] ?? '$'} ${w[strong + 2] ?? '$'}`,
        `sp:${tags[strong]} ${tags[strong + 1] ?? '$'}`,
      );
    for (const x of w)
      if (!x.startsWith('#') && x.length > 3) {
        const s = `<${x}>`;
        for (let i = 0; i + 4 <= s.length; i++) out.push(`c:${s.slice(i, i + 4)}`);
      }
    for (const [d, name] of [
      [-1, 'P'],
      [1, 'N'],
      [-2, 'PP'],
    ] as const) {
      const other = units[at + d];
      const ow = words[at + d];
      if (!ow) {
        out.push(`${name}:none`);
        continue;
      }
      const same = other!.sentence === u.sentence ? 's' : 'o';
      for (const x of ow) out.push(`${name}${same}:${x}`);
      if (name !== 'PP') {
        out.push(`${name}1${same}:${ow[0]} ${ow[1] ?? '$'}`, `${name}e:${tokens[other!.to - 1]!.text.slice(-1)}`);
      }
    }
    const last = tokens[u.to - 1]!.text;
    out.push(
      u.isFirst ? 'first' : 'later',
      u.isLast ? 'last' : 'inner',
      `len:${Math.min(6, Math.floor(w.length / 3))}`,
    );
    out.push(`end:${/[.?!,;:]$/.exec(last)?.[0] ?? 'x'}`, `at:${Math.floor((5 * at) / units.length)}`);
    out.push(`size:${Math.min(5, Math.floor(units.length / 12))}`, speakers > 1 ? 'many' : u.speaker ? 'one' : 'own');
    const before = units[at - 1];
    if (u.speaker && before && before.speaker !== u.speaker)
      out.push('turn', tokens[before.to - 1]!.text.endsWith('?') ? 'after-question' : 'after-other');
    const verb = w.findIndex((x) => isActionVerb(x));
    out.push(verb < 0 ? 'noverb' : verb === strong ? 'verb0' : `verbafter:${w[verb - 1]}`);
    const subject = w.find((x) => SUBJECTS.has(x)) ?? 'none';
    out.push(`subject:${subject}`, `sv:${subject} ${verb < 0 ? '-' : verb === strong ? '0' : '+'}`);
    if (w.some((x) => x === '#day' || x === '#month' || TIMES.has(x)))
      out.push('dated', `dated-${subject}`, `dated-${verb === strong}`);
    const sentence = units.filter((x) => x.sentence === u.sentence);
    const isAsked = tokens[sentence.at(-1)!.to - 1]!.text.endsWith('?');
    out.push(`opens:${tokens[sentence[0]!.from]!.bare}`, `asks:${isAsked}`);
    const { isFound, trigger } = ruled[at]!;
    out.push(`R:${isFound}`, `T:${trigger ?? 'none'}`, `RT:${isFound} ${trigger ?? 'none'}`);
    out.push(`RP:${ruled[at - 1]?.isFound ?? false}`, `RN:${ruled[at + 1]?.isFound ?? false}`);
    const isDated = out.includes('dated');
    const ownSigns = signs[at]!;
    ownSigns.forEach((x, i) => {
      out.push(`S:${x}`, `SD:${x} ${isDated}`);
      for (const y of ownSigns.slice(i + 1)) out.push(`SS:${x < y ? `${x} ${y}` : `${y} ${x}`}`);
    });
    for (const x of signs[at - 1] ?? []) out.push(`SP:${x}`);
    for (const x of signs[at + 1] ?? []) out.push(`SN:${x}`);
    for (const x of out.filter((name) => BY_KIND.test(name))) out.push(`${kind}|${x}`);
    return out;
  });
}
