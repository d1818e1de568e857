import { type Sentence, sentencesOfText } from '../language/sentences';
import { placeSlides } from './placeSlides';

/** Sentences that are spoken one after the other, four seconds each. */
const spoken = (text: string): Sentence[] =>
  sentencesOfText(text).map((s, i) => ({ ...s, startMs: i * 4000, endMs: i * 4000 + 3500 }));
const slide = (title: string, ...lines: string[]) => ({ title, text: [title, ...lines].join('\n') });

const water = slide('Watering', 'Twenty litres twice a week', 'A ring of earth');
const mulch = slide('Mulch', 'Straw and leaves', 'Never against the bark');
const frost = slide('Late frost', 'Fleece over small trees');

test('each slide begins with the sentence that turns to it, and what fits none stays with the slide before', () => {
  const places = placeSlides(
    [water, mulch, frost],
    spoken(
      'Welcome to all of you. A tree needs twenty litres of water. Nobody believes it. Then we spread straw and leaves. They keep off the bark. Mice like it. In May there may be frost. Fleece helps the small trees.',
    ),
  );
  expect(places).toEqual([0, 12_000, 24_000]);
});

test('a slide that is never spoken about has no place, and the others keep their order', () => {
  const places = placeSlides(
    [water, slide('Grafting', 'Whip and tongue'), frost],
    spoken(
      'Twenty litres for each tree, twice a week. A ring of earth keeps it. A late frost kills blossom. Use fleece.',
    ),
  );
  expect(places).toEqual([0, null, 8000]);
});

test('an announced slide is turned to with its announcement', () => {
  const places = placeSlides(
    [water, frost],
    spoken(
      'Twenty litres of water each week. A ring of earth around it. On the next slide you see the worst. Frost in May, late frost.',
    ),
  );
  expect(places).toEqual([0, 8000]);
});

test('without slides, without words and without shared words nothing is claimed to be known', () => {
  expect(placeSlides([], spoken('Hello.'))).toEqual([]);
  expect(placeSlides([water, mulch], [])).toEqual([null, null]);
  const unrelated = placeSlides([water, mulch, frost], spoken('The bus was late. It rained on the bridge.'));
  expect(unrelated.filter((ms) => ms !== null)).toHaveLength(1);
  // Words that were typed have no time.
  expect(placeSlides([water], sentencesOfText('Twenty litres of water.'))).toEqual([null]);
});

test('places never fall, whatever is said', () => {
  const talk =
    'Frost and fleece. Straw on the ground. Twenty litres. Frost again. Mulch and bark. Water, a ring of earth.';
  const known = placeSlides([water, mulch, frost, water, mulch], spoken(talk.repeat(8))).filter((ms) => ms !== null);
  expect(known).toEqual([...known].sort((a, b) => a - b));
});
