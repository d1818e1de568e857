import { findAsides } from './asides';

const USUAL_ASIDE = { opening: 'side note', closing: 'back to it' };

/** Words half a second each; `/` is a pause of one second, `//` one of six. */
function said(text: string) {
  let at = 0;
  const words: { text: string; startMs: number; endMs: number }[] = [];
  for (const part of text.split(' ')) {
    if (part === '/' || part === '//') at += part === '/' ? 1000 : 6000;
    else {
      words.push({ text: part, startMs: at, endMs: at + 450 });
      at += 500;
    }
  }
  return words;
}
const textsOf = (text: string, phrases = USUAL_ASIDE) =>
  findAsides(said(text), phrases).map((a) => (a.isClosed ? a.text : `${a.text} …`));

describe('spoken asides', () => {
  it('are what stands between the two phrases', () => {
    expect(textsOf('Clay holds water. Side note, ask about the quay. Back to it. Sand does not.')).toEqual([
      'ask about the quay.',
    ]);
  });

  it.each([
    ['joined', 'Clay. Sidenote ask him. Back to it. Sand.'],
    ['one letter off', 'Clay. Site note ask him. Back to it. Sand.'],
    ['with another ending', 'Clay. Side notes ask him. Back to it, sand.'],
    ['closed with a slip', 'Clay. Side note ask him. Back to at. Sand.'],
  ])('are found as the recogniser hears them: %s', (_, text) => expect(textsOf(text)).toEqual(['ask him.']));

  it.each([
    'On a side note, this was measured twice.',
    'The side of the pit is wet. The note is short.',
    'Water moves sideways. No one knows.',
  ])('are not invented: %s', (text) => expect(textsOf(text)).toEqual([]));

  it('that nobody closes end at a pause of five seconds, and say so', () => {
    expect(textsOf('Clay. Side note look it up / in the book // And sand is quick.')).toEqual([
      'look it up in the book …',
    ]);
    const [aside] = findAsides(said('Clay. Side note look it up // And sand'), USUAL_ASIDE);
    expect(aside).toMatchObject({ from: 1, to: 6, isClosed: false });
  });

  it('that nobody closes end with the sound', () => {
    expect(textsOf('Clay. Side note look it up')).toEqual(['look it up …']);
  });

  it('come several times, each with its own place', () => {
    expect(textsOf('Side note one. Back to it. Clay. Side note two. Back to it.')).toEqual(['one.', 'two.']);
  });

  it('take phrases of one’s own', () => {
    const phrases = { opening: 'for me', closing: 'professor again' };
    expect(textsOf('Clay. For me, buy stakes. Professor again. Sand.', phrases)).toEqual(['buy stakes.']);
  });
});
