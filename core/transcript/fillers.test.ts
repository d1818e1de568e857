import fc from 'fast-check';
import { spokenWords, normaliseWords } from './inverseTextNormalisation';
import { withoutFillers } from './fillers';
import type { Word } from './manuscript';

const said = (text: string): Word[] =>
  text.split(' ').map((word, i) => ({ startMs: i * 400, endMs: i * 400 + 300, text: word, confidence: 0.9 }));
const read = (text: string): string =>
  withoutFillers(said(text))
    .map((w) => w.text)
    .join(' ');

test.each([
  ['Um, we went to the quay.', 'We went to the quay.'],
  ['We, uh, went to the the quay.', 'We went to the quay.'],
  ['I was, I was going to ask.', 'I was going to ask.'],
  ['It is, you know, a long way.', 'It is a long way.'],
  ['You know the way.', 'You know the way.'],
  ['I like limes.', 'I like limes.'],
  ['She had had enough.', 'She had had enough.'],
  ['It was very very cold.', 'It was very very cold.'],
  ['Dial five five two.', 'Dial five five two.'],
  ['The plan- planting begins.', 'The planting begins.'],
  ['We are done, um.', 'We are done.'],
  ['No. No.', 'No. No.'],
  ['Um.', 'Um.'],
  ['It stops. Erm, then it starts.', 'It stops. Then it starts.'],
])('%s → %s', (text, expected) => expect(read(text)).toBe(expected));

test('what a person has typed stays', () => {
  const typed = said('the the quay').map((w) => ({ ...w, isTyped: true }));
  expect(withoutFillers(typed)).toEqual(typed);
});

test('nothing is lost, with figures on top', () => {
  const words = 'um the the you know, I mean, twenty two. well, pla- plan ten past half hundred er'.split(' ');
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...words), { minLength: 1, maxLength: 25 }), (texts) => {
      const all = said(texts.join(' '));
      expect(spokenWords(normaliseWords(withoutFillers(all)))).toEqual(all);
    }),
    { numRuns: 1000 },
  );
});
