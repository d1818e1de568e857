import { keepCorrected } from './keepCorrected';
import { type Passage, passageText } from './manuscript';

/** Words of 400 ms, one after the other. */
const passage = (text: string, startMs: number): Passage => {
  const words = text.split(' ').map((word, i) => ({
    ...{ text: word, startMs: startMs + i * 400, endMs: startMs + i * 400 + 380, confidence: 1 },
  }));
  return { startMs, endMs: words.at(-1)!.endMs, speaker: null, startsParagraph: true, words };
};
const read = (merged: ReturnType<typeof keepCorrected>) =>
  merged.map(({ passage: p, isCorrected }) => `${isCorrected ? '*' : ''}${passageText(p)}`);

describe('a new text that comes after corrections', () => {
  it('takes the place of everything but the corrected passages', () => {
    const corrected = [passage('Ottoline has called.', 4000)];
    const fresh = [passage('Good morning.', 0), passage('Otto line called.', 4000), passage('That is all.', 8000)];
    expect(read(keepCorrected(corrected, fresh))).toEqual(['Good morning.', '*Ottoline has called.', 'That is all.']);
  });

  it('is parted where a corrected passage lies within one of its own', () => {
    const corrected = [passage('the quay', 800)];
    const merged = keepCorrected(corrected, [passage('we walk the key at nine', 0)]);
    expect(read(merged)).toEqual(['we walk', '*the quay', 'at nine']);
    expect(merged.map((m) => m.passage.startsParagraph)).toEqual([true, true, false]);
  });

  it('loses nothing that was said, and has nothing twice', () => {
    const fresh = [passage('a b c d', 0), passage('e f g h', 2000)];
    expect(read(keepCorrected([], fresh))).toEqual(['a b c d', 'e f g h']);
    expect(read(keepCorrected([passage('C D E', 800)], fresh))).toEqual(['a b', '*C D E', 'e f g h']);
    expect(read(keepCorrected([passage('ALL', 0)], []))).toEqual(['*ALL']);
  });
});
