import { comparableWords, wordErrors } from './wordErrorRate';

const split = (text: string) => text.split(' ');

describe('word error rate', () => {
  it('agrees with the worked example of a handbook', () => {
    // Jurafsky and Martin, Speech and Language Processing, 3rd edition draft, "ASR Evaluation: Word Error Rate":
    // REF i *** ** UM the PHONE IS i LEFT THE portable **** PHONE UPSTAIRS last night
    // HYP i GOT IT TO the ***** FULLEST i LOVE TO portable FORM OF STORES last night: 6 S, 3 I, 1 D, 13 words, 76.9 %.
    // The text is written from memory of the printed example.
    const errors = wordErrors(
      split('i um the phone is i left the portable phone upstairs last night'),
      split('i got it to the fullest i love to portable form of stores last night'),
    );
    expect(errors.referenceWords).toBe(13);
    expect(errors.substitutions + errors.deletions + errors.insertions).toBe(10);
    expect(errors.rate).toBeCloseTo(0.769, 3);
  });

  it('counts each kind of error', () => {
    expect(wordErrors(split('a b c d'), split('a x c'))).toMatchObject({
      substitutions: 1,
      deletions: 1,
      insertions: 0,
    });
    expect(wordErrors(split('a b'), split('a b c'))).toMatchObject({ substitutions: 0, deletions: 0, insertions: 1 });
  });

  it('is zero for the same words and for two empty texts', () => {
    expect(wordErrors(split('one two'), split('one two')).rate).toBe(0);
    expect(wordErrors([], []).rate).toBe(0);
    expect(wordErrors([], ['x']).rate).toBe(Infinity);
  });

  it('pairs every reference word with the word at its place', () => {
    const { pairs } = wordErrors(split('plant the lime tree'), split('plant lime trees'));
    expect(pairs.filter((p) => p.reference !== null).map((p) => p.hypothesis)).toEqual([0, null, 1, 2]);
  });

  it('compares without case, punctuation and written abbreviations', () => {
    expect(comparableWords('“Mr. Dashwood’s ill-disposed,” she said.')).toEqual([
      ...['mister', "dashwood's", 'ill', 'disposed', 'she', 'said'],
    ]);
  });
});
