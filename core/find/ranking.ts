import type { FoundKind } from '../contract/foundKinds';

/** A word in a title says more than one in passing. Chosen by us. */
const KIND_WEIGHT: Record<FoundKind, number> = {
  ...{ title: 2.2, tag: 1.8, person: 1.8, note: 1.4, todo: 1.3, slip: 1.3, file: 0.8, passage: 1 },
};
const RECENCY = 0.3;
const RECENCY_DAYS = 120;
const MARKED = 0.25;

export type Ranked = {
  /** Okapi BM25, larger is better. */
  bm25: number;
  kind: FoundKind;
  /** Days since it was recorded. */
  ageDays: number;
  /** Whether a mark, a slip or a to-do of the person stands at it. */
  isMarked: boolean;
};

/**
 * How far up something stands: BM25 times the weight of its kind, up to 30 % more when it is new (half of that after
 * about 83 days) and 25 % more when the person has marked it. `docs/decisions/0020-finding.md` says why.
 */
export const rankOf = ({ bm25, kind, ageDays, isMarked }: Ranked): number =>
  bm25 *
  KIND_WEIGHT[kind] *
  (1 + RECENCY * Math.exp(-Math.max(0, ageDays) / RECENCY_DAYS)) *
  (1 + (isMarked ? MARKED : 0));
