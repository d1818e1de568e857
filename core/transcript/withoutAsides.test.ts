import { passageText } from './manuscript';
import { passagesFrom } from './passages';
import { withoutAsides } from './withoutAsides';

const words = 'Clay holds water. Side note, ask Bram. Back to it. Sand does not.'
  .split(' ')
  .map((text, i) => ({ text, startMs: i * 500, endMs: i * 500 + 450, confidence: 1 }));
const phrases = { opening: 'side note', closing: 'back to it' };

describe('a manuscript without its asides', () => {
  it('keeps the speaker’s text and loses no word of the aside', () => {
    const { passages, asides } = withoutAsides(passagesFrom(words), phrases);
    expect(passages.map(passageText).join(' ')).toBe('Clay holds water. Sand does not.');
    expect(asides.map((a) => a.text)).toEqual(['ask Bram.']);
    const counted = passages.flatMap((p) => p.words).length + asides.reduce((n, a) => n + a.to - a.from, 0);
    expect(counted).toBe(words.length);
  });

  it('is left as it is when nobody listens for asides', () => {
    const passages = passagesFrom(words);
    expect(withoutAsides(passages, null)).toEqual({ passages, asides: [] });
  });
});
