import type { Recording } from '../contract/recordings';
import type { TranscriptDocument } from '../formats/document';
import { FORMAT_TYPES, type Format } from '../formats/formats';
import { clockTime } from '../formats/times';
import type { Passage } from '../transcript/manuscript';
import { passagesToRead } from '../transcript/reading';
import { type ExportRules, SLIP_LABELS, consentLines, isWithin, marksOf } from './recordingDocument';

/** A recording as subtitles, as a table with times, or as data; what is chosen is left out before it is written. */
export function transcriptText(
  recording: Recording,
  format: Exclude<Format, 'txt'>,
  { choices, reading, kinds }: ExportRules,
): string {
  let passages: Passage[] = passagesToRead(recording.passages, reading);
  if (choices.marksOnly) {
    const marks = marksOf(recording);
    passages = passages
      .map((p) => ({ ...p, words: p.words.filter((w) => marks.some((m) => isWithin(w, m))) }))
      .filter((p) => p.words.length > 0)
      .map((p) => ({ ...p, startMs: p.words[0]!.startMs, endMs: p.words.at(-1)!.endMs }));
  }
  if (!choices.speakers) passages = passages.map((p) => ({ ...p, speaker: null }));
  const notes =
    choices.slips === 'none'
      ? []
      : recording.slips
          .filter((s) => s.text && !['heading', 'consent'].includes(s.kind))
          .map((s) => ({
            startMs: s.startMs,
            text: `${(s.mark && kinds.find((k) => k.id === s.mark)?.label) || SLIP_LABELS[s.kind]} at ${clockTime(s.startMs)}: ${s.text}`,
          }));
  const document: TranscriptDocument = {
    ...{ file: recording.fileName, title: recording.title ?? recording.suggestion.title ?? recording.fileName },
    ...{ durationMs: recording.durationMs ?? 0, language: recording.language ?? 'en', model: recording.model ?? '' },
    ...{ passages, notes, consent: choices.consent ? consentLines(recording) : [] },
  };
  return FORMAT_TYPES[format].write(document);
}
