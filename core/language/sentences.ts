import { type Passage, endsSentence } from '../transcript/manuscript';

/** A sentence and where it stands; `passage` is the number of the passage it begins in, null for plain text. */
export type Sentence = {
  text: string;
  passage: number | null;
  startMs: number | null;
  endMs: number | null;
  speaker: string | null;
};

type Token = Omit<Sentence, 'text'> & { word: string };

/** The sentences of a manuscript, across passages of the same speaker. */
export function sentencesOf(passages: readonly Passage[]): Sentence[] {
  return group(
    passages.flatMap((p, passage) =>
      p.words.map((w): Token => ({ word: w.text, passage, startMs: w.startMs, endMs: w.endMs, speaker: p.speaker })),
    ),
  );
}

/** The sentences of plain text; an empty line or a line that begins a list item ends one too. */
export function sentencesOfText(text: string): Sentence[] {
  return text
    .replace(/\r\n?/g, '\n')
    .split(/\n\s*\n|\n(?=[^\S\n]*(?:[-*•]|\d+[.)])\s)/)
    .flatMap((block) =>
      group(
        block
          .replace(/^\s*(?:[-*•]|\d+[.)])\s+/, '')
          .split(/\s+/)
          .filter(Boolean)
          .map((word): Token => ({ word, passage: null, startMs: null, endMs: null, speaker: null })),
      ),
    );
}

/** Who speaks on without a stop is read in stretches: what looks at a sentence may take longer than it is long. */
const MAX_SENTENCE = 2000;
/** Nothing that is longer is a word. */
const MAX_WORD = 200;

function group(tokens: readonly Token[]): Sentence[] {
  const sentences: Sentence[] = [];
  let open: Sentence | null = null;
  tokens.forEach((token, i) => {
    if (open && open.speaker === token.speaker) {
      open.text += ` ${token.word.slice(0, MAX_WORD)}`;
      open.endMs = token.endMs;
    } else {
      const { word, ...place } = token;
      open = { text: word.slice(0, MAX_WORD), ...place };
      sentences.push(open);
    }
    const next = tokens[i + 1];
    if (open.text.length > MAX_SENTENCE) open = null;
    else if (endsSentence(token.word) && !(next && /^\p{Ll}/u.test(next.word))) open = null;
  });
  return sentences;
}
