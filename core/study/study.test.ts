import type { Passage } from '../transcript/manuscript';
import { sentencesOfText } from '../language/sentences';
import { GAP, recallQuestions } from './recallQuestions';
import { type RecallRating, afterReview, newRecall } from './schedule';
import { CHECK_MARK, stepsOf, stretchesToStudy } from './sitting';

describe('when a question comes back', () => {
  it('is as the published test of the method has it', () => {
    // The days of py-fsrs 6, test_basic.py, "test_review_card", with its default parameters; from memory.
    const ratings = 'known known known known known known unknown unknown known known known known known'.split(' ');
    let now = new Date('2022-11-29T12:30:00Z');
    let state = newRecall(now);
    const days = ratings.map((rating) => {
      state = afterReview(state, rating as RecallRating, now);
      now = new Date(state.due);
      return state.scheduled_days;
    });
    expect(days).toEqual([0, 2, 11, 46, 163, 498, 0, 0, 2, 4, 7, 12, 21]);
  });

  it('is later the better it was known, and survives being written down', () => {
    const now = new Date('2026-03-09T08:00:00Z');
    const due = (['unknown', 'hard', 'known', 'easy'] as const).map((rating) =>
      Date.parse(afterReview(JSON.parse(JSON.stringify(newRecall(now))), rating, now).due),
    );
    expect(due).toEqual([...due].sort((a, b) => a - b));
    expect(due[3]! - due[0]!).toBeGreaterThan(24 * 3_600_000);
  });
});

const passage = (startMs: number, text: string, confidence = 1): Passage => ({
  ...{ startMs, endMs: startMs + 9000, speaker: null, startsParagraph: true },
  words: text
    .split(' ')
    .map((word, i) => ({ text: word, startMs: startMs + i * 300, endMs: startMs + i * 300 + 250, confidence })),
});
const talk = {
  passages: [
    passage(0, 'First the water.'),
    passage(10_000, 'Then the soil.', 0.2),
    passage(20_000, 'At last the tree.'),
  ],
  slips: [
    { mark: CHECK_MARK, startMs: 12_000, endMs: null },
    { mark: 'question', startMs: 20_000, endMs: 20_600 },
    { mark: null, startMs: 0, endMs: null },
  ],
};
const starts = (choice: Parameters<typeof stretchesToStudy>[1], part: { fromMs: number; toMs: number } | null = null) =>
  stretchesToStudy(talk, choice, { doubtfulBelow: 0.5, part }).map((s) => s.startMs);

test('what is gone through is all of it, what is marked, what is to be checked, or what is doubtful', () => {
  expect(starts('all')).toEqual([0, 10_000, 20_000]);
  expect(starts('check')).toEqual([0, 10_000]);
  expect(starts('marked')).toEqual([0, 10_000, 20_000]);
  expect(starts('doubtful')).toEqual([10_000]);
  expect(starts('questions')).toEqual([]);
  expect(starts('all', { fromMs: 10_000, toMs: 20_000 })).toEqual([10_000]);
});

test('a question follows the passage that it comes from; the others come at the end', () => {
  const stretches = stretchesToStudy(talk, 'all', { doubtfulBelow: 0.5, part: { fromMs: 0, toMs: 20_000 } });
  const kinds = stepsOf(stretches, [{ startMs: 25_000 }, { startMs: 1000 }]).map((s) =>
    s.kind === 'stretch' ? s.stretch.startMs : `? ${s.question.startMs}`,
  );
  expect(kinds).toEqual([0, '? 1000', 10_000, '? 25000']);
});

describe('questions by which a talk is recalled', () => {
  const said = (text: string) =>
    sentencesOfText(text).map((s, i) => ({ ...s, startMs: i * 5000, endMs: i * 5000 + 4500 }));

  it('leave a term out of the sentence that says what it is', () => {
    const [question] = recallQuestions(
      said(
        'We spoke about field capacity for a while. What a soil holds against gravity is called the field capacity. Field capacity comes back later in the course.',
      ),
    );
    expect(question).toMatchObject({
      question: `What a soil holds against gravity is called the ${GAP}.`,
      answer: 'field capacity',
      startMs: 5000,
    });
  });

  it('ask each term and use each sentence once, in the order of the talk', () => {
    const questions = recallQuestions(
      said(
        'Loam is a soil of sand and clay with enough pores. A heavy clay holds forty per cent of water. '.repeat(40),
      ),
    );
    expect(new Set(questions.map((q) => q.answer)).size).toBe(questions.length);
    expect(new Set(questions.map((q) => q.startMs)).size).toBe(questions.length);
    expect(questions.map((q) => q.startMs)).toEqual(questions.map((q) => q.startMs).sort((a, b) => a - b));
    for (const q of questions) expect(q.question.split(GAP)).toHaveLength(2);
  });

  it('are none where nothing was said, or only words without a time', () => {
    expect(recallQuestions([])).toEqual([]);
    expect(recallQuestions(sentencesOfText('What a soil holds is called the field capacity.'))).toEqual([]);
    expect(recallQuestions(said('Yes. No. Well.'))).toEqual([]);
  });
});
