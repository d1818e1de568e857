import { periodIn } from './periods';

// Thursday 12 March 2026; the calendar weeks are those of ISO 8601.
const TODAY = '2026-03-12';

describe('the period that a question names', () => {
  it.each([
    ['What did I do yesterday?', '2026-03-11', '2026-03-11'],
    ['what happened last week', '2026-03-02', '2026-03-08'],
    ['what did I say this week about soil?', '2026-03-09', '2026-03-15'],
    ['How was last month?', '2026-02-01', '2026-02-28'],
    ['What was said in December?', '2025-12-01', '2025-12-31'],
    ['in February 2024', '2024-02-01', '2024-02-29'],
    ['over the last three weeks', '2026-02-20', '2026-03-12'],
    ['two weeks ago', '2026-02-23', '2026-03-01'],
    ['last weekend', '2026-03-07', '2026-03-08'],
    ['what did Bram say on Thursday', '2026-03-05', '2026-03-05'],
    ['what did Bram say on Monday', '2026-03-09', '2026-03-09'],
    ['on 2026-01-31', '2026-01-31', '2026-01-31'],
  ])('%s', (question, from, to) => {
    expect(periodIn(question, TODAY)!.period).toMatchObject({ from, to });
  });

  it('leaves the rest of the question', () => {
    expect(periodIn('What did Bram say last week about roots?', TODAY)!.rest).toBe('What did Bram say  about roots?');
  });

  it.each(['When is the delivery next week?', 'We march on', 'May I dig?', 'What is the last word?'])(
    'is none in "%s"',
    (question) => expect(periodIn(question, TODAY)).toBeNull(),
  );

  it('goes over the turn of the year', () => {
    expect(periodIn('last month', '2026-01-15')!.period).toMatchObject({ from: '2025-12-01', to: '2025-12-31' });
    expect(periodIn('last week', '2026-01-01')!.period).toMatchObject({ from: '2025-12-22', to: '2025-12-28' });
  });
});
