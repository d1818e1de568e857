/** One thing that is known to have a label. */
export type Example = { features: ReadonlySet<string>; label: string; weight?: number };

/** This share of all words counts as said under each label, and no more than so many. */
const SMOOTHING_SHARE = 0.4;
const MAX_SMOOTHING_WORDS = 300;
/** So many examples count as having each label's circumstances as often as all have them. */
const CIRCUMSTANCE_SMOOTHING = 10;
const LABEL_SMOOTHING = 0.1;

/** Features that are no words begin with it. */
const CIRCUMSTANCE = '@';

type Counted = {
  weight: number;
  /** Weight of the examples of which a circumstance is known. */
  circumstanced: number;
  /** All words of all examples. */
  words: number;
  counts: Map<string, number>;
};

const nothing = (): Counted => ({ weight: 0, circumstanced: 0, words: 0, counts: new Map() });

function count(into: Counted, features: ReadonlySet<string>, weight: number): void {
  into.weight += weight;
  let hasCircumstance = false;
  for (const f of features) {
    if (f.startsWith(CIRCUMSTANCE)) hasCircumstance = true;
    else into.words += weight;
    into.counts.set(f, (into.counts.get(f) ?? 0) + weight);
  }
  if (hasCircumstance) into.circumstanced += weight;
}

/**
 * Labels with their probability, mostProbableClass first: a naive Bayes classifier in which each example has each of its features
 * once (Manning, Raghavan and Schütze 2008, Introduction to Information Retrieval, chapter 13). A word weighs by its share
 * among all words of a label (section 13.2), evened out with its share among all words of all labels (Dirichlet prior
 * smoothing, Zhai and Lafferty 2004, A study of smoothing methods for language models): neither a lecture in which nearly
 * every word stands nor a label of few words draws everything to itself. A circumstance weighs by the share of a label's
 * examples that have it, so that it tells as little as it does where it is common to all. Probabilities are evened out,
 * since features are not independent of each other.
 */
export function mostProbableClass(
  features: ReadonlySet<string>,
  examples: readonly Example[],
): { label: string; probability: number }[] {
  const all = nothing();
  const labels = new Map<string, Counted>();
  for (const { features: own, label, weight = 1 } of examples) {
    if (!labels.has(label)) labels.set(label, nothing());
    count(labels.get(label)!, own, weight);
    count(all, own, weight);
  }
  const there = [...features].filter((f) => all.counts.has(f));
  const likelihood = (f: string, { counts, words, circumstanced }: Counted): number => {
    const [total, allTotal, smoothing] = f.startsWith(CIRCUMSTANCE)
      ? [circumstanced, all.circumstanced, CIRCUMSTANCE_SMOOTHING]
      : [words, all.words, Math.min(MAX_SMOOTHING_WORDS, SMOOTHING_SHARE * all.words)];
    return ((counts.get(f) ?? 0) + (smoothing * all.counts.get(f)!) / allTotal) / (total + smoothing);
  };
  const scores = [...labels].map(([label, counted]) => ({
    label,
    score: there.reduce(
      (sum, f) => sum + Math.log(likelihood(f, counted)),
      Math.log((counted.weight + LABEL_SMOOTHING) / (all.weight + LABEL_SMOOTHING * labels.size)),
    ),
  }));
  const evened = Math.max(1, Math.sqrt(there.length) / 2);
  const most = Math.max(...scores.map((s) => s.score));
  const shares = scores.map(({ label, score }) => ({ label, probability: Math.exp((score - most) / evened) }));
  const total = shares.reduce((sum, s) => sum + s.probability, 0);
  return shares
    .map(({ label, probability }) => ({ label, probability: probability / total }))
    .sort((a, b) => b.probability - a.probability || a.label.localeCompare(b.label));
}
