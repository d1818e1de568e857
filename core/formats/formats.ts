import type { TranscriptDocument } from './document';
import { toJson } from './json';
import { toSrt } from './srt';
import { toTsv } from './tsv';
import { toTxt } from './txt';
import { toVtt } from './vtt';

export const FORMATS = ['txt', 'vtt', 'srt', 'tsv', 'json'] as const;
export type Format = (typeof FORMATS)[number];

export const FORMAT_TYPES: Record<
  Format,
  { mediaType: string; label: string; write: (d: TranscriptDocument) => string }
> = {
  txt: { mediaType: 'text/plain; charset=utf-8', label: 'Plain text', write: toTxt },
  vtt: { mediaType: 'text/vtt; charset=utf-8', label: 'Subtitles for the web (WebVTT)', write: toVtt },
  srt: { mediaType: 'application/x-subrip; charset=utf-8', label: 'Subtitles for video (SRT)', write: toSrt },
  tsv: { mediaType: 'text/tab-separated-values; charset=utf-8', label: 'Table with times (TSV)', write: toTsv },
  json: { mediaType: 'application/json; charset=utf-8', label: 'Data for programs (JSON)', write: toJson },
};
