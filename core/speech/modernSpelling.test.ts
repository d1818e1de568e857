import { inModernSpelling } from './modernSpelling';

const heard = (text: string) =>
  text.split(' ').map((word, i) => ({
    ...{ text: word, startMs: i * 100, endMs: i * 100 + 80, confidence: 1 - i / 100 },
  }));
const spelt = (text: string) =>
  inModernSpelling(heard(text))
    .map((w) => w.text)
    .join(' ');

it.each([
  ['Some body has to write it.', 'Somebody has to write it.'],
  ['Is any body there?', 'Is anybody there?'],
  ["It is every body's garden.", "It is everybody's garden."],
  ['To morrow, not to-day.', 'Tomorrow, not today.'],
  ['To-night I send it.', 'Tonight I send it.'],
  ["and i think i'm late, i", "and I think I'm late, I"],
])('%s', (old, today) => expect(spelt(old)).toBe(today));

it.each([
  'Some body of water lies there.',
  'Any body parts of the car.',
  'I have some, body and soul.',
  'It goes to the morrow.',
  'I gave it to Morrow.',
  'Up-to-date',
  'it is in iron',
  // Names that every object of the language has.
  'The constructor builds it.',
])('%s stays', (text) => expect(spelt(text)).toBe(text));

it('one word of two has the times of both and the lower confidence', () => {
  expect(inModernSpelling(heard('Ask some body'))).toEqual([
    { text: 'Ask', startMs: 0, endMs: 80, confidence: 1 },
    { text: 'somebody', startMs: 100, endMs: 280, confidence: 0.98 },
  ]);
});
