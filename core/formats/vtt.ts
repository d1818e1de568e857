import { cuesFrom } from './cues';
import type { TranscriptDocument } from './document';
import { cueTime } from './times';

const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** WebVTT: The Web Video Text Tracks Format (W3C), with voice spans where the speaker is known. */
export function toVtt(document: TranscriptDocument): string {
  const cues = cuesFrom(document.passages).map(({ startMs, endMs, speaker, lines }, i) => {
    const text = lines.map(escaped).join('\n');
    const voiced = speaker ? `<v ${escaped(speaker.replace(/[\n>]/g, ' '))}>${text}</v>` : text;
    return `${i + 1}\n${cueTime(startMs, '.')} --> ${cueTime(endMs, '.')}\n${voiced}\n`;
  });
  const notes = (document.consent ?? []).map((line) => `NOTE Consent: ${line.replace(/-->|\n/g, ' ')}\n`);
  return ['WEBVTT\n', ...notes, ...cues].join('\n');
}
