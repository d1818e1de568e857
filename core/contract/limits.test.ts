import { beyondLimits } from './limits';
import * as yup from './yup';

const schema = yup
  .object({
    name: yup.string().max(5),
    tags: yup.array().of(yup.string().max(3).required()).max(2),
    count: yup.number(),
    isOn: yup.boolean(),
    inner: yup.object({ text: yup.string() }),
    tree: yup.mixed(),
  })
  .noUnknown();

it.each<[unknown, string]>([
  [{ name: 'x'.repeat(200) }, '“name” may have at most 5 characters.'],
  [{ name: { toString: 1 } }, '“name” must be text.'],
  [{ name: ['a'] }, '“name” must be text.'],
  [{ name: 'a\u0000' }, '“name” contains a character that cannot be stored.'],
  [{ tags: ['a', 'b', 'c'] }, '“tags” may have at most 2 entries.'],
  [{ tags: 'a' }, '“tags” must be a list.'],
  [{ tags: ['a', 'x'.repeat(300)] }, '“tags[1]” may have at most 3 characters.'],
  [{ count: {} }, '“count” must be a number.'],
  [{ count: '1'.repeat(100) }, '“count” must be a number.'],
  [{ isOn: 1 }, '“isOn” must be true or false.'],
  [{ inner: 'x' }, '“inner” must be an object.'],
  [{ inner: { text: 'x'.repeat(5000) } }, '“inner.text” may have at most 500 characters.'],
  [[], 'The request must be an object.'],
  ['text', 'The request must be an object.'],
  [JSON.parse('{"constructor":1}'), 'Unknown field: constructor.'],
  [JSON.parse('{"__proto__":1}'), 'Unknown field: __proto__.'],
  [JSON.parse('{"tree":{"a":{"__proto__":1}}}'), '“tree” has a field that is not known: __proto__.'],
  [{ tree: JSON.parse('['.repeat(5000) + ']'.repeat(5000)) }, '“tree” is too large.'],
  [Object.fromEntries(Array.from({ length: 100 }, (_, i) => [`f${i}`, 1])), 'The request has too many fields.'],
])('%#: is refused before any rule looks at it', (value, sentence) => {
  expect(beyondLimits(schema, value)).toBe(sentence);
});

it('what is of the right size goes on to the rules', () => {
  const value = { name: ' ab ', tags: ['a'], count: '3', isOn: 'true', inner: { text: 'x' }, tree: [1, { a: null }] };
  expect(beyondLimits(schema, value)).toBeNull();
  expect(beyondLimits(schema, null)).toBeNull();
});
