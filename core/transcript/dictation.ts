import { DICTATION_COMMANDS, type DictationCommand } from '../contract/dictationCommands';
import { isStopword } from '../language/words';
import { type Passage, type Word, endsSentence } from './manuscript';
import { DEFAULT_PASSAGE_RULES, passagesFrom } from './passages';

/** What is said for each command. Common practice of dictation, no source. */
export const COMMAND_PHRASES: Record<DictationCommand, readonly string[]> = {
  'full-stop': ['full stop', 'period'],
  comma: ['comma'],
  'question-mark': ['question mark'],
  'exclamation-mark': ['exclamation mark', 'exclamation point'],
  colon: ['colon'],
  semicolon: ['semicolon', 'semi colon'],
  dash: ['dash'],
  'open-bracket': ['open bracket', 'open brackets'],
  'close-bracket': ['close bracket', 'close brackets'],
  'open-quote': ['open quote', 'open quotes'],
  'close-quote': ['close quote', 'close quotes'],
  'new-paragraph': ['new paragraph', 'new line'],
  'strike-that': ['strike that', 'scratch that'],
};

/** Signs that are put behind the word before. */
const BEHIND: Partial<Record<DictationCommand, string>> = {
  ...{ 'full-stop': '.', comma: ',', 'question-mark': '?', 'exclamation-mark': '!', colon: ':', semicolon: ';' },
  ...{ dash: ' –', 'close-bracket': ')', 'close-quote': '”' },
};
/** Signs that are put before the word that follows. */
const BEFORE: Partial<Record<DictationCommand, string>> = { 'open-bracket': '(', 'open-quote': '“' };

/** Behind one of these a phrase is spoken of, not spoken: "the comma", "a new line". */
const SPOKEN_OF = new Set([
  'a',
  'an',
  'the',
  'this',
  'that',
  'word',
  'each',
  'every',
  'no',
  'his',
  'her',
  'my',
  'your',
  'our',
]);

type Found = { command: DictationCommand; length: number };

const keyOf = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');

function commandAt(words: readonly Word[], at: number, commands: ReadonlySet<DictationCommand>): Found | null {
  const before = words[at - 1];
  if (before && SPOKEN_OF.has(keyOf(before.text)) && !/[.,;:?!]$/u.test(before.text)) return null;
  for (const command of DICTATION_COMMANDS) {
    if (!commands.has(command)) continue;
    for (const phrase of COMMAND_PHRASES[command]) {
      const wanted = phrase.split(' ');
      const isSaid = wanted.every((w, i) => {
        const word = words[at + i];
        // A sign inside the phrase parts it: "We met a colonel. Full. Stop there."
        const isWhole = i === wanted.length - 1 || !/[.?!]$/u.test(word?.text ?? '');
        return word !== undefined && !word.isTyped && keyOf(word.text) === w && isWhole;
      });
      if (isSaid) return { command, length: wanted.length };
    }
  }
  return null;
}

const withCapital = (text: string): string => text.replace(/\p{L}/u, (letter) => letter.toUpperCase());
/** A capital that only stood there because the recogniser heard a sentence begin. */
const withoutCapital = (text: string): string =>
  isStopword(keyOf(text)) && !/^I(['’]|$)/u.test(text.replace(/[^\p{L}'’]/gu, ''))
    ? text.replace(/\p{L}/u, (letter) => letter.toLowerCase())
    : text;

/** Words of a dictation by paragraph. */
function obeyed(words: readonly Word[], commands: ReadonlySet<DictationCommand>): Word[][] {
  const paragraphs: Word[][] = [[]];
  /** Sign that goes before the next word, and whether that word begins a sentence, goes on with one, or as it is. */
  let waiting = '';
  let next: 'sentence' | 'same' | null = null;
  for (let at = 0; at < words.length;) {
    const current = paragraphs.at(-1)!;
    const last = current.at(-1);
    const found = commandAt(words, at, commands);
    if (!found) {
      const word = words[at]!;
      let text = next === 'sentence' ? withCapital(word.text) : next === 'same' ? withoutCapital(word.text) : word.text;
      if (waiting) text = waiting + text;
      current.push(text === word.text ? word : { ...word, text });
      waiting = '';
      next = null;
      at++;
      continue;
    }
    at += found.length;
    const sign = BEHIND[found.command];
    if (sign && last) {
      // What was said takes the place of the sign that the recogniser had put there by itself.
      const isClosing = sign === ')' || sign === '”';
      const bare = isClosing ? last.text : last.text.replace(/(?<![.,;:?!])[.,;:?!]+$/u, '');
      current[current.length - 1] = { ...last, text: bare + sign };
      next = isClosing ? null : /[.?!]$/u.test(sign) ? 'sentence' : 'same';
    } else if (found.command in BEFORE) {
      waiting = BEFORE[found.command]!;
      next = last && !endsSentence(last.text) ? 'same' : 'sentence';
    } else if (found.command === 'new-paragraph') {
      if (current.length) paragraphs.push([]);
      next = 'sentence';
    } else if (found.command === 'strike-that') {
      strikeSentence(paragraphs);
      next = 'sentence';
    }
  }
  return paragraphs.filter((p) => p.length > 0);
}

/** Takes the last sentence away, and the paragraph that is empty without it. */
function strikeSentence(paragraphs: Word[][]): void {
  if (paragraphs.at(-1)!.length === 0 && paragraphs.length > 1) paragraphs.pop();
  const current = paragraphs.at(-1)!;
  let from = current.length - 1;
  while (from > 0 && !endsSentence(current[from - 1]!.text)) from--;
  current.splice(Math.max(0, from));
}

/**
 * A dictation as it was meant: commands are done and not written, paragraphs begin only where they were asked for, and
 * it is one piece by one voice.
 * @param commands those that are obeyed; the others are words like all others
 */
export function dictated(
  passages: readonly Passage[],
  commands: ReadonlySet<DictationCommand> = new Set(DICTATION_COMMANDS),
): Passage[] {
  const paragraphs = obeyed(
    passages.flatMap((p) => p.words),
    commands,
  );
  return paragraphs.flatMap((words) =>
    passagesFrom(words, DEFAULT_PASSAGE_RULES).map((p, i) => ({ ...p, startsParagraph: i === 0 })),
  );
}
