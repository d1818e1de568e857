import type { Vocabulary } from '@immeld/core/find/spelling';
import { QueryTypes } from 'sequelize';
import type { FindDatabase } from './reader';

const FRESH_MS = 30_000;

/** The stems of the index with how many places each stands in, read at most every half minute. */
class IndexWords implements Vocabulary {
  private counts = new Map<string, number>();
  private byLength = new Map<number, [string, number][]>();
  private inOrder: readonly { term: string; doc: number }[] = [];
  private readAt = -Infinity;

  constructor(private readonly database: FindDatabase) {}

  async refresh(): Promise<this> {
    if (Date.now() - this.readAt < FRESH_MS) return this;
    this.readAt = Date.now();
    const rows = await this.database.query<{ term: string; doc: number }>(
      "SELECT term, doc FROM found_words WHERE col = 'text'",
      { type: QueryTypes.SELECT },
    );
    this.inOrder = rows.sort((a, b) => (a.term < b.term ? -1 : 1));
    this.counts = new Map(rows.map((r) => [r.term, r.doc]));
    this.byLength = new Map();
    for (const { term, doc } of rows) {
      const list = this.byLength.get(term.length);
      if (list) list.push([term, doc]);
      else this.byLength.set(term.length, [[term, doc]]);
    }
    return this;
  }

  has(stem: string): boolean {
    return this.counts.has(stem);
  }

  placesWith(stem: string): number {
    return this.counts.get(stem) ?? 0;
  }

  /** In how many places words begin so, a place counted again for each such word in it. */
  placesBeginning(beginning: string): number {
    let [from, to] = [0, this.inOrder.length];
    while (from < to) {
      const middle = (from + to) >> 1;
      if (this.inOrder[middle]!.term < beginning) from = middle + 1;
      else to = middle;
    }
    let sum = 0;
    for (let i = from; this.inOrder[i]?.term.startsWith(beginning); i++) sum += this.inOrder[i]!.doc;
    return sum;
  }

  words(length: number): Iterable<readonly [string, number]> {
    return this.byLength.get(length) ?? [];
  }
}

const known = new WeakMap<FindDatabase, IndexWords>();

/** The words of all accounts: what one of them said is never shown, it only tells what is a word at all. */
export async function indexWords(database: FindDatabase): Promise<IndexWords> {
  let words = known.get(database);
  if (!words) known.set(database, (words = new IndexWords(database)));
  return words.refresh();
}
