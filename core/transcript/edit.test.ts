import fc from 'fast-check';
import { joinPassages, retimeWords, splitPassage } from './edit';
import { type Passage, type Word, passageText } from './manuscript';

const word = (text: string, startMs: number, endMs = startMs + 300, confidence = 0.4): Word => ({
  ...{ text, startMs, endMs, confidence },
});
const said = (text: string): Word[] => text.split(' ').map((t, i) => word(t, 1000 + i * 500));
const BOUNDS = { startMs: 900, endMs: 20_000 };
const textOf = (words: readonly Word[]) => words.map((w) => w.text).join(' ');

describe('words after typing', () => {
  const before = said('walking along the key now it is a quarter past eight');

  it('keep their times when one of them is corrected; the corrected one takes the place of the wrong one', () => {
    const after = retimeWords(before, 'walking along the quay now it is a quarter past eight', BOUNDS);
    expect(after.map((w) => [w.startMs, w.endMs])).toEqual(before.map((w) => [w.startMs, w.endMs]));
    expect(after[3]).toEqual({ ...word('quay', 2500, 2800, 1), isTyped: true });
    expect(after[2]).toBe(before[2]);
  });

  it('share the time of what they replace, by length', () => {
    const after = retimeWords(said('it is forty six degrees'), 'it is 46 degrees', BOUNDS);
    expect(after[2]).toMatchObject({ text: '46', startMs: 2000, endMs: 2800 });
    expect(after[3]).toMatchObject({ text: 'degrees', startMs: 3000 });
    const more = retimeWords(said('call okwuosa now'), 'call Tamsin Okwuosa now', BOUNDS);
    expect(more.map((w) => w.startMs)).toEqual([1000, 1300, 1500, 2000]);
  });

  it('lose nothing of their neighbours when one is deleted', () => {
    const after = retimeWords(before, 'walking along key now it is a quarter past eight', BOUNDS);
    expect(after).toEqual([...before.slice(0, 2), ...before.slice(3)]);
  });

  it('know themselves again in other case and with other marks, and are then sure', () => {
    const after = retimeWords(said('the lock. Hit one'), 'The lock, hit number one', BOUNDS);
    expect(after.map((w) => w.startMs)).toEqual([1000, 1500, 2000, 2300, 2500]);
    expect(after[1]).toMatchObject({ text: 'lock,', confidence: 1 });
  });

  it('may come before the first, after the last, or be all new', () => {
    const typed = retimeWords(said('the quay'), 'so the quay again and again', BOUNDS);
    expect(typed[0]).toMatchObject({ startMs: 900, endMs: 1000 });
    expect(typed.at(-1)!.endMs).toBeLessThanOrEqual(BOUNDS.endMs);
    expect(retimeWords([], 'nothing was heard', BOUNDS)[0]!.startMs).toBe(900);
    expect(retimeWords(said('a b'), '  ', BOUNDS)).toEqual([]);
  });

  it('take in ten thousand pasted words, right to left letters and signs', () => {
    const long = Array.from({ length: 10_000 }, (_, i) => `word${i}`).join(' ');
    expect(retimeWords(before, long, BOUNDS)).toHaveLength(10_000);
    expect(textOf(retimeWords(before, 'שלום 🌳 <b>quay</b>', BOUNDS))).toBe('שלום 🌳 <b>quay</b>');
  });
});

const texts = fc.array(fc.constantFrom('the', 'quay', 'Quay,', 'lime', '46', 'pit', 'שלום', '🌳'), { maxLength: 12 });
const passages = fc
  .tuple(
    fc.array(fc.tuple(fc.constantFrom('the', 'quay', 'lime', 'pit'), fc.nat(400), fc.nat(400)), {
      minLength: 1,
      maxLength: 15,
    }),
  )
  .map(([parts]): Passage => {
    let at = 500;
    const words = parts.map(([text, gap, length]) => {
      const startMs = at + gap;
      at = startMs + length;
      return word(text, startMs, at);
    });
    return { startMs: 500, endMs: at + 100, speaker: null, startsParagraph: true, words };
  });
const inOrder = (words: readonly Word[]) =>
  words.every((w, i) => w.startMs <= w.endMs && (i === 0 || words[i - 1]!.endMs <= w.startMs));

describe('any sequence of changes', () => {
  it('keeps the times in order and inside the passage, and writes what was typed', () => {
    fc.assert(
      fc.property(passages, fc.array(texts, { minLength: 1, maxLength: 6 }), (passage, edits) => {
        let { words } = passage;
        for (const edit of edits) {
          words = retimeWords(words, edit.join(' '), passage);
          expect(textOf(words)).toBe(edit.join(' '));
          expect(inOrder(words)).toBe(true);
          for (const w of words) {
            expect(w.startMs).toBeGreaterThanOrEqual(passage.startMs);
            expect(w.endMs).toBeLessThanOrEqual(passage.endMs);
          }
        }
      }),
    );
  });

  it('moves no word that it does not touch', () => {
    fc.assert(
      fc.property(passages, fc.nat(), fc.constantFrom('new', '', 'two words'), (passage, seed, typed) => {
        const at = seed % passage.words.length;
        const tokens = passage.words.map((w) => w.text);
        // A word that is told apart from all others, so that it is known which ones were not touched.
        const words = passage.words.map((w, i) => ({ ...w, text: `${w.text}${i}` }));
        const text = tokens.map((t, i) => (i === at ? typed : `${t}${i}`)).join(' ');
        const after = retimeWords(words, text, passage);
        for (const w of words.filter((_, i) => i !== at)) expect(after).toContainEqual(w);
      }),
    );
  });

  it('is taken back word for word: what was split is joined again as it was', () => {
    fc.assert(
      fc.property(passages, fc.nat(), (passage, seed) => {
        fc.pre(passage.words.length > 1);
        const at = 1 + (seed % (passage.words.length - 1));
        const [first, second] = splitPassage(passage, at);
        expect(second.startsParagraph).toBe(true);
        expect(first.endMs).toBeLessThanOrEqual(second.startMs);
        expect(joinPassages(first, second)).toEqual(passage);
      }),
    );
  });

  it('cannot split where nothing would be left', () => {
    const passage = { ...BOUNDS, speaker: null, startsParagraph: true, words: said('one two') };
    for (const at of [0, 2, -1, 1.5]) expect(() => splitPassage(passage, at)).toThrow(RangeError);
    expect(passageText(splitPassage(passage, 1)[1])).toBe('two');
  });
});
