import type { NoteBody, NoteNode } from '../contract/notes';

/** A line of a note: what is written on it, or the rule under a column. */
export type NoteLine = { text: string } | { isRule: true };

/** Blocks whose text is not read for sums. */
export const QUOTED = new Set(['codeBlock']);
const INLINE = new Set(['text', 'hardBreak', 'mention']);

/** Whether a block holds text and no further blocks. */
export const isTextBlock = ({ content }: NoteNode): boolean => (content ?? []).every((c) => INLINE.has(c.type));

/** The lines of a block of text, parted where a line was broken by hand; what is no text holds one place. */
const linesOfBlock = (content: readonly NoteNode[]): string[] =>
  content
    .map((node) => (node.type === 'hardBreak' ? '\n' : (node.text ?? '\uFFFC')))
    .join('')
    .split('\n');

/** The lines of a note from the top, as `noteSums` reads them. */
export function linesOfBody(body: NoteNode): NoteLine[] {
  if (body.type === 'horizontalRule') return [{ isRule: true }];
  if (QUOTED.has(body.type)) return [];
  if (body.type !== 'doc' && isTextBlock(body)) return linesOfBlock(body.content ?? []).map((text) => ({ text }));
  return (body.content ?? []).flatMap(linesOfBody);
}

/** Whether anything in a note may be a sum. */
export const mayHaveSums = (body: NoteBody | null): boolean =>
  body !== null && linesOfBody(body).some((line) => 'isRule' in line || line.text.includes('='));
