import type { Sentence } from './sentences';
import { keyPhrases, stemCounts } from './title';
import { topicStems } from './words';

/** A part of a long recording; `sentence` is the number of the one it begins with. */
export type Part = { title: string; startMs: number; sentence: number };

/** Hearst's w and k, in words that carry a topic: of speech, every second or third word. */
const SEQUENCE_WORDS = 10;
const BLOCK_SEQUENCES = 6;
/** Shorter talks are one part. */
const MIN_TALK_SENTENCES = 24;
const MIN_PART_SENTENCES = 8;
const MAX_TITLE = 48;

/** Turns of phrase with which a speaker goes on to something else. Common practice, no source. */
const TURNS =
  /^(?:(?:so|and|but|right|okay|well|good)[, ]+)*(?:now (?:we|let|i|think|look|to)|let us (?:begin|start|turn|look|come|go on)|let me (?:sum|come|show|tell|turn)|(?:the )?(?:first|second|third|next|last|final)(?:ly)?(?: (?:question|point|part|topic|thing|word))?[,.:]|one more thing|another (?:question|point|thing)|to sum up|in conclusion|before (?:i|we) (?:come|go|end)|next (?:question|point|topic)|(?:and )?(?:one|a) (?:last )?warning|somebody asked|what can be done)\b/i;
const TURN_BONUS = 0.35;

/** Whether a sentence is one with which speakers turn to something else. */
export const beginsPart = (sentence: string): boolean => TURNS.test(sentence);

/**
 * Cuts a talk into parts where its words change.
 * Method: TextTiling (Hearst 1997, "TextTiling: Segmenting Text into Multi-paragraph Subtopic Passages"): similarity of
 * neighbouring blocks of words, depth of its valleys, boundaries at those deeper than the mean less half a standard
 * deviation, moved to the beginning of a sentence; here a sentence with which speakers turn to something else counts more.
 * @returns no parts where the talk is too short to have any, else at least two, the first at the beginning
 */
export function partsOf(sentences: readonly Sentence[]): Part[] {
  if (sentences.length < MIN_TALK_SENTENCES) return [];
  const boundaries = boundariesOf(sentences.map((s) => s.text));
  if (boundaries.length === 0) return [];
  const starts = [0, ...boundaries];
  const everywhere = stemCounts(sentences.map((s) => s.text));
  return starts.map((start, i) => {
    const texts = sentences.slice(start, starts[i + 1] ?? sentences.length).map((s) => s.text);
    return { title: titleOf(texts, everywhere), startMs: sentences[start]!.startMs ?? 0, sentence: start };
  });
}

/** Numbers of the sentences with which a new part begins, without the first. */
export function boundariesOf(sentences: readonly string[]): number[] {
  const words: { stem: string; sentence: number }[] = sentences.flatMap((text, sentence) =>
    topicStems(text).map((stem) => ({ stem, sentence })),
  );
  const sequences: (typeof words)[] = [];
  for (let i = 0; i + SEQUENCE_WORDS <= words.length; i += SEQUENCE_WORDS)
    sequences.push(words.slice(i, i + SEQUENCE_WORDS));
  const scores: number[] = [];
  for (let gap = 1; gap < sequences.length; gap++) {
    const before = counts(sequences.slice(Math.max(0, gap - BLOCK_SEQUENCES), gap).flat());
    const after = counts(sequences.slice(gap, gap + BLOCK_SEQUENCES).flat());
    scores.push(cosine(before, after));
  }
  if (scores.length < 3) return [];
  const depths = smooth(scores).map((score, i, all) => peak(all, i, -1) + peak(all, i, 1) - 2 * score);
  // A valley between two sequences belongs to the nearest sentence that can begin a part.
  const bySentence = new Map<number, number>();
  depths.forEach((depth, i) => {
    const at = sequences[i + 1]![0]!.sentence;
    const near = [at - 2, at - 1, at, at + 1, at + 2].filter((s) => s > 0 && s < sentences.length);
    for (const s of near) {
      const value = depth - 0.04 * Math.abs(s - at) + (beginsPart(sentences[s]!) ? TURN_BONUS : 0);
      bySentence.set(s, Math.max(bySentence.get(s) ?? -Infinity, value));
    }
  });
  const mean = depths.reduce((a, b) => a + b, 0) / depths.length;
  const deviation = Math.sqrt(depths.reduce((sum, d) => sum + (d - mean) ** 2, 0) / depths.length);
  const candidates = [...bySentence].filter(([, v]) => v > mean + deviation / 2).sort((a, b) => b[1] - a[1]);
  const chosen: number[] = [];
  for (const [sentence] of candidates) {
    const isFar = [0, sentences.length, ...chosen].every((c) => Math.abs(c - sentence) >= MIN_PART_SENTENCES);
    if (isFar) chosen.push(sentence);
  }
  return chosen.sort((a, b) => a - b);
}

const counts = (words: readonly { stem: string }[]): Map<string, number> => {
  const found = new Map<string, number>();
  for (const { stem } of words) found.set(stem, (found.get(stem) ?? 0) + 1);
  return found;
};

function cosine(a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>): number {
  let dot = 0;
  for (const [word, n] of a) dot += n * (b.get(word) ?? 0);
  const length = (m: ReadonlyMap<string, number>) => Math.sqrt([...m.values()].reduce((s, n) => s + n * n, 0));
  return dot / (length(a) * length(b) || 1);
}

const smooth = (values: readonly number[]): number[] =>
  values.map((v, i) => {
    const around = [values[i - 1] ?? v, v, values[i + 1] ?? v];
    return around.reduce((a, b) => a + b, 0) / 3;
  });

/** The height of the nearest peak on one side. */
function peak(values: readonly number[], from: number, step: -1 | 1): number {
  let highest = values[from]!;
  for (let i = from + step; i >= 0 && i < values.length; i += step) {
    if (values[i]! < highest) break;
    highest = values[i]!;
  }
  return highest;
}

/** What a speaker announces at the beginning of a part. Common practice, no source. */
const ANNOUNCED = [
  /\b(?:show|tell|explain to) you (how [^,.;:?!]+)/i,
  /\basked (?:\w+ ){0,4}?((?:how|why|what|when|where|whether) [^,.;:?!]+)/i,
  /\b(?:come|turn|look|get|go on|move on|begin|start|talk|speak|think)(?:ing)? (?:to|at|of|about|with) ([^,.;:?!]+)/i,
  /\b((?:warning|word|question|story|example)s? (?:about|on|of) [^,.;:?!]+)/i,
];

/** What was announced in the first sentence; else what is often said in this part and seldom in the others. */
function titleOf(texts: readonly string[], everywhere: ReadonlyMap<string, number>): string {
  const announced = ANNOUNCED.map((pattern) => pattern.exec(texts[0]!)?.[1]?.trim()).find(
    (found) => found && found.length <= MAX_TITLE && topicStems(found).some((s) => !EMPTY_STEMS.has(s)),
  );
  const phrases = keyPhrases(mostTelling(texts, everywhere), 6, everywhere);
  // What was said once may be misheard, and says little about the whole.
  const here = stemCounts(texts);
  const repeated = phrases.filter((p) => topicStems(p).every((s) => (here.get(s) ?? 0) > 1));
  const [first = phrases[0] ?? '', second] = repeated;
  const both = second && first.length + second.length + 5 <= MAX_TITLE ? `${first} and ${second}` : first;
  const title = announced || both || texts[0]!.split(/\s+/).slice(0, 6).join(' ');
  return title.charAt(0).toUpperCase() + title.slice(1);
}

/** Sentences of a part that are looked at for its title: finding phrases in all takes seconds in hours of talk. */
const LOOKED_AT = 5;

/** The sentences with most of what is said often here and seldom elsewhere, in their order. */
function mostTelling(texts: readonly string[], everywhere: ReadonlyMap<string, number>): string[] {
  if (texts.length <= LOOKED_AT) return [...texts];
  const here = stemCounts(texts);
  const weight = (stem: string) => (here.get(stem)! - 1) * (here.get(stem)! / Math.max(1, everywhere.get(stem) ?? 1));
  return texts
    .map((text, i) => ({ text, i, weight: [...new Set(topicStems(text))].reduce((sum, s) => sum + weight(s), 0) }))
    .sort((a, b) => b.weight - a.weight)
    .slice(0, LOOKED_AT)
    .sort((a, b) => a.i - b.i)
    .map(({ text }) => text);
}

/** Stems of words that name no topic where they stand alone in an announcement. */
const EMPTY_STEMS = new Set(
  topicStems('first second third final other word question story example warning topic subject'),
);

/**
 * Pk (Beeferman, Berger, Lafferty 1999, "Statistical Models for Text Segmentation"): how often two sentences a window
 * apart are wrongly said to be in the same part or in two. 0 is perfect; the window is half the mean length of a part.
 */
export function pk(wanted: readonly number[], found: readonly number[], sentences: number): number {
  const window = Math.max(2, Math.round(sentences / (wanted.length + 1) / 2));
  const isCut = (cuts: readonly number[], i: number) => cuts.some((c) => c > i && c <= i + window);
  let wrong = 0;
  let count = 0;
  for (let i = 0; i + window < sentences; i++) {
    count++;
    if (isCut(wanted, i) !== isCut(found, i)) wrong++;
  }
  return count ? wrong / count : 0;
}

/** WindowDiff (Pevzner and Hearst 2002): as Pk, but the number of boundaries in the window has to be the same. */
export function windowDiff(wanted: readonly number[], found: readonly number[], sentences: number): number {
  const window = Math.max(2, Math.round(sentences / (wanted.length + 1) / 2));
  const cuts = (all: readonly number[], i: number) => all.filter((c) => c > i && c <= i + window).length;
  let wrong = 0;
  let count = 0;
  for (let i = 0; i + window < sentences; i++) {
    count++;
    if (cuts(wanted, i) !== cuts(found, i)) wrong++;
  }
  return count ? wrong / count : 0;
}
