import { composeLetter, letterText } from './letter';

test('a dictated letter has its parts apart and nothing that was said of it', () => {
  const letter = composeLetter(
    'Letter to Mrs Sund, S-U-N-D. Dear Mrs Sund, thank you for your card, it was lovely, no, leave that out. New paragraph. ' +
      'I could come on the sixth of May, um, no, wait, I could come on the eighth of May. Is that too late? No, leave it. ' +
      'New paragraph. Please tell me if the trench is full. Kind regards, Tamsin Okwuosa, tree officer. Copy to the town.',
  );
  expect(letter).toEqual({
    head: [],
    salutation: 'Dear Mrs Sund,',
    paragraphs: ['Thank you for your card.', 'I could come on 8 May.', 'Please tell me if the trench is full.'],
    closing: ['Kind regards,', 'Tamsin Okwuosa', 'Tree officer'],
    foot: ['Copy to the town'],
  });
});

test('subject and reference stand above the salutation', () => {
  const { head, salutation, closing } = composeLetter(
    'An email to all. Subject, the orchard on Friday. Dear all, bring gloves. Best wishes, Jun. Oh, and put our reference at the top, limes twelve.',
  );
  expect(head).toEqual(['Our reference: limes twelve', 'Subject: The orchard on Friday']);
  expect(salutation).toBe('Dear all,');
  expect(closing).toEqual(['Best wishes,', 'Jun']);
});

test('a sentence that asks the reader for something stays', () => {
  const { paragraphs } = composeLetter('Dear Bram, please sign the form and put it in the post. Yours, Tamsin.');
  expect(paragraphs).toEqual(['Please sign the form and put it in the post.']);
});

test('what is no letter keeps its words', () => {
  expect(letterText(composeLetter('The pump runs. The pit is dry.'))).toBe('The pump runs. The pit is dry.');
  expect(letterText(composeLetter(''))).toBe('');
});

test('long nonsense is read in a moment', () => {
  const started = performance.now();
  for (const text of [
    'no, '.repeat(20_000),
    'a'.repeat(200_000),
    'Dear '.repeat(20_000),
    'take that out. '.repeat(5000),
  ])
    composeLetter(text);
  expect(performance.now() - started).toBeLessThan(20_000);
}, 60_000);

test('what is put right within a sentence stands there as it was put right, and nothing before it is lost', () => {
  const { paragraphs } = composeLetter(
    'Dear Bram, thank you for the plans. We meet on Friday, no, scratch that, we meet on Thursday at the quay. Yours, Tamsin.',
  );
  expect(paragraphs).toEqual(['Thank you for the plans. We meet on Thursday at the quay.']);
});
