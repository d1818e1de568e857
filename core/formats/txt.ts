import { paragraphsOf, passageText } from '../transcript/manuscript';
import type { TranscriptDocument } from './document';

/** Plain text: paragraphs with an empty line between, no header, nothing to delete. */
export function toTxt(document: TranscriptDocument): string {
  const paragraphs = paragraphsOf(document.passages).map((group) => group.map(passageText).join(' '));
  return paragraphs.length ? `${paragraphs.join('\n\n')}\n` : '';
}
