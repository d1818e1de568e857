import { numberValue, ordinalValue } from './spokenNumbers';

describe('spoken numbers', () => {
  it.each([
    ['zero', 0],
    ['nine', 9],
    ['twelve', 12],
    ['nineteen', 19],
    ['twenty', 20],
    ['twenty one', 21],
    ['Forty-Five', 45],
    ['ninety nine', 99],
    ['15', 15],
    ['hundred', null],
    ['', null],
    ['lime', null],
  ])('%s', (text, value) => expect(numberValue(text)).toBe(value));

  it.each([
    ['first', 1],
    ['twelfth', 12],
    ['twentieth', 20],
    ['twenty-first', 21],
    ['thirty first', 31],
    ['3rd', 3],
    ['22nd', 22],
    ['two', null],
    ['last', null],
  ])('%s', (text, value) => expect(ordinalValue(text)).toBe(value));
});
