import { passageText } from '../transcript/manuscript';
import type { TranscriptDocument } from './document';

/** Tab-separated passages: start and end in milliseconds, text with tabs and line breaks as spaces. */
export function toTsv(document: TranscriptDocument): string {
  const rows = document.passages.map((p) => [p.startMs, p.endMs, passageText(p).replace(/[\t\r\n]+/g, ' ')].join('\t'));
  return [['start', 'end', 'text'].join('\t'), ...rows, ''].join('\n');
}
