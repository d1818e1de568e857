/** Token paths that spell names: each node is a map from token to the next node. */
export type NameTrie = { next: Map<number, NameTrie>; ends: boolean };

const MAX_PIECES = 5;

/**
 * All ways to write names in the pieces of a vocabulary, five pieces at most.
 * @param idOf id of a piece, "▁" for the space before a word
 */
export function nameTrie(names: readonly string[], idOf: (piece: string) => number | undefined): NameTrie {
  const root: NameTrie = { next: new Map(), ends: false };
  const add = (ids: readonly number[]) => {
    let node = root;
    for (const id of ids) {
      let child = node.next.get(id);
      if (!child) node.next.set(id, (child = { next: new Map(), ends: false }));
      node = child;
    }
    node.ends = true;
  };
  for (const name of names) {
    const spelled = `▁${name.trim().replace(/\s+/g, '▁')}`;
    const from = (at: number, ids: readonly number[]): void => {
      if (at === spelled.length) return add(ids);
      if (ids.length >= MAX_PIECES) return;
      for (let end = at + (at === 0 ? 2 : 1); end <= spelled.length; end++) {
        const id = idOf(spelled.slice(at, end));
        if (id !== undefined) from(end, [...ids, id]);
      }
    };
    from(0, []);
  }
  return root;
}

export type BeamRules = { width: number; bonusPerToken: number; mostBonus: number };

/** One step of the decoder: logits after the last of these tokens, and what it remembers of them. */
export type Step<Past> = (
  tokens: readonly number[],
  past: Past | null,
) => Promise<{ logits: Float32Array; past: Past }>;

type Beam<Past> = {
  tokens: number[];
  logProbability: number;
  past: Past | null;
  /** What still has to go in. */
  input: readonly number[];
  /** Where in a name it is, and what that is worth so far. */
  node: NameTrie | null;
  pending: number;
  /** What complete names have earned. */
  earned: number;
};

/** What is less likely by so much is not followed. */
const FAR = 9;
const NAME_FAR = 13;

/**
 * Beam search in which the tokens of listed names earn a bonus, which is lost again when the name is not completed
 * (contextual biasing by shallow fusion, after Zhao et al. 2019, "Shallow-fusion end-to-end contextual biasing").
 * @param prefix tokens that stand fast, the start token first
 * @param isWordStart whether a token begins a word, is a mark or the end: only then is a name complete
 * @returns all tokens after the start token, without the end
 */
export async function decodeWithNames<Past>(
  prefix: readonly number[],
  step: Step<Past>,
  trie: NameTrie,
  { width, bonusPerToken, mostBonus }: BeamRules,
  {
    end,
    size,
    most,
    isWordStart,
  }: { end: number; size: number; most: number; isWordStart: (token: number) => boolean },
): Promise<number[] | null> {
  const worth = (beam: { logProbability: number; earned: number; pending: number }) =>
    beam.logProbability + beam.earned + beam.pending;
  let beams: Beam<Past>[] = [
    { tokens: prefix.slice(1), logProbability: 0, past: null, input: prefix, node: null, pending: 0, earned: 0 },
  ];
  const finished: Beam<Past>[] = [];
  while (beams.length && beams[0]!.tokens.length < most) {
    const all: Beam<Past>[] = [];
    for (const beam of beams) {
      const { logits, past } = await step(beam.input, beam.past);
      for (const [token, logProbability] of likelyTokens(logits, size, width + 2, beam.node, trie)) {
        const goesOn = beam.node?.next.get(token);
        const begins = goesOn ? undefined : trie.next.get(token);
        const node = goesOn ?? begins ?? null;
        const isComplete = Boolean(beam.node?.ends) && !goesOn && isWordStart(token);
        const pending = goesOn ? beam.pending + bonusPerToken : begins ? bonusPerToken : 0;
        all.push({
          tokens: [...beam.tokens, token],
          logProbability: beam.logProbability + logProbability,
          ...{ past, input: [token], node, pending: Math.min(pending, mostBonus) },
          earned: beam.earned + (isComplete ? beam.pending : 0),
        });
      }
    }
    all.sort((a, b) => worth(b) - worth(a));
    beams = [];
    for (const beam of all) {
      if (beams.length >= width) break;
      if (beam.tokens.at(-1) === end) finished.push(beam);
      else beams.push(beam);
    }
    finished.sort((a, b) => worth(b) - worth(a));
    if (finished.length && (!beams.length || worth(finished[0]!) >= worth(beams[0]!))) break;
  }
  return finished[0]?.tokens.slice(0, -1) ?? null;
}

/** The likeliest tokens, and those with which a name begins or goes on, with their log probabilities. */
function likelyTokens(
  logits: Float32Array,
  size: number,
  count: number,
  node: NameTrie | null,
  trie: NameTrie,
): Map<number, number> {
  let largest = -Infinity;
  for (let i = 0; i < size; i++) if (logits[i]! > largest) largest = logits[i]!;
  let sum = 0;
  const near: number[] = [];
  for (let i = 0; i < size; i++) {
    const below = logits[i]! - largest;
    if (below > -12) sum += Math.exp(below);
    if (below > -FAR) near.push(i);
  }
  const total = largest + Math.log(sum);
  near.sort((a, b) => logits[b]! - logits[a]!);
  const chosen = new Map<number, number>();
  for (const token of near.slice(0, count)) chosen.set(token, logits[token]! - total);
  for (const { next } of node ? [node, trie] : [trie]) {
    for (const token of next.keys()) {
      if (logits[token]! - total > -NAME_FAR) chosen.set(token, logits[token]! - total);
    }
  }
  return chosen;
}
