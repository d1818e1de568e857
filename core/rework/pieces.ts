import { diffWordsWithSpace } from 'diff';
import type { Edit, Piece } from '../contract/rework';

/** A stretch of a text, with its offsets in UTF-16 units. */
export type Stretch = { from: number; to: number; text: string };

const ABBREVIATION = /\b(?:e\.g|i\.e|etc|dr|mr|mrs|ms|no|approx|cf|st)\.$/i;

/** The sentences of a text where they stand; what lies between them belongs to none. */
export function sentencesAt(text: string): Stretch[] {
  const found: Stretch[] = [];
  let from = 0;
  const ends = /(?<![.?!…。！？؟।])[.?!…。！？؟।]+["'”’)」]*(?=\s|$)/gu;
  const add = (to: number) => {
    const raw = text.slice(from, to);
    const start = from + (raw.length - raw.trimStart().length);
    const trimmed = raw.trim();
    if (trimmed) found.push({ from: start, to: start + trimmed.length, text: trimmed });
    from = to;
  };
  for (let match = ends.exec(text); match; match = ends.exec(text)) {
    const to = match.index + match[0].length;
    if (!ABBREVIATION.test(text.slice(from, to))) add(to);
  }
  add(text.length);
  return found;
}

/** The changes, word by word, that make one text of another (Myers' difference, package `diff`), from `offset` on. */
export function editsBetween(before: string, after: string, offset = 0): Edit[] {
  const edits: Edit[] = [];
  let at = offset;
  for (const { value, added, removed } of diffWordsWithSpace(before, after)) {
    const last = edits.at(-1);
    if (added) {
      if (last && last.to === at) last.insert += value;
      else edits.push({ from: at, to: at, insert: value });
    } else if (removed) {
      if (last && last.to === at) last.to += value.length;
      else edits.push({ from: at, to: at + value.length, insert: '' });
      at += value.length;
    } else at += value.length;
  }
  return edits;
}

/** A text with some edits made. They must not overlap. */
export function applyEdits(text: string, edits: readonly Edit[]): string {
  let result = text;
  for (const { from, to, insert } of [...edits].sort((a, b) => b.from - a.from)) {
    result = result.slice(0, from) + insert + result.slice(to);
  }
  return result;
}

/** A stretch with another text in its place; null where nothing changes. */
export function pieceOf(block: number, stretch: Stretch, after: string, reasons: string[]): Piece | null {
  if (after === stretch.text) return null;
  return { block, before: stretch.text, after, reasons, edits: editsBetween(stretch.text, after, stretch.from) };
}
