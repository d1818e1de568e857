import { paragraphsOf, passageText } from '../transcript/manuscript';
import type { TranscriptDocument } from './document';

/** Plain text: paragraphs with an empty line between, who speaks where it is known, no header; the consent first where it is wanted. */
export function toTxt(document: TranscriptDocument): string {
  const paragraphs = paragraphsOf(document.passages).map((group) =>
    [group[0]!.speaker ? `${group[0]!.speaker}:` : '', ...group.map(passageText)].filter(Boolean).join(' '),
  );
  const all = [...(document.consent ?? []).map((line) => `Consent: ${line}`), ...paragraphs];
  return all.length ? `${all.join('\n\n')}\n` : '';
}
