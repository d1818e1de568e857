import { type Passage, type Word, endsSentence } from '../transcript/manuscript';

/** A subtitle: at most two lines. Times in milliseconds. */
export type Cue = { startMs: number; endMs: number; speaker: string | null; lines: string[] };

/** Common practice for subtitles, no source: two lines of 42 characters, one to seven seconds, 17 characters a second. */
const LINE_LENGTH = 42;
const MAX_PER_SECOND = 17;
const MAX_MS = 7000;
const MIN_MS = 1000;

/** Cuts passages into subtitles at the ends of sentences and clauses; none overlaps the next. */
export function cuesFrom(passages: readonly Passage[]): Cue[] {
  const cues: Cue[] = [];
  for (const passage of passages) {
    let open: Word[] = [];
    const close = () => {
      if (open.length === 0) return;
      cues.push({
        startMs: open[0]!.startMs,
        endMs: open.at(-1)!.endMs,
        speaker: passage.speaker,
        lines: twoLines(open.map((w) => w.text)),
      });
      open = [];
    };
    for (const word of passage.words) {
      const text = [...open, word].map((w) => w.text).join(' ');
      const tooLong = twoLines(text.split(' ')).some((line) => line.length > LINE_LENGTH);
      if (open.length && (tooLong || word.endMs - open[0]!.startMs > MAX_MS)) close();
      open.push(word);
      const length = open.map((w) => w.text).join(' ').length;
      if (endsSentence(word.text) || (/[,;:]$/.test(word.text) && length > LINE_LENGTH)) close();
    }
    close();
  }
  cues.forEach((cue, i) => {
    const next = cues[i + 1]?.startMs ?? Infinity;
    const length = cue.lines.reduce((sum, line) => sum + line.length, 0);
    // Where more was said than can be read, it stays as long as there is room before the next.
    const readMs = Math.min(MAX_MS, Math.max(MIN_MS, (length / MAX_PER_SECOND) * 1000));
    cue.endMs = Math.round(Math.min(Math.max(cue.endMs, cue.startMs + readMs), Math.max(next, cue.startMs + 1)));
  });
  return cues;
}

/** Words on one line if they fit, else on two lines of about the same length. */
function twoLines(words: readonly string[]): string[] {
  const whole = words.join(' ');
  if (whole.length <= LINE_LENGTH || words.length === 1) return [whole];
  let best = [whole];
  let least = Infinity;
  for (let i = 1; i < words.length; i++) {
    const lines = [words.slice(0, i).join(' '), words.slice(i).join(' ')];
    const longer = Math.max(...lines.map((l) => l.length));
    if (longer < least) [least, best] = [longer, lines];
  }
  return best;
}
