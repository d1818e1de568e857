import { briefly, contracted, applyWording, writtenOut } from './wording';

describe('wording', () => {
  it.each([
    ["It's not there and we can't wait.", 'It is not there and we cannot wait.'],
    ["I'm sure they won't, but I've asked.", 'I am sure they will not, but I have asked.'],
    ["We're late. Let's go; that's all.", 'We are late. Let us go; that is all.'],
    ['The students’ report isn’t due.', 'The students’ report is not due.'.replace(/’/g, "'")],
    ["It's been wet and he's got gloves.", 'It has been wet and he has got gloves.'],
    ["Ottoline's map is here.", "Ottoline's map is here."],
  ])('writes out: %s', (short, whole) => expect(writtenOut(short)).toBe(whole));

  it.each([
    ['I am here and it is late.', "I'm here and it's late."],
    ['Do not wait. We will come.', "Don't wait. We'll come."],
    ['Yes, it is.', 'Yes, it is.'],
    ['I cannot say.', "I can't say."],
  ])('contracts: %s', (whole, short) => expect(contracted(whole)).toBe(short));

  it.each([
    ['Really, it is actually very simple.', 'It is simple.'],
    ['The wall (which nobody likes) stays.', 'The wall stays.'],
    ['The limes, which came late, are planted.', 'The limes are planted.'],
    ['The trench, which the town digs, and the limes, who are thirsty, wait.', 'The trench and the limes wait.'],
    ['The price, which is 400 for each, stays.', 'The price, which is 400 for each, stays.'],
    ['It is not just a wall.', 'It is not just a wall.'],
    ["It isn't very wet, but it was very cold.", "It isn't very wet, but it was cold."],
    ['I would rather wait at the pretty wall.', 'I would rather wait at the pretty wall.'],
  ])('makes brief: %s', (long, brief) => expect(briefly(long)).toBe(brief));

  it('leaves what was said where nothing else is asked', () => {
    expect(applyWording("It's really late.", 'as said')).toBe("It's really late.");
    expect(applyWording("It's really late.", 'formal')).toBe('It is late.');
  });
});
