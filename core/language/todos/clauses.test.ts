import fc from 'fast-check';
import { clausesOf, clean, firstWord, lowerFirst, numberedPoint } from './clauses';

describe('a sentence without what only opens or fills it', () => {
  it.each([
    ['Um, okay, so send the survey.', 'send the survey'],
    ['I need to, I need to call June.', 'I need to call June'],
    ['And then, please water the limes, please.', 'water the limes'],
    ['First, order the stakes.', 'order the stakes'],
    ['By the way, the pump is loud.', 'the pump is loud'],
    ['Next week we plant.', 'Next week we plant'],
    ['Next Friday we plant.', 'Next Friday we plant'],
    ['It’s sort of ready…', "It's ready"],
  ])('%s', (said, left) => expect(clean(said)).toBe(left));

  it('cleaned once more it is the same', () => {
    const words = fc.array(fc.constantFrom('so', 'please', 'send', 'the', 'form,', 'and', 'then', 'I', 'now'), {
      maxLength: 10,
    });
    fc.assert(
      fc.property(words, (said) => {
        const once = clean(said.join(' '));
        expect(clean(once)).toBe(once);
      }),
    );
  });
});

describe('the clauses that can each ask for something', () => {
  it.each([
    ['I will call Bram and you send the form.', ['I will call Bram', 'you send the form']],
    ['Book the digger, and I need to ask Bram.', ['Book the digger', 'I need to ask Bram']],
    ['The deposit is due on Friday; please pay it.', ['The deposit is due on Friday', 'pay it']],
    ['Jun, could you bring the map?', ['Jun, could you bring the map?']],
    ['Buy bread, milk and apples.', ['Buy bread, milk and apples']],
    ['Send it, will you?', ['Send it, will you?']],
    ['', []],
  ])('%s', (text, clauses) => expect(clausesOf(text)).toEqual(clauses));
});

test('numbered points lose their number', () => {
  expect(numberedPoint('Action point two, order the sand.')).toBe('order the sand');
  expect(numberedPoint('Task 3: call the school.')).toBe('call the school');
  expect(numberedPoint('Call the school.')).toBeNull();
});

test('first words', () => {
  expect(firstWord('Re-order the sand')).toBe('Re-order');
  expect(firstWord('12 trees')).toBe('');
  expect(lowerFirst('The pit')).toBe('the pit');
  expect(lowerFirst('Bram comes')).toBe('Bram comes');
});
