import * as yup from './yup';

const schema = yup
  .object({
    name: yup.string().min(2).max(5).required(),
    count: yup.number().integer().min(1).max(9),
    place: yup.string().oneOf(['tray', 'bin']),
    id: yup.string().uuid(),
    isOn: yup.boolean(),
    tags: yup.array().of(yup.string().required()).max(1),
    to: yup.object({ mail: yup.string().email().nullable() }),
  })
  .noUnknown();

async function refusals(value: object): Promise<string[]> {
  const error: unknown = await schema
    .validate({ name: 'abc', ...value }, { abortEarly: false, stripUnknown: false })
    .catch((e) => e);
  return error instanceof yup.ValidationError ? error.errors : [];
}

it.each<[object, string]>([
  [{ name: '' }, '“name” is missing.'],
  [{ name: 'abcdef' }, '“name” may have at most 5 characters.'],
  [{ name: 'a' }, '“name” needs at least 2 characters.'],
  [{ name: null }, '“name” is missing.'],
  [{ count: 0 }, '“count” must be at least 1.'],
  [{ count: 10 }, '“count” must be at most 9.'],
  [{ count: 1.5 }, '“count” must be a whole number.'],
  [{ count: 'many' }, '“count” must be a number.'],
  [{ place: 'moon' }, '“place” must be one of these: tray, bin.'],
  [{ id: 'x' }, '“id” is not a valid id.'],
  [{ isOn: 'perhaps' }, '“isOn” must be true or false.'],
  [{ tags: ['a', 'b'] }, '“tags” may have at most 1 entries.'],
  [{ to: { mail: 'nowhere' } }, '“to.mail” is not a valid email address.'],
  [{ colour: 'red' }, 'Unknown field: colour.'],
])('%j is refused in a sentence', async (value, sentence) => {
  expect(await refusals(value)).toContain(sentence);
});

it('what is right is not refused', async () => {
  expect(await refusals({ count: 3, place: 'bin', isOn: true, tags: ['a'] })).toEqual([]);
});
