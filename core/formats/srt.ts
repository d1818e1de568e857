import { cuesFrom } from './cues';
import type { TranscriptDocument } from './document';
import { cueTime } from './times';

/** SubRip subtitles: number, times with a comma, text, empty line. Common practice, no source. */
export const toSrt = (document: TranscriptDocument): string =>
  cuesFrom(document.passages)
    .map(
      ({ startMs, endMs, lines }, i) =>
        `${i + 1}\n${cueTime(startMs, ',')} --> ${cueTime(endMs, ',')}\n${lines.join('\n')}\n`,
    )
    .join('\n');
