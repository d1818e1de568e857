import type { Passage } from '@immeld/core/transcript/manuscript';
import { editSentence } from './editSentence';

const passage = (text: string, speaker: string | null = null): Passage => ({
  ...{ startMs: 0, endMs: 1000, speaker, startsParagraph: true },
  words: text
    .split(' ')
    .filter(Boolean)
    .map((word, i) => ({ text: word, startMs: i * 10, endMs: i * 10 + 5, confidence: 1 })),
});

describe('what a screen reader says of a change', () => {
  it.each([
    ['one word', ['the key is wet'], ['the quay is wet'], 'Changed: quay, in the place of key'],
    ['several words', ['a b c d'], ['a x y d'], 'Changed: x y, in the place of b c'],
    ['a word more', ['the the quay'], ['the the the quay'], 'Added: the'],
    ['a word less', ['the quay is is wet'], ['the quay is wet'], 'Taken out: is'],
    ['nothing left', ['the key'], [''], 'Taken out: the key'],
    ['parted', ['one two three'], ['one', 'two three'], 'Parted. The new passage begins: two three'],
    ['joined', ['one', 'two'], ['one two'], 'Joined to the passage before: one two'],
    ['the same words', ['one two'], ['one two'], null],
  ])('%s', (_, removed, added, sentence) => {
    expect(
      editSentence(
        removed.map((t) => passage(t)),
        added.map((t) => passage(t)),
      ),
    ).toBe(sentence);
  });

  it('is silent about another speaker: the bar tells that', () => {
    expect(editSentence([passage('one', 'Ida')], [passage('one', 'Otto')])).toBeNull();
  });

  it('is cut between two words', () => {
    const long = Array.from({ length: 60 }, (_, i) => `word${i}`).join(' ');
    const sentence = editSentence([passage('short')], [passage(long)])!;
    expect(sentence).toMatch(/^Changed: word0 .* word\d+ …, in the place of short$/);
    expect(sentence.length).toBeLessThan(130);
    expect(long.startsWith(sentence.slice('Changed: '.length, sentence.indexOf(' …')))).toBe(true);
  });
});
