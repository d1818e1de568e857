import { cuesFrom } from './cues';
import type { TranscriptDocument } from './document';
import { cueTime } from './times';

/** A comment block: it ends at an empty line and holds no arrow (WebVTT, 4.1). */
const comment = (text: string): string => `NOTE ${text.replace(/-->/g, '→').replace(/\s+/g, ' ')}\n`;

const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** WebVTT: The Web Video Text Tracks Format (W3C), with voice spans where the speaker is known. */
export function toVtt(document: TranscriptDocument): string {
  const waiting = [...(document.notes ?? [])].sort((a, b) => a.startMs - b.startMs);
  const cues = cuesFrom(document.passages).map(({ startMs, endMs, speaker, lines }, i) => {
    let notes = '';
    while (waiting[0] && waiting[0].startMs < endMs) notes += `${comment(waiting.shift()!.text)}\n`;
    const text = lines.map(escaped).join('\n');
    const voiced = speaker ? `<v ${escaped(speaker.replace(/[\n>]/g, ' '))}>${text}</v>` : text;
    return `${notes}${i + 1}\n${cueTime(startMs, '.')} --> ${cueTime(endMs, '.')}\n${voiced}\n`;
  });
  const consents = (document.consent ?? []).map((line) => comment(`Consent: ${line}`));
  return ['WEBVTT\n', ...consents, ...cues, ...waiting.map((n) => comment(n.text))].join('\n');
}
