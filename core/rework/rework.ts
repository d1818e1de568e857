import type { Piece, Way } from '../contract/rework';
import { pieceOf, sentencesAt } from './pieces';
import { type Speller, plainer, proofread } from './proofread';
import { type Reworked, formal, friendly, shorter } from './styles';

const STYLES: Record<'shorter' | 'formal' | 'friendly', (sentence: string) => Reworked> = { shorter, formal, friendly };

/** Proposals for the paragraphs of a text, in their order; nothing is changed by itself. */
export async function rework(blocks: readonly string[], way: Way, speller: Speller): Promise<Piece[]> {
  const pieces: Piece[] = [];
  for (const [block, text] of blocks.entries()) {
    if (way === 'proofread') pieces.push(...(await proofread(block, text, speller)));
    else if (way === 'plainer') pieces.push(...(await plainer(block, text)));
    else {
      for (const stretch of sentencesAt(text)) {
        const { text: after, reasons } = STYLES[way](stretch.text);
        const piece = reasons.length ? pieceOf(block, stretch, after, reasons) : null;
        if (piece) pieces.push(piece);
      }
    }
  }
  return pieces;
}
