import { rougeL, rougeN } from './rouge';

/**
 * The worked example of Lin 2004, section 3.1: reference S1 and candidates S2, S3, S4. ROUGE-2 is the same for S2 and
 * S3, ROUGE-L is 3/4 for S2 and 2/4 for S3 and S4.
 */
const S1 = 'police killed the gunman';
const S2 = 'police kill the gunman';
const S3 = 'the gunman kill police';
const S4 = 'the gunman police killed';

it('is as in the published example', () => {
  expect(rougeN(S2, S1, 2, false).recall).toBeCloseTo(1 / 3);
  expect(rougeN(S3, S1, 2, false).recall).toBeCloseTo(1 / 3);
  expect(rougeL(S2, S1, false).f1).toBeCloseTo(3 / 4);
  expect(rougeL(S3, S1, false).f1).toBeCloseTo(2 / 4);
  expect(rougeL(S4, S1, false).f1).toBeCloseTo(2 / 4);
});

it('counts each n-gram as often as both have it', () => {
  expect(rougeN('the the the', 'the cat', 1)).toEqual({ precision: 1 / 3, recall: 1 / 2, f1: 0.4 });
  expect(rougeN('', 'the cat', 1)).toEqual({ precision: 0, recall: 0, f1: 0 });
});
