import { countCorrections, typedNames } from './repeatedCorrections';

const words = (text: string) => text.split(' ');

test.each([
  ['ask our coils about it', 'ask Okwuosa about it', ['Okwuosa']],
  ['The key is long.', 'The quay is long.', []],
  ['Key is long.', 'Quay is long.', []],
  ['I met tamsyn’s aunt', 'I met Tamsin’s aunt', ['Tamsin']],
  ['we measured evaporation', 'we measured evapotranspiration', ['evapotranspiration']],
  ['in harrowmere', 'in Harrowmere', []],
])('%s → %s', (before, after, expected) => expect(typedNames(words(before), words(after))).toEqual(expected));

test('is proposed at the second time, once, and not when it is listed', () => {
  const kept = new Map<string, string>();
  const storage = {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
  };
  expect(countCorrections(['Okwuosa'], [], storage)).toEqual([]);
  expect(countCorrections(['Okwuosa', 'Tamsin'], [], storage)).toEqual(['Okwuosa']);
  expect(countCorrections(['Okwuosa'], [], storage)).toEqual([]);
  expect(countCorrections(['Tamsin'], ['Tamsin'], storage)).toEqual([]);
  kept.set('immeld-corrected-names', 'broken');
  expect(countCorrections(['Tamsin'], [], storage)).toEqual([]);
});
