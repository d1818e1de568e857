/** One thing that is known to have a label. */
export type Example = { features: ReadonlySet<string>; label: string; weight?: number };

const SMOOTHING = 0.1;

/**
 * Labels with their probability, likeliest first: a multinomial naive Bayes classifier in which each example has each of
 * its features once (Manning, Raghavan and Schütze 2008, Introduction to Information Retrieval, section 13.2). A feature
 * weighs by its share among all features of a label: a lecture of an hour, in which nearly every word stands, does not
 * draw everything to itself. Probabilities are evened out, since features are not independent of each other.
 */
export function likeliest(
  features: ReadonlySet<string>,
  examples: readonly Example[],
): { label: string; probability: number }[] {
  const classes = new Map<string, { weight: number; total: number; counts: Map<string, number> }>();
  const known = new Set<string>();
  let all = 0;
  for (const { features: own, label, weight = 1 } of examples) {
    let entry = classes.get(label);
    if (!entry) classes.set(label, (entry = { weight: 0, total: 0, counts: new Map() }));
    entry.weight += weight;
    entry.total += weight * own.size;
    all += weight;
    for (const f of own) {
      known.add(f);
      entry.counts.set(f, (entry.counts.get(f) ?? 0) + weight);
    }
  }
  const there = [...features].filter((f) => known.has(f));
  const scores = [...classes].map(([label, { weight, total, counts }]) => ({
    label,
    score: there.reduce(
      (sum, f) => sum + Math.log(((counts.get(f) ?? 0) + SMOOTHING) / (total + SMOOTHING * known.size)),
      Math.log((weight + SMOOTHING) / (all + SMOOTHING * classes.size)),
    ),
  }));
  const evened = Math.sqrt(Math.max(1, there.length));
  const most = Math.max(...scores.map((s) => s.score));
  const shares = scores.map(({ label, score }) => ({ label, probability: Math.exp(((score - most) * 2) / evened) }));
  const total = shares.reduce((sum, s) => sum + s.probability, 0);
  return shares
    .map(({ label, probability }) => ({ label, probability: probability / total }))
    .sort((a, b) => b.probability - a.probability || a.label.localeCompare(b.label));
}
