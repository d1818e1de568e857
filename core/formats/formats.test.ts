import { tsvParse } from 'd3-dsv';
import SrtParser from 'srt-parser-2';
import { WebVTTParser } from 'webvtt-parser';
import type { Word } from '../transcript/manuscript';
import { cuesFrom } from './cues';
import type { TranscriptDocument } from './document';
import { FORMATS, FORMAT_TYPES } from './formats';
import { clockTime, cueTime } from './times';

const words = (text: string, fromMs: number): Word[] =>
  text
    .split(' ')
    .map((word, i) => ({ startMs: fromMs + i * 400, endMs: fromMs + i * 400 + 350, text: word, confidence: 0.9 }));

const passage = (text: string, fromMs: number, startsParagraph: boolean, speaker: string | null = null) => ({
  ...{
    startMs: fromMs,
    endMs: fromMs + text.split(' ').length * 400,
    speaker,
    startsParagraph,
    words: words(text, fromMs),
  },
});

const DOCUMENT: TranscriptDocument = {
  ...{ file: 'quay.m4a', title: 'Quay', durationMs: 4_000_000, language: 'en', model: 'english-tiny-1' },
  passages: [
    passage(
      'The clay & the loam <both> hold water, and a young lime drinks four millimetres on a hot day in July.',
      500,
      true,
    ),
    passage('Then it waits.', 12_000, false),
    passage('We\tplant\ton Friday.', 3_725_250, true, 'Bram <V.>'),
  ],
};
const write = (format: (typeof FORMATS)[number]) => FORMAT_TYPES[format].write(DOCUMENT);
const said = DOCUMENT.passages.map((p) => p.words.map((w) => w.text).join(' '));

describe('formats, read back by other people’s programs', () => {
  it('WebVTT: the parser of the specification’s editors finds no error and all the words', () => {
    // webvtt-parser follows "WebVTT: The Web Video Text Tracks Format" (W3C).
    const { cues, errors } = new WebVTTParser().parse(write('vtt'), 'metadata');
    expect(errors).toEqual([]);
    expect(cues.length).toBeGreaterThan(2);
    expect(cues[0]!.startTime).toBeCloseTo(0.5);
    const text = cues.map((c) => c.text.replace(/<\/?v[^>]*>/g, '').replace(/\s+/g, ' ')).join(' ');
    expect(text.replace(/&lt;/g, '<').replace(/&gt;/g, '>').replace(/&amp;/g, '&')).toBe(
      said.join(' ').replace(/\t/g, ' '),
    );
  });

  it('SRT: an independent parser finds the same cues', () => {
    const entries = new SrtParser().fromSrt(write('srt'));
    expect(entries).toHaveLength(cuesFrom(DOCUMENT.passages).length);
    expect(entries.at(-1)).toMatchObject({ startSeconds: 3725.25 });
    expect(entries.map((e) => e.id)).toEqual(entries.map((_, i) => String(i + 1)));
  });

  it('TSV: an independent parser finds start, end and text', () => {
    const rows = tsvParse(write('tsv'));
    expect(rows.columns).toEqual(['start', 'end', 'text']);
    expect(rows.map((r) => r['text'])).toEqual(said.map((s) => s.replace(/\t/g, ' ')));
    expect(rows.map((r) => Number(r['start']))).toEqual([500, 12_000, 3_725_250]);
  });

  it('plain text: paragraphs, who speaks where it is known, no header', () => {
    expect(write('txt')).toBe(`${said[0]} ${said[1]}\n\nBram <V.>: ${said[2]}\n`);
  });

  it('JSON: the documented shape', () => {
    const json = JSON.parse(write('json')) as Record<string, unknown> & { passages: Record<string, unknown>[] };
    expect(Object.keys(json)).toEqual(['file', 'durationMs', 'language', 'model', 'passages']);
    expect(Object.keys(json.passages[0]!)).toEqual(['startMs', 'endMs', 'speaker', 'text', 'words']);
    expect(json.passages[2]!['speaker']).toBe('Bram <V.>');
  });

  it.each(FORMATS)('%s of nothing is still well formed', (format) => {
    const text = FORMAT_TYPES[format].write({ ...DOCUMENT, passages: [] });
    expect(text).not.toMatch(/undefined|NaN/);
  });
});

describe('subtitles', () => {
  it('have at most two lines of 42 characters, seven seconds, and do not overlap', () => {
    const cues = cuesFrom(DOCUMENT.passages);
    cues.forEach((cue, i) => {
      expect(cue.lines.length).toBeLessThanOrEqual(2);
      for (const line of cue.lines) expect(line.length).toBeLessThanOrEqual(42);
      expect(cue.endMs - cue.startMs).toBeLessThanOrEqual(7000);
      expect(cue.endMs).toBeGreaterThan(cue.startMs);
      if (i) expect(cue.startMs).toBeGreaterThanOrEqual(cues[i - 1]!.endMs);
    });
  });
});

describe('times', () => {
  it.each([
    [0, '0:00', '00:00:00.000'],
    [61_234, '1:01', '00:01:01.234'],
    [3_600_000, '1:00:00', '01:00:00.000'],
    [359_999_999, '99:59:59', '99:59:59.999'],
  ])('%d ms', (ms, clock, cue) => {
    expect(clockTime(ms)).toBe(clock);
    expect(cueTime(ms, '.')).toBe(cue);
  });
});

describe('the consent note', () => {
  const withConsent = { ...DOCUMENT, consent: ['All agreed aloud, at 0:12', 'Edda --> by letter'] };
  it('stands where a format has a place for it, and breaks nothing', () => {
    expect(FORMAT_TYPES.txt.write(withConsent)).toMatch(/^Consent: All agreed aloud, at 0:12\n\nConsent: Edda/);
    expect(JSON.parse(FORMAT_TYPES.json.write(withConsent))).toHaveProperty('consent', withConsent.consent);
    const vtt = FORMAT_TYPES.vtt.write(withConsent);
    expect(vtt).toContain('NOTE Consent: All agreed aloud, at 0:12\n');
    const { errors, cues } = new WebVTTParser().parse(vtt, 'metadata');
    expect(errors).toEqual([]);
    expect(cues).toHaveLength(new WebVTTParser().parse(write('vtt'), 'metadata').cues.length);
  });
  it('is left out unless it is wanted', () => {
    for (const format of FORMATS) expect(write(format)).not.toMatch(/consent/i);
  });
});
