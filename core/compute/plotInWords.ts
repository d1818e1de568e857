import { numberText } from './numberText';
import type { Plot } from './plot';

const pointText = (value: number): string => numberText(Number(value.toPrecision(6))).replace('-', '−');

/** What a drawn curve shows, in words: "0 at x = −2 and x = 2; lowest at x = 0 (−4)". */
export function plotInWords({ roots, extremes }: Plot): string {
  const list = (items: readonly string[]) =>
    items.length < 2 ? items.join('') : `${items.slice(0, -1).join(', ')} and ${items.at(-1)}`;
  const zeros = roots.length ? `0 at ${list(roots.map((x) => `x = ${pointText(x)}`))}` : 'nowhere 0 here';
  const turns = extremes.map(({ x, y, kind }) => `${kind} at x = ${pointText(x)} (${pointText(y)})`);
  return [zeros, ...turns].join('; ');
}
