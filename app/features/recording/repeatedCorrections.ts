import { wordErrors } from '@immeld/core/transcript/wordErrorRate';

const KEY = 'immeld-corrected-names';
const ENOUGH = 2;
const MAX_KEPT = 300;

const bare = (word: string): string => word.replace(/^[^\p{L}]+|(?<![^\p{L}])[^\p{L}]+$/gu, '').replace(/['’]s$/, '');

/** Words that a person typed in the place of others and that look like names or terms: with a capital, or unusually long. */
export function typedNames(before: readonly string[], after: readonly string[]): string[] {
  const { pairs } = wordErrors(before.map(bare), after.map(bare));
  const found = new Set<string>();
  for (const { reference, hypothesis } of pairs) {
    if (reference === null || hypothesis === null) continue;
    const [was, is] = [bare(before[reference]!), bare(after[hypothesis]!)];
    const beginsSentence = hypothesis === 0 || /[.?!…]["'”’)]*$/.test(after[hypothesis - 1]!);
    const looksLikeName = /^\p{Lu}\p{L}{2,}/u.test(is) && !(beginsSentence && /^\p{Lu}/u.test(was));
    if (was.toLowerCase() !== is.toLowerCase() && (looksLikeName || is.length >= 12)) found.add(is);
  }
  return [...found];
}

/**
 * Counts corrections over recordings and visits.
 * @returns names that have now been put in twice and are not listed yet
 */
export function countCorrections(
  names: readonly string[],
  listed: readonly string[],
  storage: Pick<Storage, 'getItem' | 'setItem'>,
): string[] {
  let counts: [string, number][] = [];
  try {
    counts = JSON.parse(storage.getItem(KEY) ?? '[]') as [string, number][];
  } catch {
    // What cannot be read is counted anew.
  }
  const known = new Map(counts);
  const reached: string[] = [];
  for (const name of names) {
    const count = (known.get(name) ?? 0) + 1;
    known.delete(name);
    known.set(name, count);
    if (count === ENOUGH && !listed.includes(name)) reached.push(name);
  }
  try {
    storage.setItem(KEY, JSON.stringify([...known].slice(-MAX_KEPT)));
  } catch {
    // A browser that keeps nothing does not count.
  }
  return reached;
}
