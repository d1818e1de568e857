import { HIT_END, HIT_START } from '../contract/find';
import { stem } from '../language/words';

/** What makes a word a hit: its stem is one of these, or it begins with the last word that was typed. */
export type SnippetTerms = { stems: ReadonlySet<string>; beginning: string | null };

const MAX_WORDS = 20;
const BEFORE = 5;

const isHit = (word: string, { stems, beginning }: SnippetTerms): boolean => {
  const plain = word.toLowerCase();
  return stems.has(stem(plain)) || (beginning !== null && plain.startsWith(beginning));
};

/**
 * The stretch of a text with the most of what was looked for, the hits between HIT_START and HIT_END; "…" where the
 * text goes on.
 */
export function snippetOf(text: string, sought: SnippetTerms): string {
  const pieces = text.split(/\s+/).filter(Boolean);
  const hits = pieces.map((piece) => (piece.match(/[\p{L}\p{N}]+/gu) ?? []).some((w) => isHit(w, sought)));
  let from = 0;
  let best = -1;
  for (let start = 0; start < Math.max(1, pieces.length); start++) {
    if (!hits[start] && start > 0) continue;
    const seen = new Set<string>();
    for (let i = start; i < Math.min(pieces.length, start + MAX_WORDS - BEFORE); i++) {
      if (hits[i]) seen.add(stem(pieces[i]!.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '')));
    }
    if (seen.size > best) [best, from] = [seen.size, Math.max(0, start - BEFORE)];
  }
  const shown = pieces.slice(from, from + MAX_WORDS).map((piece, i) => {
    if (!hits[from + i]) return piece;
    return piece.replace(/[\p{L}\p{N}]+/gu, (word) => (isHit(word, sought) ? HIT_START + word + HIT_END : word));
  });
  const end = from + MAX_WORDS < pieces.length ? '…' : '';
  return `${from > 0 ? '…' : ''}${shown.join(' ')}${end}`;
}
