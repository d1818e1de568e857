import { alike } from '../alike';
import { findTodos } from '../todos/findTodos';
import { OWN_NAME, PROJECTS, SAID_AT, readTodoExamples } from './todoExamples';
import { precisionRecall, todoMetrics } from './todoMetrics';
import { TODO_MEMOS_TEST_SET } from './todoMemosTestSet';
import { TODO_MEMOS_DEV_SET } from './todoMemosDevSet';

describe('wordings', () => {
  it('are compared by the coefficient of Dice (1945): twice what is shared over the sum of both', () => {
    expect(alike('Pay the water bill', 'Pay a bill')).toBeCloseTo((2 * 2) / (3 + 2));
    expect(alike('Send the invitations', 'Send the invitation')).toBe(1);
    expect(alike('', 'Call')).toBe(0);
  });
});

describe('figures', () => {
  const examples = readTodoExamples('> Said.\n- Call Bram | me | 2026-03-10 | -\n- Buy milk | me | - | Home');
  const todo = (text: string, who: string | null, due: string | null, project: string | null) => ({
    ...{ text, who, due, project },
  });

  it('count each wanted to-do once, and person, date and project of the right ones only', () => {
    const found = [
      todo('Call Bram', 'me', '2026-03-11', null),
      todo('Call Bram', 'me', '2026-03-10', null),
      todo('Sing', null, null, null),
    ];
    const figures = todoMetrics(examples, () => found);
    expect(figures).toMatchObject({ wanted: 2, found: 3, right: 1, who: 1, due: 0, project: 1 });
    expect(precisionRecall(figures)).toEqual({ precision: 1 / 3, recall: 1 / 2, f1: 0.4 });
  });

  it('refuse a line that is neither said nor to do', () => {
    expect(() => readTodoExamples('> Said.\n* Call')).toThrow('Neither said nor to do');
  });
});

describe('to-dos in memos and dialogues', () => {
  const lists = { 'to work with': TODO_MEMOS_DEV_SET, 'for the figure': TODO_MEMOS_TEST_SET };

  it.each(Object.entries(lists))('are found as the aims ask: %s', (_, list) => {
    const figures = todoMetrics(readTodoExamples(list), ({ sentences }) =>
      findTodos(sentences, { at: SAID_AT, projects: PROJECTS, ownName: OWN_NAME }),
    );
    expect(precisionRecall(figures).f1).toBeGreaterThanOrEqual(0.85);
    expect(figures.due / figures.right).toBeGreaterThanOrEqual(0.9);
    expect(figures.who / figures.right).toBeGreaterThanOrEqual(0.85);
    expect(figures.project / figures.right).toBeGreaterThanOrEqual(0.9);
  });

  it('are looked for in 120 memos and 20 dialogues', () => {
    const all = Object.values(lists).flatMap(readTodoExamples);
    const dialogues = all.filter((e) => e.sentences.some((s) => s.speaker));
    expect(dialogues.length).toBeGreaterThanOrEqual(20);
    expect(all.length - dialogues.length).toBeGreaterThanOrEqual(120);
  });
});
