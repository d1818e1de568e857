/** Which units belong together: the likeliest row of "nothing", "begins" and "goes on" (Viterbi 1967). */

const CLASSES = 3;
/** Nothing that has not begun goes on. */
const NEVER = -50;

/** How likely one class follows another, over how often it stands at all; logarithms, half weighted. */
export function transitionsOf(rows: readonly (readonly number[])[]): number[][] {
  const pairs = Array.from({ length: CLASSES }, () => Array.from({ length: CLASSES }, () => 0.5));
  const single = Array.from({ length: CLASSES }, () => 1);
  for (const row of rows)
    row.forEach((c, i) => {
      single[c]!++;
      if (i) pairs[row[i - 1]!]![c]!++;
    });
  const all = single.reduce((a, b) => a + b, 0);
  return pairs.map((row, a) =>
    row.map((n, b) => (a === 0 && b === 2 ? NEVER : 0.5 * Math.log(n / single[a]! / (single[b]! / all)))),
  );
}

/**
 * The stretches that the likeliest row gives: first unit, and the one after the last.
 * @param bias what is added to the logarithm of "begins" and "goes on": more finds more
 */
export function groupsIn(
  probabilities: readonly ArrayLike<number>[],
  transitions: readonly (readonly number[])[],
  bias: number,
): [number, number][] {
  const scores: number[][] = [];
  const cameFrom: number[][] = [];
  probabilities.forEach((p, i) => {
    const own = Array.from(p, (x, c) => Math.log(x + 1e-9) + (c ? bias : 0));
    if (i === 0) {
      scores.push([own[0]!, own[1]!, NEVER]);
      cameFrom.push([0, 0, 0]);
      return;
    }
    const row: number[] = [];
    const from: number[] = [];
    for (let c = 0; c < CLASSES; c++) {
      let [before, best] = [0, -Infinity];
      for (let b = 0; b < CLASSES; b++) {
        const score = scores[i - 1]![b]! + transitions[b]![c]!;
        if (score > best) [before, best] = [b, score];
      }
      row.push(best + own[c]!);
      from.push(before);
    }
    scores.push(row);
    cameFrom.push(from);
  });
  const tags: number[] = [];
  const end = scores.at(-1);
  let c = end ? end.indexOf(Math.max(...end)) : 0;
  for (let i = scores.length - 1; i >= 0; i--) {
    tags[i] = c;
    c = cameFrom[i]![c]!;
  }
  const groups: [number, number][] = [];
  tags.forEach((tag, i) => {
    if (tag === 1) groups.push([i, i + 1]);
    else if (tag === 2 && groups.length) groups.at(-1)![1] = i + 1;
  });
  return groups;
}
