import { beginSitting, isOver, move, rate, showAnswer, summaryOf } from './sittingState';

const question = (id: string) => ({
  kind: 'question' as const,
  question: { id, question: 'What?', answer: 'That.', startMs: 0, endMs: 1000, isProposed: true },
});
const stretch = { kind: 'stretch' as const, stretch: { startMs: 0, endMs: 1000, text: 'Water.' } };

test('a question that was not known comes once more at the end, and counts as it was answered last', () => {
  let sitting = beginSitting([stretch, question('a'), question('b')]);
  sitting = rate(showAnswer(move(sitting, 1)), 'unknown');
  expect(sitting.at).toBe(2);
  sitting = rate(sitting, 'known');
  expect(isOver(sitting)).toBe(false);
  expect(sitting.steps[3]).toMatchObject({ question: { id: 'a', isProposed: false } });
  sitting = rate(sitting, 'unknown');
  expect(isOver(sitting)).toBe(true);
  expect(summaryOf(sitting)).toEqual({ passages: 1, questions: 2, known: 1 });
});

test('the answer is hidden again at the next step, and nothing is passed at either end', () => {
  const sitting = beginSitting([stretch, question('a')]);
  expect(move(sitting, -1).at).toBe(0);
  expect(move(showAnswer(move(sitting, 1)), -1)).toMatchObject({ at: 0, isAnswerShown: false });
  expect(move(move(move(sitting, 1), 1), 1).at).toBe(2);
});

test('stopped early, only what was gone through is counted', () => {
  const sitting = move(beginSitting([stretch, stretch, question('a')]), 1);
  expect(summaryOf(sitting)).toEqual({ passages: 1, questions: 0, known: 0 });
  expect(rate(sitting, 'known')).toBe(sitting);
});
