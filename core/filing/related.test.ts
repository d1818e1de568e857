import { type RelatedCandidate, relatedTo } from './related';

const item = (ref: string, text: string, more: Partial<RelatedCandidate<string>> = {}): RelatedCandidate<string> => ({
  ...{ people: [], project: null, tags: [], appointment: null },
  ...{ text, ref },
  ...more,
});
const own = item('own', 'Infiltration is fast at first. The infiltration rate of a clay is low.', {
  people: ['Idris Malmquist'],
  appointment: 'Soil course',
});

describe('what belongs beside a recording', () => {
  const others = [
    item('milk', 'Buy milk and bread for the weekend.'),
    item('clay', 'A clay near the lock, the infiltration test took an hour.'),
    item('course', 'Tonight about salt in the ground.', { appointment: 'Soil course', people: ['Idris Malmquist'] }),
  ];

  it('comes closest first with the reason, and without what has nothing to do with it', () => {
    expect(relatedTo(own, others).map(({ ref, reason }) => [ref, reason])).toEqual([
      ['course', 'the same appointment; both include Idris Malmquist'],
      ['clay', 'both mention infiltration and clay'],
    ]);
  });

  it('is five at most, and nothing where there is nothing', () => {
    expect(
      relatedTo(
        own,
        Array.from({ length: 9 }, (_, i) => item(`${i}`, 'the infiltration of a clay')),
      ),
    ).toHaveLength(5);
    expect(relatedTo(own, [])).toEqual([]);
  });
});
