import type { Piece } from '@immeld/core/contract/rework';
import type { Editor } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import type { EditorState } from '@tiptap/pm/state';

/** A paragraph, heading or the like: where its text begins in the document. What is no text in it counts as one sign. */
export type Block = { at: number; text: string };

const LEAF = '\uFFFC';
const textOf = (node: Node): string => node.textBetween(0, node.content.size, undefined, LEAF);

/**
 * The paragraphs of a note, or those that are touched by what is selected.
 * @param among as many as these were, after a change: the same ones
 */
export function blocksOf({ doc, selection }: EditorState, among?: readonly Block[]): Block[] {
  const found: Block[] = [];
  const isPart = !selection.empty;
  doc.descendants((node, position) => {
    if (!node.isTextblock) return true;
    const isIn = !isPart || (position < selection.to && position + node.nodeSize > selection.from);
    if (isIn && node.type.name !== 'codeBlock') found.push({ at: position + 1, text: textOf(node) });
    return false;
  });
  return among && among.length !== found.length ? [...among] : found;
}

/**
 * Makes the changes of a piece where it stands; marks and links around it stay.
 * @returns false where the paragraph was changed since, and nothing is done
 */
export function applyPiece(
  editor: Editor,
  blocks: readonly Block[],
  { block, edits }: Pick<Piece, 'block' | 'edits'>,
): boolean {
  const place = blocks[block];
  const { state } = editor;
  const node = place && state.doc.resolve(Math.min(place.at, state.doc.content.size)).parent;
  if (!place || !node?.isTextblock || textOf(node) !== place.text) return false;
  const { tr } = state;
  for (const { from, to, insert } of [...edits].sort((a, b) => b.from - a.from)) {
    const [start, end] = [place.at + from, place.at + to];
    if (insert) tr.insertText(insert, start, end);
    else tr.delete(start, end);
  }
  editor.view.dispatch(tr);
  return true;
}

/** What is left of some pieces after one of them was taken: those behind it in its paragraph have moved. */
export function shiftedBy(pieces: readonly Piece[], taken: Piece): Piece[] {
  const last = taken.edits.at(-1)!;
  const grown = taken.edits.reduce((sum, { from, to, insert }) => sum + insert.length - (to - from), 0);
  return pieces
    .filter((p) => p !== taken)
    .map((p) =>
      p.block !== taken.block || p.edits[0]!.from < last.to
        ? p
        : { ...p, edits: p.edits.map((e) => ({ ...e, from: e.from + grown, to: e.to + grown })) },
    );
}
