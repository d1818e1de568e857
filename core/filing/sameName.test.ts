import { isSameName } from './sameName';

it.each([
  ['limes', 'Limes'],
  ['Élan', 'élan'],
  ['E\u0301lan', 'élan'],
  ['STRASSE', 'straße'],
  ['ΟΔΟΣ', 'οδος'],
  ['МОСТ', 'мост'],
  [' quay ', 'Quay'],
])('%s and %s are one name', (one, other) => expect(isSameName(one, other)).toBe(true));

it('other letters are other names', () => expect(isSameName('Elan', 'Élan')).toBe(false));
