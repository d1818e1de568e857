/**
 * How different two spellings sound, as an English speaker reads them: letters are turned into classes of sounds, and
 * these compared by weighted edit distance. Vowels weigh little, consonants that are heard for each other half. The
 * classes and weights are our own, after the mistakes that the recogniser makes with names.
 */

const SPELLINGS: readonly [pattern: RegExp, sounds: string][] = [
  [/[^a-z]/g, ''],
  [/^x/, 'z'],
  [/^(kn|gn|pn)/, 'n'],
  [/^wr/, 'r'],
  [/mb$/, 'm'],
  [/tch|ch|cz/g, 'C'],
  [/sch|sh|ti(?=on|a)|ci(?=a|o)/g, 'S'],
  [/ph/g, 'f'],
  [/gh(?=[aeiou])/g, 'g'],
  [/gh/g, ''],
  [/th/g, 'T'],
  [/ck|cq/g, 'k'],
  [/qu|kw/g, 'kw'],
  [/q/g, 'k'],
  [/x/g, 'ks'],
  [/c(?=[eiy])/g, 's'],
  [/c/g, 'k'],
  [/dg(?=e)|j/g, 'J'],
  [/wh/g, 'w'],
  [/y(?=[aeiou])/g, 'Y'],
  [/y/g, 'i'],
  [/(?<=[aeiou])[wh](?![aeiou])/g, 'u'],
  [/(.)\1+/g, '$1'],
  [/e$/, ''],
];

/** The sounds of a spelling, one letter each. */
export function soundsOf(text: string): string {
  let sounds = text.toLowerCase().normalize('NFD').replace(/\p{M}/gu, '');
  for (const [pattern, to] of SPELLINGS) sounds = sounds.replace(pattern, to);
  return sounds;
}

const VOWELS = new Set('aeiou');
const ALIKE = [
  'pb',
  'td',
  'kg',
  'sz',
  'fv',
  'mn',
  'lr',
  'CJ',
  'CS',
  'sS',
  'Tt',
  'Tf',
  'Td',
  'vb',
  'zS',
  'gJ',
  'vw',
  'wu',
  'Yi',
  'Ts',
];
const areAlike = new Set(ALIKE.flatMap((pair) => [pair, pair[1]! + pair[0]!]));

const swap = (a: string, b: string): number => {
  if (a === b) return 0;
  if (VOWELS.has(a) && VOWELS.has(b)) return 0.25;
  return areAlike.has(a + b) ? 0.4 : 1;
};
const gap = (a: string): number =>
  VOWELS.has(a) || a === 'h' || a === 'w' || a === 'Y' ? 0.3 : a === 'r' ? 0.45 : 0.8;

/**
 * Where in a row of sounds a name fits best, wherever words begin and end there.
 * @returns places with the share of the name that is wrong, from 0, best first; `to` exclusive
 */
export function soundPlaces(name: string, row: string, most: number): { from: number; to: number; distance: number }[] {
  const weight = [...name].reduce((sum, x) => sum + gap(x), 0);
  let costs = Array.from({ length: row.length + 1 }, () => 0);
  let starts = costs.map((_, j) => j);
  for (const x of name) {
    const next = [costs[0]! + gap(x)];
    const from = [0];
    for (let j = 0; j < row.length; j++) {
      const ways = [next[j]! + gap(row[j]!), costs[j + 1]! + gap(x), costs[j]! + swap(x, row[j]!)];
      const least = Math.min(...ways);
      next.push(least);
      from.push(least === ways[2] ? starts[j]! : least === ways[1] ? starts[j + 1]! : from[j]!);
    }
    [costs, starts] = [next, from];
  }
  const places = costs.map((cost, to) => ({ from: starts[to]!, to, distance: cost / weight }));
  const found: typeof places = [];
  for (const place of places
    .filter((p) => p.distance <= most && p.to > p.from)
    .sort((a, b) => a.distance - b.distance)) {
    if (!found.some((f) => place.from < f.to && f.from < place.to)) found.push(place);
  }
  return found;
}

/** 0 for the same sounds, about 1 for nothing in common. Sounds as `soundsOf` gives them. */
export function soundDistance(a: string, b: string): number {
  if (!a || !b) return 1;
  let row = [0];
  for (let j = 0; j < b.length; j++) row.push(row[j]! + gap(b[j]!));
  for (const x of a) {
    const next = [row[0]! + gap(x)];
    for (let j = 0; j < b.length; j++) {
      next.push(Math.min(next[j]! + gap(b[j]!), row[j + 1]! + gap(x), row[j]! + swap(x, b[j]!)));
    }
    row = next;
  }
  const weight = (s: string) => [...s].reduce((sum, x) => sum + gap(x), 0);
  return row.at(-1)! / Math.max(weight(a), weight(b));
}
