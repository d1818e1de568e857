import { slipPlace } from '../formats/slipPlace';
import type { Recording } from '../contract/recordings';
import type { TranscriptDocument } from '../formats/document';
import { FORMAT_TYPES, type Format } from '../formats/formats';
import type { Passage } from '../transcript/manuscript';
import { passagesToRead } from '../transcript/reading';
import { type ExportRules, SLIP_LABELS, consentLines, isWithin, marksOf, titleOf } from './recordingDocument';

/** The words of a recording as plain text, subtitles, a table with times, or data. What is not chosen is left out. */
export function transcriptText(recording: Recording, format: Format, { choices, reading, kinds }: ExportRules): string {
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
            text: `${(s.mark && kinds.find((k) => k.id === s.mark)?.label) || SLIP_LABELS[s.kind]} ${slipPlace(s)}: ${s.text}`,
          }));
  const document: TranscriptDocument = {
    ...{ file: recording.fileName, title: titleOf(recording) },
    ...{ durationMs: recording.durationMs ?? 0, language: recording.language ?? 'en', model: recording.model ?? '' },
    ...{ passages, notes, consent: choices.consent ? consentLines(recording) : [] },
  };
  return FORMAT_TYPES[format].write(document);
}
