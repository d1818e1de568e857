import { isQuestion, readQuestion } from './question';

const PEOPLE = [
  { name: 'Bram Vantongeren', otherNames: ['the arborist'] },
  { name: 'Ottoline Reyes', otherNames: ['the engineer'] },
  { name: 'Idris Malmquist', otherNames: ['Professor Malmquist', 'the professor'] },
];
// A Thursday.
const read = (typed: string) => readQuestion(typed, PEOPLE, '2026-03-12');

describe('whether something is asked or looked for', () => {
  it.each([
    'What did Bram say?',
    'roots?',
    'when is the delivery',
    'how deep can we dig',
    'everything with Bram',
    'Tell me, who pays for it',
    'did I call the school',
  ])('“%s” is a question', (typed) => expect(isQuestion(typed)).toBe(true));

  it.each([
    'lime tree',
    'what',
    'when rain',
    '',
    '?',
    '???',
    'person:Bram roots?',
    'the wall of the lock',
    '"who pays"',
  ])('“%s” is not', (typed) => expect(isQuestion(typed)).toBe(false));
});

describe('what kind of answer is wanted', () => {
  it.each([
    ['Who pays for the trench?', 'who'],
    ['With whom did I walk?', 'who'],
    ['When is the delivery?', 'when'],
    ['Until when must I call back?', 'when'],
    ['At what time do we start?', 'when'],
    ['Which days did she offer?', 'when'],
    ['Where are the sacks?', 'where'],
    ['How many plums are there?', 'count'],
    ['How deep can we dig?', 'count'],
    ['What is the price of the trench?', 'count'],
    ['What does the trench cost?', 'count'],
    ['Why silver lime?', 'why'],
    ['How do I test texture?', 'how'],
    ['What is field capacity?', 'meaning'],
    ['What have I promised the engineer?', 'promise'],
    ['What did I do last week?', 'digest'],
    ['Everything with Bram', 'digest'],
    ['Which lime did we choose?', 'what'],
  ])('%s: %s', (question, kind) => expect(read(question).kind).toBe(kind));
});

describe('people in a question', () => {
  it('are known by first, full and other names, and taken out of the words', () => {
    expect(read("What is in Bram's letter about roots?")).toMatchObject({
      people: ['Bram Vantongeren'],
      speaker: null,
    });
    expect(read('What did the arborist say about the roots?')).toMatchObject({
      ...{ people: ['Bram Vantongeren'], speaker: 'Bram Vantongeren' },
      terms: expect.arrayContaining([expect.objectContaining({ word: 'roots' })]),
    });
    expect(read('What did the arborist say about the roots?').terms.map((t) => t.word)).not.toContain('arborist');
    expect(read('What did Professor Malmquist explain about salt?').people).toEqual(['Idris Malmquist']);
  });

  it('are not seen in other words', () => expect(read('Where are the brambles?').people).toEqual([]));

  it('may be oneself', () => {
    expect(read('What did I say about the sign?').speaker).toBe('me');
    expect(read('What have I promised Ottoline?')).toMatchObject({ speaker: 'me', people: ['Ottoline Reyes'] });
  });
});

describe('the period of a question', () => {
  it('is taken out of it', () => {
    const { period, terms } = read('What did Bram say about roots last week?');
    expect(period).toMatchObject({ from: '2026-03-02', to: '2026-03-08', name: 'last week' });
    expect(terms.filter((t) => t.weight === 1).map((t) => t.word)).toEqual(['roots']);
  });

  it('is what is asked for, and no limit, where the question is when', () => {
    expect(read('When is Bram coming on Thursday?').period).toBeNull();
  });
});

it('weighs what a question is about above the words that only ask', () => {
  const weights = Object.fromEntries(
    read('When does the meeting about lamps start?').terms.map((t) => [t.word, t.weight]),
  );
  expect(weights['lamps']).toBe(1);
  expect(weights['start']).toBeLessThan(1);
});
