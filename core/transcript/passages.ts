import { comparableWords } from './wordErrorRate';
import type { ParagraphKind } from '../contract/paragraphs';
import { isStopword, stem } from '../language/words';
import { type Passage, type Word, endsSentence } from './manuscript';

/** The pause rule and its companions; can be changed and applied again. */
export type PassageRules = {
  /** A pause from here on ends a passage at the end of a sentence. */
  passagePauseMs: number;
  /** A pause from here on ends a passage anywhere. */
  longPauseMs: number;
  /** From this length a passage ends with the next sentence. */
  fullPassageMs: number;
  /** No passage is longer. */
  longestPassageMs: number;
};

export const DEFAULT_PASSAGE_RULES: PassageRules = {
  passagePauseMs: 700,
  longPauseMs: 3000,
  fullPassageMs: 14_000,
  longestPassageMs: 30_000,
};

/**
 * Cuts a row of words into passages and says which of them begin a paragraph.
 * @param words in time order; the recogniser's cuts play no part, so its pieces leave no trace in the text
 * @param speakers of the words, where they are told apart; nobody shares a passage with somebody else
 */
export function passagesFrom(
  words: readonly Word[],
  rules: PassageRules = DEFAULT_PASSAGE_RULES,
  speakers: readonly (string | null)[] = [],
): Passage[] {
  const groups: { words: Word[]; speaker: string | null }[] = [];
  for (const [i, word] of words.entries()) {
    const speaker = speakers[i] ?? null;
    const group = groups.at(-1);
    const last = group?.words.at(-1);
    if (!last || group?.speaker !== speaker || breaksPassage(group.words, last, word, rules)) {
      groups.push({ words: [word], speaker });
    } else group.words.push(word);
  }
  const passages = groups.map((group): Passage => ({
    startMs: group.words[0]!.startMs,
    endMs: group.words.at(-1)!.endMs,
    speaker: group.speaker,
    startsParagraph: true,
    words: group.words,
  }));
  markParagraphs(passages);
  return passages;
}

/** For each word of these passages who says it. */
export const speakersOf = (passages: readonly Passage[]): (string | null)[] =>
  passages.flatMap((p) => p.words.map(() => p.speaker));

function breaksPassage(group: readonly Word[], last: Word, word: Word, rules: PassageRules): boolean {
  const pause = word.startMs - last.endMs;
  const length = last.endMs - group[0]!.startMs;
  if (word.endMs - group[0]!.startMs > rules.longestPassageMs) return true;
  if (pause >= rules.longPauseMs) return true;
  return sentenceEnds(last, word) && (pause >= rules.passagePauseMs || length >= rules.fullPassageMs);
}

/** A full stop before a small letter is a pause that the recogniser took for an end. */
const sentenceEnds = (last: Word, next: Word): boolean => endsSentence(last.text) && !/^\p{Ll}/u.test(next.text);

/** Openings with which people turn to something else. Common practice, no source. */
const TURN =
  /^(now|next|okay|ok|right|so|anyway|then|finally|first|second|third|secondly|thirdly|let's|moving on|another|one more|by the way|as for|for the|and for)\b/i;

const LONG_PAUSE_MS = 2200;
const WINDOW_WORDS = 60;

/**
 * Decides paragraphs by sense first and pause second: a turn of topic (little vocabulary shared by the words before
 * and after, after Hearst 1997, TextTiling), an opening that turns to something else, the length of the pause and of
 * the paragraph so far each add to a score.
 */
export function markParagraphs(passages: Passage[], { kind, pauseMs }: ParagraphRule = USUAL_PARAGRAPHS): void {
  let paragraphWords = 0;
  passages.forEach((passage, i) => {
    const before = passages[i - 1];
    if (!before) passage.startsParagraph = true;
    else {
      const pause = passage.startMs - before.endMs;
      const opening = passage.words
        .slice(0, 3)
        .map((w) => w.text)
        .join(' ');
      const ended = sentenceEnds(before.words.at(-1)!, passage.words[0]!);
      const score =
        Math.min(1, pause / LONG_PAUSE_MS) * 0.55 +
        (TURN.test(opening) ? 0.25 : 0) +
        (1 - cohesion(passages, i)) * 0.45 +
        Math.min(0.8, Math.max(0, (paragraphWords - 45) / 110));
      const enough =
        kind === 'pauses' ? pause >= pauseMs : ended && paragraphWords >= MIN_WORDS[kind] && score >= ENOUGH[kind];
      passage.startsParagraph = passage.speaker !== before.speaker || enough;
    }
    paragraphWords = (passage.startsParagraph ? 0 : paragraphWords) + passage.words.length;
  });
}

/** How many paragraphs a person wants: by sense, by pauses alone, or none but where somebody else speaks. */
export type ParagraphRule = { kind: ParagraphKind; pauseMs: number };

export const USUAL_PARAGRAPHS: ParagraphRule = { kind: 'usual', pauseMs: 2000 };

const ENOUGH = { one: Infinity, few: 1.3, usual: 1, many: 0.75 };
const MIN_WORDS = { one: 0, few: 40, usual: 12, many: 8 };

/** Cosine of the word counts before and after a boundary, 0 to 1. */
function cohesion(passages: readonly Passage[], at: number): number {
  const count = (words: string[]): Map<string, number> => {
    const counts = new Map<string, number>();
    for (const w of words) if (!isStopword(w)) counts.set(stem(w), (counts.get(stem(w)) ?? 0) + 1);
    return counts;
  };
  const collect = (from: number, step: number): Map<string, number> => {
    const words: string[] = [];
    for (let i = from; passages[i] && words.length < WINDOW_WORDS; i += step) {
      words.push(...passages[i]!.words.flatMap((w) => comparableWords(w.text)));
    }
    return count(words);
  };
  const a = collect(at - 1, -1);
  const b = collect(at, 1);
  let dot = 0;
  for (const [w, n] of a) dot += n * (b.get(w) ?? 0);
  const length = (m: Map<string, number>) => Math.sqrt([...m.values()].reduce((s, n) => s + n * n, 0));
  return dot / (length(a) * length(b) || 1);
}
