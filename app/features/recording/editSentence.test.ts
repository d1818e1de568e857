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
    ['one word', ['the key is wet'], ['the quay is wet'], 'Replaced key with quay'],
    ['several words', ['a b c d'], ['a x y d'], 'Replaced b c with x y'],
    ['a word more', ['the the quay'], ['the the the quay'], 'Added: the'],
    ['a word less', ['the quay is is wet'], ['the quay is wet'], 'Removed: is'],
    ['nothing left', ['the key'], [''], 'Removed: the key'],
    ['parted', ['one two three'], ['one', 'two three'], 'Split. The new passage begins: two three'],
    ['joined', ['one', 'two'], ['one two'], 'Merged with the previous passage: one two'],
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
    expect(sentence).toMatch(/^Replaced short with word0 .* word\d+ …$/);
    expect(sentence.length).toBeLessThan(130);
    expect(long.startsWith(sentence.slice('Replaced short with '.length, sentence.indexOf(' …')))).toBe(true);
  });
});
