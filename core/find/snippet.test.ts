import { HIT_END, HIT_START } from '../contract/find';
import { stem } from '../language/words';
import { snippetOf } from './snippet';

const shown = (text: string, words: string[], beginning: string | null = null) =>
  snippetOf(text, { stems: new Set(words.map(stem)), beginning })
    .replaceAll(HIT_START, '[')
    .replaceAll(HIT_END, ']');

describe('the words in their context', () => {
  it('marks every form of them, inside their punctuation', () => {
    expect(shown('The “roots” of a tree; rooted, root-bound.', ['root'])).toBe(
      'The “[roots]” of a tree; [rooted], [root]-bound.',
    );
  });

  it('marks what begins with the last word', () => {
    expect(shown('Infiltration and information', [], 'inf')).toBe('[Infiltration] and [information]');
  });

  it('is the stretch in which most of them stand', () => {
    const filler = 'word '.repeat(60);
    expect(shown(`lime ${filler}lime by the trench ${filler}`, ['lime', 'trench'])).toMatch(
      /^….*\[lime\] by the \[trench\].*…$/,
    );
  });

  it('is the beginning where none stands, and nothing for nothing', () => {
    expect(shown('one two three', ['four'])).toBe('one two three');
    expect(shown('', ['four'])).toBe('');
  });
});
