import { quantitiesIn } from './quantities';

it.each([
  ['The trench costs eleven thousand four hundred.', ['eleven thousand four hundred']],
  // A recogniser writes a comma there.
  ['The trench costs eleven thousand, four hundred.', ['eleven thousand, four hundred']],
  ['A thousand, four hundred and six', ['A thousand, four hundred and six']],
  ['Nine apples, four pears and two plums.', ['Nine apples', 'four pears', 'two plums']],
  ['We measured forty six degrees.', ['forty six degrees']],
  ['a tree lives for about three weeks', ['three weeks']],
  ['It holds 25 per cent, or 12.5 mm', ['25 per cent', '12.5 mm']],
  ['One of them is the best one', []],
  ['Somebody phoned', []],
])('%s', (text, quantities) => expect(quantitiesIn(text)).toEqual(quantities));
